@echo off
rem Makes an installer for Windows with the JDK's own packager. To be run on Windows, with a JDK 17 or newer and the WiX
rem toolset on the path, after "mvn -Dmaven.test.skip=true package" there: the libraries of the window differ by system.
rem Kept ready; it has not been run, as there is no Windows machine here.
setlocal
cd /d "%~dp0.."
for /f "tokens=3 delims=<>" %%v in ('findstr /n "<version>" pom.xml ^| findstr /b "8:"') do set version=%%v
mkdir packaging\target\input 2>nul
copy /y desktop\target\desktop-%version%.jar packaging\target\input >nul
copy /y desktop\target\lib\*.jar packaging\target\input >nul
copy /y desktop\target\demo.nightreed packaging\target\input >nul
(echo extension=nightreed& echo mime-type=application/x-night-reed& echo description=Night Reed project) > packaging\target\association.properties
jpackage --type msi --name "Night Reed" --app-version %version% --vendor "Night Reed" --dest packaging\target ^
  --input packaging\target\input --main-jar desktop-%version%.jar --main-class nightreed.desktop.Main ^
  --java-options "-Djdk.console=java.base" --java-options "-Dfile.encoding=UTF-8" --java-options "-Xss2m" --java-options "-Xmx1500m" ^
  --file-associations packaging\target\association.properties --win-menu --win-shortcut --win-per-user-install

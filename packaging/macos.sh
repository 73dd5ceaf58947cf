#!/usr/bin/env bash
# Makes a disk image for macOS with the JDK's own packager. To be run on macOS, with a JDK 17 or newer, after
# "mvn -Dmaven.test.skip=true package" there: the libraries of the window differ by system.
# Kept ready; it has not been run, as there is no such machine here. It does not sign anything.
set -euo pipefail
cd "$(dirname "$0")/.."
version="$(grep -m 1 '<version>' pom.xml | sed 's/.*<version>//; s/<.*//')"
mkdir -p packaging/target/input
cp "desktop/target/desktop-$version.jar" desktop/target/lib/*.jar desktop/target/demo.nightreed packaging/target/input/
printf '%s\n' extension=nightreed mime-type=application/x-night-reed "description=Night Reed project" \
  >packaging/target/association.properties
jpackage --type dmg --name "Night Reed" --app-version "${version/#0./1.}" --vendor "Night Reed" --dest packaging/target \
  --input packaging/target/input --main-jar "desktop-$version.jar" --main-class nightreed.desktop.Main \
  --java-options "-Djdk.console=java.base" --java-options "-Dfile.encoding=UTF-8" --java-options "-Xss2m" \
  --java-options "-Xmx1500m" --file-associations packaging/target/association.properties

package nightreed.bench;

import atlantafx.base.theme.PrimerDark;
import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javafx.animation.AnimationTimer;
import javafx.application.Application;
import javafx.application.Platform;
import javafx.scene.Scene;
import javafx.scene.control.Label;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;

/**
 * From the start of the process until the window has been drawn, against an empty window of the same size with the same
 * theme, in turn, each in a new process with the launcher's own options. Medians of 7 and their ratio.
 * <pre>xvfb-run -a java -cp 'bench/target/*:desktop/target/*:desktop/target/lib/*' nightreed.bench.WindowStart</pre>
 */
public final class WindowStart {
    private static final int RUNS = 7;

    private WindowStart() {}

    /** The empty window. */
    public static final class Empty extends Application {
        @Override
        public void start(Stage stage) {
            setUserAgentStylesheet(new PrimerDark().getUserAgentStylesheet());
            stage.setScene(new Scene(new StackPane(new Label("empty")), 1280, 800));
            stage.show();
            new AnimationTimer() {
                private int frames;

                @Override
                public void handle(long now) {
                    if (++frames == 2) {
                        System.out.println("drawn "
                                + (System.currentTimeMillis()
                                        - java.lang.management.ManagementFactory.getRuntimeMXBean()
                                                .getStartTime())
                                + " ms");
                        Platform.exit();
                        System.exit(0);
                    }
                }
            }.start();
        }
    }

    /** Starts the empty window. */
    public static final class EmptyMain {
        private EmptyMain() {}

        public static void main(String[] args) {
            Application.launch(Empty.class);
        }
    }

    public static void main(String[] args) throws Exception {
        double[] ours = new double[RUNS];
        double[] empty = new double[RUNS];
        for (int i = -1; i < RUNS; i++) { // the first round warms the disk
            String told = run("nightreed.desktop.Main");
            String other = run(EmptyMain.class.getName());
            if (i >= 0) {
                ours[i] = drawn(told);
                empty[i] = drawn(other);
            }
            System.out.println(told + "   empty: " + other);
        }
        Arrays.sort(ours);
        Arrays.sort(empty);
        System.out.printf(
                Locale.ROOT,
                "Night Reed %.0f ms, empty window %.0f ms: %.2f times%n",
                ours[RUNS / 2],
                empty[RUNS / 2],
                ours[RUNS / 2] / empty[RUNS / 2]);
    }

    private static double drawn(String told) {
        Matcher m = Pattern.compile("drawn (\\d+) ms").matcher(told);
        if (!m.find()) {
            throw new IllegalStateException("the window did not say when it was drawn: " + told);
        }
        return Double.parseDouble(m.group(1));
    }

    private static String run(String main) throws Exception {
        Path home = Files.createTempDirectory("night-reed-start");
        String jar = "desktop/target/desktop-0.1.0.jar";
        List<String> command = new ArrayList<>(List.of(
                ProcessHandle.current().info().command().orElseThrow(),
                "-XX:+UseSerialGC",
                "-Xss2m",
                "-Xmx1500m",
                "-Dprism.order=sw",
                "-Dnightreed.timing=true",
                "-Duser.home=" + home));
        if (Files.exists(Path.of("desktop/target/night-reed-window.jsa"))) {
            command.addAll(List.of(
                    "-XX:SharedArchiveFile=desktop/target/night-reed-window.jsa",
                    "-Xshare:auto",
                    "-Xlog:cds=off",
                    "-Xlog:cds+dynamic=off"));
        }
        command.addAll(List.of("-cp", jar + ":desktop/target/lib/*:bench/target/*", main));
        Process p = new ProcessBuilder(command).redirectErrorStream(true).start();
        StringBuilder all = new StringBuilder();
        try (var in = new BufferedReader(new InputStreamReader(p.getInputStream(), StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                if (line.contains(" ms")) {
                    all.append(line);
                }
            }
        }
        p.waitFor();
        return all.toString();
    }
}

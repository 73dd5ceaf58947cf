package nightreed.desktop;

import java.io.ByteArrayOutputStream;
import java.io.File;
import java.io.IOException;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javafx.application.Platform;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.stage.FileChooser;
import javafx.stage.Stage;
import nightreed.cli.ProgramVersion;
import nightreed.desktop.settings.Places;
import nightreed.desktop.settings.Preferences.Look;
import nightreed.files.OutputFile;
import nightreed.sound.Clip;
import nightreed.sound.WavFiles;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Faults of the program that nobody foresaw: one small window says what was kept and offers to save a report; the program goes
 * on. Faults while it is open are only logged.
 */
final class Faults implements Thread.UncaughtExceptionHandler {
    private static final Logger LOG = LoggerFactory.getLogger(Faults.class);
    private static final int LOG_BYTES = 200_000; // of the log's end

    private final Workbench workbench;
    private Stage open; // FX thread

    Faults(Workbench workbench) {
        this.workbench = workbench;
    }

    @Override
    public void uncaughtException(Thread thread, Throwable fault) {
        LOG.error("in the thread {}", thread.getName(), fault);
        Platform.runLater(() -> show(fault));
    }

    private void show(Throwable fault) {
        if (open != null || workbench.shell().getScene() == null) {
            return;
        }
        Label what = new Label("Something went wrong inside Night Reed, and it goes on.\n\n" + kept()
                + "\n\nIf it happens again, save a report: it holds the end of the log and the versions of what is"
                + " installed, and no sound unless you wish it.");
        what.setWrapText(true);
        CheckBox sound = new CheckBox("with the recording on the bench");
        sound.setId("fault-sound");
        sound.setDisable(workbench.bench().state().recording() == null);
        Button save = new Button("Save a report…");
        save.setId("fault-save");
        Button on = new Button("Go on");
        on.setId("fault-go-on");
        on.getStyleClass().add("accent-button");
        on.setDefaultButton(true);
        on.setCancelButton(true);
        Region gap = new Region();
        HBox.setHgrow(gap, Priority.ALWAYS);
        HBox buttons = new HBox(10, sound, gap, save, on);
        buttons.setAlignment(Pos.CENTER_RIGHT);
        VBox all = new VBox(16, what, buttons);
        all.setPadding(new Insets(20));
        all.setPrefWidth(520);
        all.getStyleClass().addAll("fault", workbench.preferences().get().look() == Look.NIGHT ? "night" : "day");
        open = new Stage();
        open.initOwner(workbench.shell().getScene().getWindow());
        open.setTitle("Night Reed");
        Scene scene = new Scene(all);
        scene.getStylesheets().setAll(workbench.shell().getScene().getStylesheets());
        open.setScene(scene);
        open.setOnHidden(e -> open = null);
        on.setOnAction(e -> open.close());
        save.setOnAction(e -> {
            FileChooser chooser = new FileChooser();
            chooser.setInitialFileName("night-reed-report.zip");
            File file = chooser.showSaveDialog(open);
            if (file != null) {
                save(file.toPath(), fault, sound.isSelected());
                open.close();
            }
        });
        open.show();
    }

    private String kept() {
        int unsaved = workbench.bench().unsavedProperty().get();
        return unsaved == 0
                ? "Every change up to now is in the project file."
                : unsaved
                        + " changes are not in the project file yet; they are kept in the window and will be written.";
    }

    /** Writes a report, and says where it is or why it is not. FX thread. */
    void save(Path zip, Throwable fault, boolean withSound) {
        try {
            OutputFile.write(zip, report(fault, withSound));
            workbench.bench().say("The report was written to " + zip + ".");
        } catch (IOException e) {
            workbench.bench().say(e.getMessage());
        }
    }

    private byte[] report(Throwable fault, boolean withSound) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(bytes, StandardCharsets.UTF_8)) {
            put(zip, "report.txt", text(fault).getBytes(StandardCharsets.UTF_8));
            if (Files.isReadable(Places.log())) {
                byte[] log = Files.readAllBytes(Places.log());
                int from = Math.max(0, log.length - LOG_BYTES);
                put(zip, "log.txt", java.util.Arrays.copyOfRange(log, from, log.length));
            }
            if (withSound && workbench.bench().state().recording() != null) {
                Clip clip = workbench.bench().state().recording().clip();
                put(zip, "recording.wav", WavFiles.encode(clip, WavFiles.Format.PCM24));
            }
        }
        return bytes.toByteArray();
    }

    private static void put(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
        zip.putNextEntry(new ZipEntry(name));
        zip.write(bytes);
        zip.closeEntry();
    }

    private static String text(Throwable fault) {
        StringWriter out = new StringWriter();
        PrintWriter p = new PrintWriter(out);
        p.println("Night Reed " + ProgramVersion.number() + ", " + Instant.now());
        for (String property :
                new String[] {"java.version", "java.vm.name", "javafx.version", "os.name", "os.version", "os.arch"}) {
            p.println(property + ": " + System.getProperty(property));
        }
        p.println("memory: " + Runtime.getRuntime().totalMemory() / (1 << 20) + " of "
                + Runtime.getRuntime().maxMemory() / (1 << 20) + " MB");
        p.println();
        fault.printStackTrace(p);
        p.flush();
        return out.toString();
    }
}

package nightreed.desktop;

import java.nio.file.Path;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.geometry.Rectangle2D;
import javafx.scene.Scene;
import javafx.scene.text.Font;
import javafx.stage.Screen;
import javafx.stage.Stage;
import nightreed.desktop.settings.Places;
import nightreed.desktop.settings.PreferenceStore;
import nightreed.desktop.settings.Preferences;
import nightreed.desktop.settings.Preferences.Midi;
import nightreed.desktop.settings.Preferences.Place;
import nightreed.desktop.shell.Shell;
import nightreed.desktop.workspace.Workspace;
import nightreed.device.AudioOutput;
import nightreed.device.JavaSoundDevices;
import nightreed.device.OutputDevices;
import nightreed.device.OutputMixer;
import nightreed.device.SoundOut;
import nightreed.device.midi.JavaSoundMidi;
import nightreed.device.midi.MidiDevices;
import nightreed.device.midi.MidiIn;
import nightreed.machine.Machine;
import nightreed.play.Performance;
import nightreed.recipe.Recipe;

/** One open window with everything that belongs to it: bench, desk, output, preferences, threads. */
public final class Workbench {
    private final ExecutorService worker = oneThread("night-reed work");
    private final ExecutorService scribe = oneThread("night-reed project");
    private final ExecutorService follower = oneThread("night-reed follow");
    private final OutputMixer desk = new OutputMixer(SoundOut.SAMPLE_RATE_HZ);
    private final Workspace bench = new Workspace(Platform::runLater, worker, scribe, follower, desk);
    private final Faults faults = new Faults(this);
    private final PreferenceStore preferences;
    private final OutputDevices outputs;
    private final MidiDevices midiDevices;
    private SoundOut sound; // from the first need on
    private MidiIn midi; // likewise
    private final Shell shell;
    private Stage stage;
    private Runnable completed = () -> {};

    /** With the machine's own sound outputs and the user's own preferences. FX thread. */
    public Workbench() {
        this(new JavaSoundDevices(), new JavaSoundMidi(), Places.preferences());
    }

    /** Without MIDI devices. */
    public Workbench(OutputDevices outputs, Path preferencesFile) {
        this(outputs, MidiDevices.none(), preferencesFile);
    }

    /**
     * @param outputs         what sound can go to
     * @param midiDevices     what the keys can be played from
     * @param preferencesFile where preferences are kept
     */
    public Workbench(OutputDevices outputs, MidiDevices midiDevices, Path preferencesFile) {
        this.midiDevices = midiDevices;
        Thread.setDefaultUncaughtExceptionHandler(faults);
        preferences = new PreferenceStore(preferencesFile, scribe);
        Preferences p = preferences.get();
        this.outputs = outputs;
        bench.hearing(p.hearing());
        bench.controllers().load(p.midi().controls());
        shell = new Shell(bench, this::sound, this::midi, preferences);
        bench.controllers()
                .taughtProperty()
                .addListener((o, a, taught) ->
                        preferences.change(q -> q.withMidi(new Midi(q.midi().device(), taught))));
        bench.fitting().on(p.machine() == null ? Machine.ANY : p.machine());
        bench.fitting()
                .machineProperty()
                .addListener((o, a, machine) ->
                        preferences.change(q -> q.withMachine(machine.equals(Machine.ANY) ? null : machine)));
        preferences.currentProperty().addListener((o, before, now) -> follow(before, now));
        bench.projectPathProperty().addListener((o, a, path) -> {
            if (path != null && !path.startsWith(System.getProperty("java.io.tmpdir"))) {
                preferences.change(q -> q.withRecent(path.toAbsolutePath().toString()));
            }
        });
    }

    private void follow(Preferences before, Preferences now) {
        if (now.look() != before.look() && shell.getScene() != null) {
            shell.wear(now.look());
        }
        if (!java.util.Objects.equals(now.output(), before.output()) || now.blockSamples() != before.blockSamples()) {
            SoundOut out = sound();
            worker.execute(() -> out.choose(now.output(), now.blockSamples())); // a driver may take its time
        }
        if (!java.util.Objects.equals(now.midi().device(), before.midi().device())) {
            midi().choose(now.midi().device());
        }
        bench.hearing(now.hearing());
    }

    /** One thread for work in order; what comes after the window is closed is dropped. */
    private static ExecutorService oneThread(String name) {
        return new ThreadPoolExecutor(
                1,
                1,
                0,
                TimeUnit.SECONDS,
                new LinkedBlockingQueue<>(),
                r -> {
                    Thread t = new Thread(r, name);
                    t.setDaemon(true);
                    t.setPriority(Thread.NORM_PRIORITY - 1); // the window and the sound come first
                    return t;
                },
                new ThreadPoolExecutor.DiscardPolicy());
    }

    /** What is done about faults that nobody foresaw. */
    Faults faults() {
        return faults;
    }

    public Workspace bench() {
        return bench;
    }

    public Shell shell() {
        return shell;
    }

    public PreferenceStore preferences() {
        return preferences;
    }

    /** What sounds now. FX thread. */
    public AudioOutput output() {
        return sound().output();
    }

    /** Opens the sound output, and the fonts that everything but the ground is written in. */
    private SoundOut sound() {
        if (sound == null) {
            for (String font : new String[] {
                "IBMPlexSans_400Regular",
                "IBMPlexSans_500Medium",
                "IBMPlexSans_600SemiBold",
                "JetBrainsMono_400Regular",
                "JetBrainsMono_500Medium"
            }) {
                Font.loadFont(Workbench.class.getResourceAsStream("fonts/" + font + ".ttf"), 13);
            }
            Preferences p = preferences.get();
            sound = new SoundOut(desk, outputs, p.output(), p.blockSamples());
        }
        return sound;
    }

    /** Listens to MIDI devices; with nothing on the bench, the stand-in plays about middle C. */
    private MidiIn midi() {
        if (midi == null) {
            midi = new MidiIn(
                    desk,
                    midiDevices,
                    () -> {
                        Recipe r = bench.state().recipe();
                        return Performance.phrase(r == null ? 60 : r.key());
                    },
                    preferences.get().midi().device());
            midi.setOnControl(bench.controllers()::turned);
        }
        return midi;
    }

    /** Shows the window where it was last. FX thread. */
    public void show(Stage window) {
        stage = window;
        Place p = preferences.get().place();
        Scene scene = new Scene(shell, p.width(), p.height());
        shell.enter(scene);
        stage.setTitle("Night Reed");
        stage.setMinWidth(1000);
        stage.setMinHeight(680);
        stage.setScene(scene);
        boolean onScreen = Screen.getScreens().stream()
                .map(Screen::getVisualBounds)
                .anyMatch(b -> b.intersects(new Rectangle2D(p.x(), p.y(), 200, 60)));
        if (!Double.isNaN(p.x()) && onScreen) { // the screen it was on may be gone
            stage.setX(p.x());
            stage.setY(p.y());
        }
        stage.setMaximized(p.maximized());
        stage.show();
        new AnimationTimer() {
            private int frames;

            @Override
            public void handle(long now) {
                if (++frames == 3) { // the empty window has been drawn
                    stop();
                    shell.complete();
                    completed.run();
                }
            }
        }.start();
    }

    /** Has something done once everything is in the window. */
    void onCompleted(Runnable then) {
        completed = then;
    }

    /** Ends all work; what has been edited is in the project file before this returns. */
    public void close() {
        if (stage != null && stage.getScene() != null) {
            boolean max = stage.isMaximized();
            Place before = preferences.get().place();
            Place now = new Place(
                    stage.getX(),
                    stage.getY(),
                    max ? before.width() : stage.getScene().getWidth(),
                    max ? before.height() : stage.getScene().getHeight(),
                    max,
                    shell.dividerShare(),
                    shell.notesOpen());
            preferences.change(p -> p.withPlace(now));
        }
        if (Thread.getDefaultUncaughtExceptionHandler() == faults) {
            Thread.setDefaultUncaughtExceptionHandler(null); // it would keep the closed window
        }
        bench.cancel();
        bench.close();
        shell.close();
        midi().close();
        sound().close();
        follower.shutdownNow();
        worker.shutdownNow();
        scribe.shutdown();
        try {
            scribe.awaitTermination(5, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}

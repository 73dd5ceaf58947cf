package nightreed.device;

import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Keeps the desk sounding through whatever output there is: the one that was chosen, the system's own, or the stand-in.
 * Outputs may vanish, hang, come back and change their rate at any time; a watcher notices within a second and opens what
 * is best then, and the sound comes up softly.
 */
public final class SoundOut implements AutoCloseable {
    /** Rate that everything is rendered at [Hz]. */
    public static final int SAMPLE_RATE_HZ = 48_000;

    /** Usual block: 5 ms. */
    public static final int USUAL_BLOCK = 256;

    private static final Logger LOG = LoggerFactory.getLogger(SoundOut.class);
    private static final long LOOK_MILLIS = 250;
    private static final int LOOKS_UNTIL_STUCK = 5;

    private final OutputMixer desk;
    private final OutputDevices devices;
    private final Object lock = new Object(); // never held while sound is rendered
    private volatile Consumer<AudioOutput> told = o -> {};
    private String wanted; // null: whatever the system chooses
    private int block;
    private volatile AudioOutput output;
    private Tap tap;
    private List<String> there =
            List.of(); // when the output was opened: what refused then is not asked again and again
    private long lastPlayed;
    private int looksWithoutProgress;
    private int looks;
    private volatile boolean closed;

    /**
     * Opens at once.
     *
     * @param wanted name of an output, or null for the system's own choice
     * @param block  samples per block
     */
    public SoundOut(OutputMixer desk, OutputDevices devices, String wanted, int block) {
        this.desk = desk;
        this.devices = devices;
        this.wanted = wanted;
        this.block = block;
        synchronized (lock) {
            open();
        }
        Thread watcher = new Thread(this::watch, "sound output watcher");
        watcher.setDaemon(true);
        watcher.start();
    }

    /** The desk's sound for one output; cut off before the next output gets it, so that two never render at once. */
    private static final class Tap implements AudioSource {
        private final OutputMixer desk;
        private volatile boolean cut;
        private volatile boolean busy;

        Tap(OutputMixer desk) {
            this.desk = desk;
        }

        @Override
        public void render(float[] left, float[] right, int n) {
            busy = true;
            if (cut) {
                java.util.Arrays.fill(left, 0, n, 0);
                java.util.Arrays.fill(right, 0, n, 0);
            } else {
                desk.render(left, right, n);
            }
            busy = false;
        }

        /** Returns once the other thread has let go; a block takes a few milliseconds at the most. */
        void cut() {
            cut = true;
            for (int i = 0; busy && i < 200; i++) {
                java.util.concurrent.locks.LockSupport.parkNanos(1_000_000);
            }
        }
    }

    /** Told on a thread of its own whenever another output takes over. */
    public void setOnChange(Consumer<AudioOutput> listener) {
        told = listener;
    }

    /** The output that sounds now. */
    public AudioOutput output() {
        return output;
    }

    /** Names of all outputs that are there now. */
    public List<String> names() {
        return devices.names();
    }

    /** Changes to another output or block size, while sounding. */
    public void choose(String name, int blockSamples) {
        synchronized (lock) {
            if (!Objects.equals(name, wanted) || blockSamples != block) {
                wanted = name;
                block = blockSamples;
                open();
            }
        }
    }

    /** Opens the best there is. Called with the lock held. */
    private void open() {
        if (tap != null) {
            tap.cut();
        }
        if (output != null) {
            output.close();
        }
        desk.softStart();
        tap = new Tap(desk);
        AudioOutput next = null;
        try {
            there = List.copyOf(devices.names());
            if (wanted != null && there.contains(wanted)) {
                next = devices.open(wanted, block, tap);
            }
            if (next == null && !there.isEmpty()) {
                next = devices.open(null, block, tap);
            }
        } catch (RuntimeException e) {
            LOG.warn("no output could be opened", e); // drivers have their own ideas
        }
        output = next != null ? next : new StandInOutput(tap, SAMPLE_RATE_HZ, block);
        lastPlayed = 0;
        looksWithoutProgress = 0;
        told.accept(output);
    }

    private void watch() {
        while (!closed) {
            try {
                Thread.sleep(LOOK_MILLIS);
            } catch (InterruptedException e) {
                return;
            }
            synchronized (lock) {
                if (!closed) {
                    look();
                }
            }
        }
    }

    private void look() {
        AudioOutput now = output;
        long played = now.played();
        looksWithoutProgress = played == lastPlayed ? looksWithoutProgress + 1 : 0;
        lastPlayed = played;
        looks++;
        if (now.lost() || looksWithoutProgress >= LOOKS_UNTIL_STUCK) {
            open();
        } else if (looks % 4 == 0 && betterIsThere(now)) {
            open();
        }
    }

    /** Whether the wanted output, or any at all in place of the stand-in, has come. */
    private boolean betterIsThere(AudioOutput now) {
        try {
            List<String> names = devices.names();
            boolean wantedCame = wanted != null && !now.name().equals(wanted) && names.contains(wanted);
            return !names.equals(there) && (wantedCame || now.standIn() && !names.isEmpty());
        } catch (RuntimeException e) {
            return false;
        }
    }

    @Override
    public void close() {
        synchronized (lock) {
            closed = true;
            tap.cut();
            output.close();
        }
    }
}

package nightreed.device.midi;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Supplier;
import nightreed.play.MidiHand;
import nightreed.play.Performance;
import nightreed.voice.Playable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Lets a MIDI device play the instrument: the one that was chosen, the first there is, or the scripted player. Devices may
 * come and go at any time; a watcher notices within a second. When a device goes while its keys are down, the instrument
 * falls silent instead of sounding on.
 *
 * <p>All public methods may be called on any thread; none waits for a device but {@link #close()}.
 */
public final class MidiIn implements AutoCloseable {
    /** In place of a name: no device is listened to. */
    public static final String NONE = "none";

    private static final Logger LOG = LoggerFactory.getLogger(MidiIn.class);
    private static final long LOOK_MILLIS = 500;

    private final MidiDevices devices;
    private final Playable instrument;
    private final MidiHand hand;
    private final Supplier<Performance> script;
    private final Object lock = new Object();
    private final Thread watcher;
    private volatile MidiHand.ControlListener controls = (controller, value) -> {};
    private volatile List<String> there = List.of();
    private volatile String wanted; // null: the first there is
    private volatile MidiInput input; // null while none is open
    private volatile boolean closed;
    private final AtomicLong messages = new AtomicLong();
    private String refused; // asked once, and again when the devices change

    /**
     * @param wanted name of a device, {@link ScriptedPlayer#NAME}, {@link #NONE}, or null for the first real device there is
     * @param script what the scripted player plays, asked for when it begins
     */
    public MidiIn(Playable instrument, MidiDevices devices, Supplier<Performance> script, String wanted) {
        this.instrument = instrument;
        this.devices = devices;
        this.script = script;
        this.wanted = wanted;
        this.hand = new MidiHand(instrument, (c, v) -> controls.turned(c, v));
        watcher = new Thread(this::watch, "midi watcher"); // the first look takes a while, so it is its first task
        watcher.setDaemon(true);
        watcher.start();
    }

    /** Told, on a device's thread, of controllers that are turned. */
    public void setOnControl(MidiHand.ControlListener listener) {
        controls = listener;
    }

    /** Devices that were there at the last look, and the scripted player. */
    public List<String> names() {
        List<String> out = new ArrayList<>(there);
        out.add(ScriptedPlayer.NAME);
        return out;
    }

    /** Name of the device that is listened to, null if there is none. */
    public String name() {
        MidiInput i = input;
        return i == null ? null : i.name();
    }

    /** Messages that have come since the start. */
    public long messages() {
        return messages.get();
    }

    /** @param name as in the constructor */
    public void choose(String name) {
        wanted = name;
        synchronized (lock) {
            refused = null;
            lock.notifyAll();
        }
    }

    private void watch() {
        while (!closed) {
            try {
                synchronized (lock) {
                    look();
                    if (!closed) {
                        lock.wait(LOOK_MILLIS);
                    }
                }
            } catch (InterruptedException e) {
                return;
            } catch (RuntimeException e) {
                LOG.warn("looking for MIDI devices", e); // drivers have their own ideas
            }
        }
    }

    private void look() {
        List<String> now = devices.names();
        if (!now.equals(there)) {
            there = List.copyOf(now);
            refused = null;
        }
        String best = best();
        MidiInput open = input;
        if (open != null && !open.name().equals(best)) {
            input = null;
            open.close();
            instrument.panic(); // keys that were down will not come up any more
        }
        if (input == null && best != null && !best.equals(refused)) {
            input = best.equals(ScriptedPlayer.NAME)
                    ? new ScriptedPlayer(script.get(), this::message)
                    : devices.open(best, this::message);
            refused = input == null ? best : null;
        }
    }

    /** The device that should be listened to, null for none. */
    private String best() {
        String w = wanted;
        if (Objects.equals(w, NONE)) {
            return null;
        }
        if (w != null && (w.equals(ScriptedPlayer.NAME) || there.contains(w))) {
            return w;
        }
        return there.isEmpty() ? null : there.get(0);
    }

    private void message(int status, int first, int second) {
        messages.incrementAndGet();
        hand.take(status, first, second);
    }

    @Override
    public void close() {
        synchronized (lock) {
            closed = true;
            lock.notifyAll();
            if (input != null) {
                input.close();
                input = null;
            }
        }
    }
}

package nightreed.device;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BooleanSupplier;
import nightreed.Tones;
import nightreed.dsp.StreamResampler;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Outputs that come, go, hang and change their rate while the desk sounds. */
class SoundOutTest {
    /** A machine whose cards can be pulled out. */
    private static final class Machine implements OutputDevices {
        final List<String> names = new CopyOnWriteArrayList<>();
        final List<Card> opened = new CopyOnWriteArrayList<>();
        volatile int rate = 48_000;
        volatile boolean refuses;

        @Override
        public List<String> names() {
            return List.copyOf(names);
        }

        @Override
        public AudioOutput open(String name, int blockSamples, AudioSource source) {
            if (refuses) {
                return null;
            }
            Card c = new Card(name == null ? names.get(0) : name, rate, blockSamples, source);
            opened.add(c);
            return c;
        }

        Card last() {
            return opened.get(opened.size() - 1);
        }
    }

    /** Takes sound as fast as it likes, keeps it, and can be pulled out or stop taking any. */
    private static final class Card implements AudioOutput {
        final String name;
        final int rate;
        final List<float[]> kept = new ArrayList<>();
        volatile boolean pulled;
        volatile boolean hangs;
        volatile boolean closed;
        private volatile long played;
        volatile Throwable failure;

        Card(String name, int rate, int block, AudioSource source) {
            this.name = name;
            this.rate = rate;
            StreamResampler resampler = rate == 48_000 ? null : new StreamResampler(48_000, rate);
            Thread t = new Thread(() -> {
                while (!closed && !pulled) {
                    float[] x = new float[block];
                    if (!hangs) {
                        if (resampler == null) {
                            source.render(x, new float[block], block);
                        } else {
                            resampler.render(source::render, x, new float[block], block);
                        }
                        synchronized (kept) {
                            kept.add(x);
                        }
                        long now = played;
                        played = now + block;
                    }
                    java.util.concurrent.locks.LockSupport.parkNanos(2_000_000);
                }
            });
            t.setUncaughtExceptionHandler((thread, e) -> failure = e);
            t.setDaemon(true);
            t.start();
        }

        Clip sound() {
            synchronized (kept) {
                float[] all = new float[kept.stream().mapToInt(b -> b.length).sum()];
                int at = 0;
                for (float[] b : kept) {
                    System.arraycopy(b, 0, all, at, b.length);
                    at += b.length;
                }
                return Clip.mono(all, rate);
            }
        }

        /** The same, faded at its end: that a card was pulled out in mid-wave is not the desk's burst. */
        Clip faded() {
            float[] x = sound().channel(0);
            for (int i = 0; i < 200 && i < x.length / 2; i++) {
                x[x.length - 1 - i] *= i / 200f;
            }
            return Clip.mono(x, rate);
        }

        @Override
        public String name() {
            return name;
        }

        @Override
        public boolean standIn() {
            return false;
        }

        @Override
        public int sampleRateHz() {
            return rate;
        }

        @Override
        public double latencySeconds() {
            return 0.01;
        }

        @Override
        public long dropOuts() {
            return 0;
        }

        @Override
        public long played() {
            return played;
        }

        @Override
        public boolean lost() {
            return pulled;
        }

        @Override
        public void close() {
            closed = true;
        }
    }

    private final Machine machine = new Machine();
    private final OutputMixer desk = new OutputMixer(48_000);
    private SoundOut out;

    @BeforeEach
    void sound() {
        desk.load(Clip.mono(Tones.sine(48_000, 400, 2.5, 1), 48_000), null, 0); // far over the ceiling
        desk.volumeDb(0);
        desk.loop(true);
        desk.play();
    }

    @AfterEach
    void close() {
        out.close();
        for (Card c : machine.opened) {
            assertThat(c.failure).isNull();
            if (c.played() > 4 * 256) {
                assertThat(TruePeak.db(c.faded())).as(c.name).isLessThanOrEqualTo(-0.8); // no burst over the ceiling
            }
        }
    }

    private static void await(BooleanSupplier done) {
        long end = System.nanoTime() + 10_000_000_000L;
        while (!done.getAsBoolean()) {
            assertThat(System.nanoTime()).as("within ten seconds").isLessThan(end);
            java.util.concurrent.locks.LockSupport.parkNanos(5_000_000);
        }
    }

    @Test
    void aCardThatAppearsTakesOverFromTheStandInAndOneThatVanishesHandsBack() {
        out = new SoundOut(desk, machine, null, 256);
        assertThat(out.output().standIn()).isTrue();
        machine.names.add("desk speakers");
        await(() -> !out.output().standIn());
        await(() -> machine.last().played() > 48_000);
        machine.names.clear();
        machine.last().pulled = true;
        await(() -> out.output().standIn());
        await(() -> out.output().played() > 4800);
        assertThat(desk.playing()).isTrue();
    }

    @Test
    void theChosenOutputIsUsedWheneverItIsThere() {
        machine.names.addAll(List.of("desk speakers", "headphones"));
        out = new SoundOut(desk, machine, "headphones", 256);
        assertThat(out.output().name()).isEqualTo("headphones");
        machine.names.remove("headphones");
        machine.last().pulled = true;
        await(() -> out.output().name().equals("desk speakers"));
        machine.names.add("headphones");
        await(() -> out.output().name().equals("headphones"));
        out.choose("desk speakers", 512);
        assertThat(out.output().name()).isEqualTo("desk speakers");
        await(() -> machine.last().played() > 512);
    }

    @Test
    void anOutputThatHangsIsReplaced() {
        machine.names.add("desk speakers");
        out = new SoundOut(desk, machine, null, 256);
        Card first = machine.last();
        await(() -> first.played() > 2560);
        first.hangs = true;
        await(() -> machine.last() != first);
        first.hangs = false; // and when it wakes up again it gets no more of the desk
        Card second = machine.last();
        await(() -> second.played() > 9600);
        assertThat(first.closed).isTrue();
    }

    @Test
    void anotherRateKeepsThePitch() {
        machine.names.add("interface");
        machine.rate = 44_100;
        desk.load(Clip.mono(Tones.sine(48_000, 400, 0.3, 1), 48_000), null, 0);
        out = new SoundOut(desk, machine, null, 256);
        Card first = machine.last();
        await(() -> first.played() > 44_100);
        float[] x = first.sound().channel(0);
        assertThat(Tones.amplitudeAt(x, 44_100, 400, 22_050, 17_640)).isBetween(0.29, 0.31);
        machine.rate = 96_000; // changed in the system's settings: the line breaks and is opened anew
        first.pulled = true;
        await(() -> machine.last() != first && machine.last().played() > 70_000);
        x = machine.last().sound().channel(0);
        assertThat(Tones.amplitudeAt(x, 96_000, 400, 40_000, 19_200)).isBetween(0.29, 0.31);
    }

    @Test
    void whatRefusesIsNotAskedForEver() {
        machine.refuses = true;
        machine.names.add("taken by another program");
        out = new SoundOut(desk, machine, null, 256);
        List<AudioOutput> told = new CopyOnWriteArrayList<>();
        out.setOnChange(told::add);
        AudioOutput standIn = out.output();
        assertThat(standIn.standIn()).isTrue();
        await(() -> standIn.played() > 2 * 48_000); // two seconds, in which it would have been asked again
        assertThat(told).isEmpty();
        assertThat(out.output()).isSameAs(standIn);
    }
}

package nightreed.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import nightreed.measure.Measurer;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.work.Progress;

/**
 * How long measuring takes against the length of the sound, per kind of note, warm and on one core; then a minute with
 * twenty notes on all cores.
 * <pre>taskset -c 0 java -Djava.util.concurrent.ForkJoinPool.common.parallelism=1 -cp 'bench/target/*:desktop/target/lib/*' \
 *     nightreed.bench.MeasuringTimes
 * java -cp 'bench/target/*:desktop/target/lib/*' nightreed.bench.MeasuringTimes minute</pre>
 */
public final class MeasuringTimes {
    private static final int FS = 48_000;
    private static final int WARM = 15; // until the compiler is done
    private static final int ROUNDS = 12;

    private MeasuringTimes() {}

    public static void main(String[] args) throws Exception {
        if (args.length > 0) {
            minute();
            return;
        }
        List<Object[]> kinds = new ArrayList<>();
        kinds.add(new Object[] {"bar", lasting(room("slate-bars", 57), 4)});
        kinds.add(new Object[] {"bell", lasting(room("buoy-bell", 62), 4)});
        kinds.add(new Object[] {"string", string(196, 4)});
        kinds.add(new Object[] {"held, vibrato", held(220, 4)});
        kinds.add(new Object[] {"modulated", modulated(300, 4)});
        for (Object[] kind : kinds) {
            Clip clip = (Clip) kind[1];
            double[] ms = new double[ROUNDS];
            double first = 0;
            for (int i = -WARM; i < ROUNDS; i++) {
                long start = System.nanoTime();
                Measurer.measure(clip);
                double took = (System.nanoTime() - start) / 1e6;
                first = i == -WARM ? took : first;
                ms[Math.max(0, i)] = took;
            }
            java.util.Arrays.sort(ms);
            System.out.printf(
                    Locale.ROOT,
                    "%-14s %.1f s: first %.0f ms, median %.0f ms, %.1f times real time%n",
                    kind[0],
                    clip.seconds(),
                    first,
                    ms[ROUNDS / 2],
                    1000 * clip.seconds() / ms[ROUNDS / 2]);
        }
    }

    private static void minute() throws Exception {
        float[] x = new float[60 * FS];
        for (int i = 0; i < 20; i++) {
            float[] one =
                    room(i % 3 == 2 ? "buoy-bell" : "slate-bars", 57 + i % 12).channel(0);
            for (int k = 0; k < one.length && 3 * FS * i + k < x.length; k++) {
                x[3 * FS * i + k] += one[k];
            }
        }
        for (int round = 0; round < 3; round++) {
            long start = System.nanoTime();
            int notes = Measurer.notes(Clip.mono(x, FS), Progress.NONE).size();
            System.out.printf(
                    Locale.ROOT, "60 s with 20 notes: %d found, %.1f s%n", notes, (System.nanoTime() - start) / 1e9);
        }
    }

    private static Clip room(String instrument, int key) {
        return RecordingRoom.record(RecordingRoom.instrument(instrument), key, 0.7, 5);
    }

    private static Clip lasting(Clip clip, double seconds) {
        float[] x = new float[(int) (seconds * FS)];
        System.arraycopy(clip.channel(0), 0, x, 0, Math.min(x.length, clip.length()));
        Random r = new Random(8);
        for (int i = clip.length(); i < x.length; i++) {
            x[i] = (float) (1e-4 * r.nextGaussian());
        }
        return Clip.mono(x, FS);
    }

    private static Clip string(double f0, double seconds) {
        double[] x = noise(seconds);
        for (int n = 1; n <= 40; n++) {
            double hz = n * f0 * Math.sqrt(1 + 1e-4 * n * n);
            double amplitude = 0.2 * Math.abs(Math.sin(0.7 * n)) / n;
            double decay = 1.4 + 2e-6 * hz * hz;
            for (int i = FS / 10; i < x.length; i++) {
                double t = (double) i / FS - 0.1;
                x[i] += amplitude * Math.exp(-decay * t) * Math.cos(2 * Math.PI * hz * t + n);
            }
        }
        return Clip.mono(x, FS);
    }

    private static Clip held(double f0, double seconds) {
        double[] x = noise(seconds);
        double phase = 0;
        for (int i = FS / 10; i < x.length; i++) {
            double t = (double) i / FS - 0.1;
            phase += 2 * Math.PI * f0 * Math.pow(2, 20 * Math.sin(34 * t) / 1200) / FS;
            double level = Math.min(1, t / 0.05) * (t > seconds - 0.5 ? Math.exp(-12 * (t - seconds + 0.5)) : 1);
            for (int n = 1; n <= 30; n++) {
                x[i] += 0.15 * level / n * Math.cos(n * phase + n);
            }
        }
        return Clip.mono(x, FS);
    }

    private static Clip modulated(double carrier, double seconds) {
        double[] x = noise(seconds);
        for (int i = FS / 10; i < x.length; i++) {
            double t = (double) i / FS - 0.1;
            x[i] += 0.3
                    * Math.exp(-3 * t)
                    * Math.sin(2 * Math.PI * carrier * t
                            + 4 * Math.exp(-3 * t) * Math.sin(2 * Math.PI * 1.4 * carrier * t));
        }
        return Clip.mono(x, FS);
    }

    private static double[] noise(double seconds) {
        Random r = new Random(3);
        double[] x = new double[(int) (seconds * FS)];
        for (int i = 0; i < x.length; i++) {
            x[i] = 3e-4 * r.nextGaussian();
        }
        return x;
    }
}

package nightreed.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nightreed.dsp.RealFft;
import nightreed.sound.Clip;

/** Notes of which everything is known, for tests. */
public final class MadeUpNote {
    public static final int FS = 48_000;

    /** A mode that was put in; T60 [s]. */
    public record Mode(double hz, double amplitude, double t60) {}

    private final Random chance;
    private final double onset;
    private final double[] x;
    private final List<Mode> modes = new ArrayList<>();

    public MadeUpNote(long seed, double onset, double seconds) {
        this.chance = new Random(seed);
        this.onset = onset;
        this.x = new double[(int) (seconds * FS)];
    }

    public MadeUpNote mode(double hz, double amplitude, double t60) {
        return stages(hz, amplitude, t60, 0, t60);
    }

    /** A mode of two stages: {@code late} is the share of the amplitude that dies by {@code lateT60}. */
    public MadeUpNote stages(double hz, double amplitude, double t60, double late, double lateT60) {
        double phase = 2 * Math.PI * chance.nextDouble();
        for (int i = (int) Math.ceil(onset * FS); i < x.length; i++) {
            double t = (double) i / FS - onset;
            double envelope = (1 - late) * Math.pow(10, -3 * t / t60) + late * Math.pow(10, -3 * t / lateT60);
            x[i] += amplitude * envelope * Math.cos(2 * Math.PI * hz * t + phase);
        }
        modes.add(new Mode(hz, amplitude, t60));
        return this;
    }

    /** Harmonics of a stiff string plucked at a share of its length. */
    public MadeUpNote string(double f0, double b, double pluck, double a, double perHz2, int count) {
        for (int n = 1; n <= count; n++) {
            double hz = n * f0 * Math.sqrt(1 + b * n * n);
            double amplitude = 0.2 * Math.abs(Math.sin(Math.PI * n * pluck)) / n;
            mode(hz, amplitude, Math.log(1000) / (a + perHz2 * hz * hz));
        }
        return this;
    }

    /** Path of the pitch [cents] and of the level [dB] over the time from the onset [s]. */
    public interface Path {
        double at(double seconds);
    }

    /** A harmonic sound that rises over {@code rise} seconds and is let go at {@code release}. */
    public MadeUpNote held(double f0, int count, double rise, double release, Path cents, Path db) {
        double phase = 0;
        for (int i = (int) Math.ceil(onset * FS); i < x.length; i++) {
            double t = (double) i / FS - onset;
            phase += 2 * Math.PI * f0 * Math.pow(2, cents.at(t) / 1200) / FS;
            double u = Math.min(1, t / rise);
            double envelope = (0.5 - 0.5 * Math.cos(Math.PI * u)) * Math.pow(10, db.at(t) / 20);
            envelope *= t > release ? Math.pow(10, -3 * (t - release) / 0.15) : 1;
            for (int n = 1; n <= count; n++) {
                x[i] += envelope * 0.15 / n * Math.cos(n * phase + n * n);
            }
        }
        return this;
    }

    /** Frequency modulation whose index dies away. */
    public MadeUpNote modulated(double carrier, double modulator, double index, double indexSeconds, double t60) {
        for (int i = (int) Math.ceil(onset * FS); i < x.length; i++) {
            double t = (double) i / FS - onset;
            double swing = index * Math.exp(-t / indexSeconds) * Math.sin(2 * Math.PI * modulator * t);
            x[i] += 0.3
                    * Math.min(1, t / 0.004)
                    * Math.pow(10, -3 * t / t60)
                    * Math.sin(2 * Math.PI * carrier * t + swing + 0.7);
        }
        return this;
    }

    /** White noise all through, so far under the loudest half second [dB]. */
    public MadeUpNote noise(double snrDb) {
        double energy = 0;
        int from = (int) (onset * FS);
        int to = (int) Math.min(x.length, from + 0.5 * FS);
        for (int i = from; i < to; i++) {
            energy += x[i] * x[i] / (to - from);
        }
        double sigma = Math.sqrt(energy) * Math.pow(10, -snrDb / 20);
        for (int i = 0; i < x.length; i++) {
            x[i] += sigma * chance.nextGaussian();
        }
        return this;
    }

    /** A sine all through, such as hum. */
    public MadeUpNote line(double hz, double amplitude) {
        for (int i = 0; i < x.length; i++) {
            x[i] += amplitude * Math.sin(2 * Math.PI * hz * i / FS);
        }
        return this;
    }

    /** A repeat after so long, so much weaker; fed back again and again or once only. */
    public MadeUpNote echo(double seconds, double gain, boolean feedback) {
        int delay = (int) Math.round(seconds * FS);
        double[] dry = x.clone();
        for (int i = delay; i < x.length; i++) {
            x[i] += gain * (feedback ? x[i - delay] : dry[i - delay]);
        }
        return this;
    }

    /** A room: noise that dies by 60 dB in {@code t60}, convolved with the note, so far under it [dB]. */
    public MadeUpNote room(double t60, double db) {
        RealFft fft = new RealFft(RealFft.powerOfTwoFrom(2 * x.length));
        double[] echoes = new double[(int) Math.min(x.length, 1.2 * t60 * FS)];
        double energy = 0;
        for (int i = 0; i < echoes.length; i++) {
            echoes[i] = chance.nextGaussian() * Math.pow(10, -3.0 * i / FS / t60);
            energy += echoes[i] * echoes[i];
        }
        double[] a = fft.forward(x);
        double[] b = fft.forward(echoes);
        for (int k = 0; k < a.length; k += 2) {
            double re = a[k] * b[k] - a[k + 1] * b[k + 1];
            a[k + 1] = a[k] * b[k + 1] + a[k + 1] * b[k];
            a[k] = re;
        }
        double[] wet = fft.inverse(a);
        for (int i = 0; i < x.length; i++) {
            x[i] += wet[i] * Math.pow(10, db / 20) / Math.sqrt(energy);
        }
        return this;
    }

    /** A single sample that jumps, again and again. */
    public MadeUpNote clicks(double first, double period, double size) {
        for (double t = first; t < x.length / (double) FS; t += period) {
            x[(int) (t * FS)] += size;
        }
        return this;
    }

    /** A burst of noise at the strike that dies within milliseconds. */
    public MadeUpNote burst(double amplitude, double t60) {
        for (int i = (int) Math.ceil(onset * FS); i < x.length; i++) {
            x[i] += amplitude * chance.nextGaussian() * Math.pow(10, -3 * (i / (double) FS - onset) / t60);
        }
        return this;
    }

    /** Everything through a curve that bends: y = x + second x² + third x³. */
    public MadeUpNote driven(double second, double third) {
        for (int i = 0; i < x.length; i++) {
            x[i] += second * x[i] * x[i] + third * x[i] * x[i] * x[i];
        }
        return this;
    }

    public List<Mode> modes() {
        return modes;
    }

    public double[] samples() {
        return x.clone();
    }

    public Clip clip() {
        return Clip.mono(x, FS);
    }
}

package nightreed.typical;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.dsp.Biquad;
import nightreed.dsp.BiquadFilter;
import nightreed.dsp.Noise;
import nightreed.dsp.RealFft;
import nightreed.measure.Typical;
import nightreed.measure.partial.Partial;
import nightreed.sound.Clip;
import nightreed.typical.TypicalNote.Line;

/** A typical note as a sound: its partials one by one, its noise and its room. None of the methods of imitation has a part in it. */
public final class TypicalSound {
    /** Rate of all targets [Hz]. */
    public static final int SAMPLE_RATE_HZ = 44_100;

    /** Silence before the note, in which a measurement looks for the background [s]. */
    private static final double LEAD_SECONDS = 0.15;

    /** Background far under everything, as of a good microphone [full scale = 1]. */
    private static final double BACKGROUND = 2e-5;

    private static final double PEAK = 0.5;

    /** Share of a partial that the lower of its two modes has; chosen: none is struck quite evenly. */
    private static final double LOWER_MODE = 0.6;

    private static final double LN_1000 = Math.log(1000);

    /** Walls answer that much later [s]. */
    private static final double ROOM_DELAY = 0.012;

    private final TypicalNote note;
    private double gain = 1; // from the levels of the note to full scale
    private final int lead = (int) (LEAD_SECONDS * SAMPLE_RATE_HZ);
    private final double[] out;

    private TypicalSound(TypicalNote note) {
        this.note = note;
        this.out = new double[lead + (int) (note.seconds() * SAMPLE_RATE_HZ)];
    }

    /** The same note gives the same sound. */
    public static TypicalSound of(TypicalNote note) {
        TypicalSound s = new TypicalSound(note);
        for (double cents : note.voicesCents()) {
            s.voice(cents);
        }
        s.noise();
        s.room();
        s.level();
        return s;
    }

    /** Mono, at {@link #SAMPLE_RATE_HZ}. */
    public Clip clip() {
        return Clip.mono(out, SAMPLE_RATE_HZ);
    }

    /** Partials of a note that is struck, as they were played, ascending; with errors as wide as bodies of a kind differ. */
    public List<Partial> partials() {
        List<Partial> all = new ArrayList<>();
        int number = 0;
        for (Line l : note.lines()) {
            number++;
            double a = Math.pow(10, l.levelDb() / 20);
            double turn = phase(number);
            if (l.splitHz() > 0) {
                all.add(partial(l, LOWER_MODE * a, -l.splitHz() / 2, turn));
                all.add(partial(l, (1 - LOWER_MODE) * a, l.splitHz() / 2, turn));
            } else {
                all.add(partial(l, a, 0, turn));
            }
        }
        double top = all.stream().mapToDouble(Partial::levelDb).max().orElse(0);
        return all.stream().map(p -> p.relevelled(p.levelDb() - top, true)).toList();
    }

    private Partial partial(Line l, double a, double offHz, double turn) {
        double hz = l.ratio() * note.f0Hz() + offHz;
        double atOnset = gain * a * Math.exp(LN_1000 * l.riseSeconds() / l.t60Seconds()); // as if it had not to rise
        double radians = 2 * Math.PI * (turn - 0.25); // of a cosine
        return new Partial(
                hz,
                hz / note.f0Hz(),
                20 * Math.log10(atOnset),
                atOnset,
                Math.IEEEremainder(radians, 2 * Math.PI),
                l.t60Seconds(),
                null,
                l.splitHz() > 0 ? (Double) l.splitHz() : null,
                0.8 * l.riseSeconds(), // from 10 to 90 %
                hz * (Math.pow(2, Typical.SPREAD_CENTS / 1200) - 1),
                l.t60Seconds() / Typical.TIME_FACTOR,
                60,
                true);
    }

    private void voice(double cents) {
        double[] swing = new double[out.length - lead]; // of the phase, in cycles of the pitch
        double phase = 0;
        double f0 = note.f0Hz() * Math.pow(2, cents / 1200);
        for (int i = 0; i < swing.length; i++) {
            swing[i] = phase;
            double depth = note.vibratoCents() * Math.min(1, i / (0.4 * SAMPLE_RATE_HZ)); // comes in
            double hz = f0 * Math.pow(2, depth * lfo(i) / 1200);
            phase += hz / SAMPLE_RATE_HZ;
        }
        int number = 0;
        for (Line l : note.lines()) {
            number++;
            double a = Math.pow(10, l.levelDb() / 20);
            double turn = phase(number + (cents > 0 ? 100 : 0));
            if (l.splitHz() > 0) {
                line(l, LOWER_MODE * a, -l.splitHz() / 2, turn, swing);
                line(l, (1 - LOWER_MODE) * a, l.splitHz() / 2, turn, swing);
            } else {
                line(l, a, 0, turn, swing);
            }
        }
    }

    /** Partials of a note start anywhere in their cycle, each at its own place [cycles]. */
    private static double phase(int number) {
        return new Noise(17L * number).uniform();
    }

    private double lfo(int i) {
        return Math.sin(2 * Math.PI * note.vibratoHz() * i / SAMPLE_RATE_HZ);
    }

    private void line(Line l, double a, double offHz, double turn, double[] swing) {
        double decay = Double.isInfinite(l.t60Seconds()) ? 0 : LN_1000 / l.t60Seconds();
        for (int i = 0; i < swing.length; i++) {
            double t = i / (double) SAMPLE_RATE_HZ;
            double level = a * rise(t, l) * Math.exp(-decay * Math.max(0, t - l.riseSeconds())) * released(t);
            if (note.tremoloDb() > 0) {
                level *= Math.pow(10, note.tremoloDb() * lfo(i) / 20);
            }
            out[lead + i] += level * Math.sin(2 * Math.PI * (l.ratio() * swing[i] + offHz * t + turn));
        }
    }

    /** Half a cosine, as of a contact or a breath. */
    private static double rise(double t, Line l) {
        double x = (t - l.delaySeconds()) / Math.max(1e-4, l.riseSeconds());
        return x <= 0 ? 0 : x >= 1 ? 1 : 0.5 - 0.5 * Math.cos(Math.PI * x);
    }

    private double released(double t) {
        double since = t - note.keySeconds();
        return since <= 0 ? 1 : Math.exp(-LN_1000 * since / note.releaseSeconds());
    }

    private void noise() {
        Noise chance = new Noise(5);
        BiquadFilter low = new BiquadFilter(
                Biquad.lowPass(Math.min(note.noise().highHz(), 18_000), Biquad.BUTTERWORTH_Q, SAMPLE_RATE_HZ));
        BiquadFilter high =
                new BiquadFilter(Biquad.highPass(note.noise().lowHz(), Biquad.BUTTERWORTH_Q, SAMPLE_RATE_HZ));
        double share = Math.min(1, (note.noise().highHz() - note.noise().lowHz()) / (SAMPLE_RATE_HZ / 2.0));
        double a = Math.pow(10, note.noise().levelDb() / 20) / Math.sqrt(2 * Math.max(1e-3, share));
        Line first = note.lines().get(0);
        for (int i = 0; i < out.length - lead; i++) {
            double t = i / (double) SAMPLE_RATE_HZ;
            double course = note.isHeld()
                    ? rise(t, first) * released(t)
                    : Math.exp(-LN_1000 * t / note.noise().t60Seconds());
            out[lead + i] += a * course * low.next(high.next(chance.white()));
        }
        for (int i = 0; i < out.length; i++) {
            out[i] += BACKGROUND * chance.white();
        }
    }

    /** Noise that dies, convolved with the sound: a diffuse room. */
    private void room() {
        if (Double.isInfinite(note.roomDb())) {
            return;
        }
        int n = RealFft.powerOfTwoFrom(2 * out.length);
        double[] dry = Arrays.copyOf(out, n);
        double[] answer = new double[n];
        Noise chance = new Noise(9);
        double energy = 0;
        for (int i = (int) (ROOM_DELAY * SAMPLE_RATE_HZ); i < out.length; i++) {
            answer[i] = chance.white() * Math.exp(-LN_1000 * i / (note.roomSeconds() * SAMPLE_RATE_HZ));
            energy += answer[i] * answer[i];
        }
        double share = Math.pow(10, note.roomDb() / 20) / Math.sqrt(energy);
        RealFft fft = new RealFft(n);
        double[] a = fft.forward(dry);
        double[] b = fft.forward(answer);
        double[] product = new double[a.length];
        for (int k = 0; k + 1 < a.length; k += 2) {
            product[k] = a[k] * b[k] - a[k + 1] * b[k + 1];
            product[k + 1] = a[k] * b[k + 1] + a[k + 1] * b[k];
        }
        double[] wet = fft.inverse(product);
        for (int i = 0; i < out.length; i++) {
            out[i] += share * wet[i];
        }
    }

    private void level() {
        double peak = 1e-9;
        for (double v : out) {
            peak = Math.max(peak, Math.abs(v));
        }
        gain = PEAK * note.asked().velocity() / peak;
        int fade = (int) (0.01 * SAMPLE_RATE_HZ); // so that it does not end with a click
        for (int i = 0; i < out.length; i++) {
            out[i] *= gain * Math.min(1, (out.length - i) / (double) fade);
        }
    }
}

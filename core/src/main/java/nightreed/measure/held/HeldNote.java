package nightreed.measure.held;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.dsp.SincReader;

/**
 * What a bowed or blown note does.
 *
 * @param f0Hz           pitch that its path swings about [Hz]
 * @param f0SeHz         standard error of it [Hz]
 * @param onsetSeconds   start of the note in the recording [s]
 * @param releaseSeconds where it is let go [s]
 * @param glideCents     change of the pitch over the time it is held, without what swings [cents]
 * @param harmonics      by rising number
 * @param vibrato        swing of the pitch [cents], null if there is none
 * @param tremolo        swing of the level [dB], null if there is none
 * @param filter         swing of the brightness [octaves of the centroid], null if there is none
 * @param share          share of the power over the background that the harmonics explain, 0 to 1
 * @param noiseDb        breath or bow noise between the harmonics, over the energy of the harmonics [dB]
 * @param pathSeconds    times of the pitch path [s in the recording]
 * @param pathHz         pitch there [Hz]
 */
@RecordBuilder
public record HeldNote(
        double f0Hz,
        double f0SeHz,
        double onsetSeconds,
        double releaseSeconds,
        double glideCents,
        List<HeldHarmonic> harmonics,
        Movement vibrato,
        Movement tremolo,
        Movement filter,
        double share,
        double noiseDb,
        double[] pathSeconds,
        double[] pathHz)
        implements HeldNoteBuilder.With {
    /** Share of the power over the background that harmonics must explain; less is no note of one pitch. */
    private static final double LEAST_SHARE = 0.8;

    /** Share from which on the pitch was surely followed. */
    private static final double SURE_SHARE = 0.97;

    /** Share from which on the phases of harmonics tell a vibrato: under it there are lines beside them. */
    private static final double HARMONIC_SHARE = 0.985;

    /** Power over noise that makes a harmonic one: one of ten thousand looks at mere noise deceives. */
    private static final double LEAST_RATIO = 20;

    /** Numbers of harmonics that are looked at for notes that share a fundamental. */
    private static final int LOOKED_AT_FOR_SHARING = 16;

    /** Power over the strongest harmonic under which a number does not sound. */
    private static final double SHARED_SHARE = 1e-4;

    private static final int MOST_SHARING = 4;

    /** Swings of the level that are deeper and faster may look like notes [dB], [Hz]. */
    private static final double BEATEN_DB = 3;

    private static final double BEATEN_HZ = 2;

    /** What a path of one pitch may stray by beside its vibrato: less than a semitone [cents]. */
    private static final double ONE_PITCH_CENTS = 60;

    public HeldNote {
        harmonics = List.copyOf(harmonics);
    }

    /** The same note where nothing is known of how it moves. */
    public HeldNote withoutMovement() {
        return with(b -> b.vibrato(null).tremolo(null).filter(null));
    }

    /** Whether the level swings so deep and so fast that each swing could be taken for the start of a note. */
    public boolean isBeaten() {
        return tremolo != null && tremolo.depth() > BEATEN_DB && tremolo.rateHz() > BEATEN_HZ;
    }

    /** Whether the pitch stays where it is, but for its vibrato. */
    public boolean isOnePitch() {
        double low = Arrays.stream(pathHz).min().orElse(1);
        double high = Arrays.stream(pathHz).max().orElse(1);
        double swing = vibrato == null ? 0 : 2 * vibrato.depth();
        return 1200 * Math.log(high / low) / Math.log(2) < swing + ONE_PITCH_CENTS;
    }

    /** New array of the times of the path [s in the recording]. */
    @Override
    public double[] pathSeconds() {
        return pathSeconds.clone();
    }

    /** New array of the pitches of the path [Hz]. */
    @Override
    public double[] pathHz() {
        return pathHz.clone();
    }

    /**
     * @param x        samples
     * @param onset    first sample that leaves the background
     * @param known    whether background precedes the onset; if not, the onset is left where it is
     * @param variance mean square of the background
     * @return null if the note is not held, or has no one pitch
     */
    public static HeldNote measure(double[] x, double fs, int onset, boolean known, double variance) {
        HeldSpan span = HeldSpan.find(x, fs, onset, variance);
        if (span == null) {
            return null;
        }
        SincReader reader = new SincReader(x);
        PitchPath path = PitchTracking.follow(x, reader, fs, span, span.to() / fs);
        if (path == null) {
            return null;
        }
        Explained best = explained(reader, fs, path, span, variance);
        if (best.share < SURE_SHARE) {
            double hz = PitchTracking.median(path.hz());
            PitchPath close = PitchTracking.followNear(hz, x, reader, fs, span, span.to() / fs);
            Explained other = close == null ? best : explained(reader, fs, close, span, variance);
            best = other.share > best.share ? other : best;
        }
        if (best.share < LEAST_SHARE || hasGaps(best.levels) || isShared(best.levels)) {
            return null;
        }
        return describe(x, reader, fs, onset, known, variance, span, best);
    }

    /**
     * Harmonics of a pitch, and how much of what sounds they are.
     *
     * @param levels  mean square amplitude of each over the noise
     * @param share   of the power over the background, 0 to 1
     * @param between power between them over their own
     */
    private record Explained(Harmonics harmonics, double[] levels, double share, double between) {}

    private static Explained explained(SincReader reader, double fs, PitchPath path, HeldSpan span, double variance) {
        Harmonics h = Harmonics.along(reader, fs, path, span.from() / fs, span.to() / fs);
        double[] levels = new double[h.count()];
        double total = 0;
        double between = 0;
        for (int n = 1; n <= h.count(); n++) {
            levels[n - 1] = Math.max(0, mean(h, n, true) - mean(h, n, false));
            total += levels[n - 1] / 2;
            between += mean(h, n, false) / 2;
        }
        double all = h.meanPower();
        double share = Math.min(1, total / (all - Math.min(variance, all / 2)));
        return new Explained(h, levels, share, between / total);
    }

    /**
     * Whether so many numbers are missing that the fundamental is only what several pitches have in common. Odd harmonics
     * alone, as a closed pipe has, are half of all.
     */
    private static boolean hasGaps(double[] levels) {
        double most = 0;
        for (double l : levels) {
            most = Math.max(most, l);
        }
        int top = 0;
        int heard = 0;
        int upToTop = 0;
        for (int n = 1; n <= levels.length; n++) {
            heard += levels[n - 1] > 1e-5 * most ? 1 : 0;
            if (levels[n - 1] > 1e-3 * most) {
                top = n;
                upToTop = heard;
            }
        }
        return upToTop < 0.48 * top;
    }

    /**
     * Whether the fundamental is not there, and every number that is belongs to a few notes over it (2 and 3: a fifth; 4, 5
     * and 6: a chord): then it is only what these have in common. One note may lack its fundamental, but not all numbers that
     * are no multiples of its lowest two or three.
     */
    private static boolean isShared(double[] levels) {
        double most = 0;
        for (double l : levels) {
            most = Math.max(most, l);
        }
        int count = Math.min(levels.length, LOOKED_AT_FOR_SHARING);
        boolean[] own = new boolean[count + 1];
        int notes = 0;
        int missing = 0;
        for (int n = 1; n <= count; n++) {
            boolean sounds = levels[n - 1] > SHARED_SHARE * most;
            boolean known = false;
            for (int m = 2; m < n; m++) {
                known |= own[m] && n % m == 0;
            }
            if (sounds && !known) {
                if (n == 1) {
                    return false;
                }
                own[n] = true;
                notes++;
            }
            missing += sounds ? 0 : 1;
        }
        return notes >= 2 && notes <= MOST_SHARING && missing >= count / 4;
    }

    private static double mean(Harmonics h, int n, boolean signal) {
        double sum = 0;
        for (int f = 0; f < h.frames(); f++) {
            sum += (signal ? h.power(n, f) : h.noise(n, f)) / h.frames();
        }
        return sum;
    }

    private static HeldNote describe(
            double[] x,
            SincReader reader,
            double fs,
            int onset,
            boolean known,
            double variance,
            HeldSpan span,
            Explained found) {
        Harmonics h = found.harmonics;
        int frames = h.frames();
        double[] t = new double[frames - 1];
        double[] cents = new double[frames - 1];
        double[] hz = new double[frames - 1];
        double[] weight = new double[frames - 1];
        double base = h.hop() / (h.seconds(frames / 2) - h.seconds(frames / 2 - 1));
        for (int f = 0; f + 1 < frames; f++) {
            double[] turn = PitchTracking.turn(h, f, h.count());
            double dt = h.seconds(f + 1) - h.seconds(f);
            t[f] = (h.seconds(f) + h.seconds(f + 1)) / 2;
            hz[f] = (h.hop() + (turn == null ? 0 : turn[0] / (2 * Math.PI))) / dt;
            cents[f] = 1200 * Math.log(hz[f] / base) / Math.log(2);
            weight[f] = turn == null ? 0 : 1 / (turn[1] + 1e-10);
        }
        boolean[] slips = PitchTracking.slips(hz);
        for (int f = 0; f < weight.length; f++) {
            weight[f] = slips[f] ? 0 : weight[f];
        }
        level(weight);
        MovementFit.Result pitch = new MovementFit(t, cents, weight).run(onset / fs);
        if (found.share < HARMONIC_SHARE) {
            pitch = sharp(pitch, t, cents, weight, x, fs, onset, span.to());
        }
        double f0 = base * Math.pow(2, pitch.level() / 1200);
        double[] loud = new double[frames];
        double[] centroid = new double[frames];
        double[] at = new double[frames];
        double[] even = new double[frames];
        for (int f = 0; f < frames; f++) {
            double p = 1e-16;
            double weighted = 1e-16;
            for (int n = 1; n <= h.count(); n++) {
                double power = Math.max(0, h.power(n, f) - h.noise(n, f));
                p += power;
                weighted += n * power;
            }
            loud[f] = 10 * Math.log10(p);
            centroid[f] = Math.log(weighted / p) / Math.log(2);
            at[f] = h.seconds(f);
            even[f] = 1;
        }
        MovementFit.Result level = new MovementFit(at, loud, even).run(onset / fs);
        MovementFit.Result bright = new MovementFit(at, centroid, even).run(onset / fs);
        double spread = f0 * Math.log(2) / 1200 * meanSe(t, cents, pitch, onset / fs);
        double start = known ? RampFit.onset(x, fs, onset, variance, span, h, f0) : onset / fs;
        return new HeldNote(
                f0,
                spread,
                start,
                span.to() / fs,
                pitch.slope() * (span.to() - span.from()) / fs,
                harmonics(h, f0, spread, reader, fs, start, span, new PitchPath(t, hz)),
                deep(pitch.movement(), 1.5, onset / fs - start),
                deep(level.movement(), 0.4, onset / fs - start),
                deep(bright.movement(), 0.05, onset / fs - start),
                found.share,
                10 * Math.log10(found.between + 1e-12),
                t,
                hz);
    }

    /** The same where lines beside the harmonics may have led the path astray: with the swing that leaves all lines sharp. */
    private static MovementFit.Result sharp(
            MovementFit.Result followed,
            double[] t,
            double[] cents,
            double[] weight,
            double[] x,
            double fs,
            int onset,
            int to) {
        Movement m = SharpVibrato.near(followed.movement(), x, fs, onset, to);
        if (m == null || m == followed.movement()) {
            return followed;
        }
        double[] rest = new double[cents.length];
        for (int f = 0; f < rest.length; f++) {
            rest[f] = cents[f] - m.at(t[f] - onset / fs);
        }
        MovementFit.Result still = new MovementFit(t, rest, weight).run(onset / fs);
        return new MovementFit.Result(still.level(), still.slope(), m);
    }

    /** A few looks that shine must not decide alone. */
    private static void level(double[] weight) {
        double most = 4 * PitchTracking.median(weight) + 1e-12;
        for (int i = 0; i < weight.length; i++) {
            weight[i] = Math.min(1, weight[i] / most);
        }
    }

    private static Movement deep(Movement m, double least, double earlier) {
        return m == null || m.depth() < least || m.depth() < 4 * m.depthSe() ? null : m.counted(earlier);
    }

    /**
     * Standard error of the level of a path [cents], from the means of its sixths once what swings is taken out: a pitch
     * that wanders slowly is known no better than it wanders.
     */
    private static double meanSe(double[] t, double[] cents, MovementFit.Result fit, double onset) {
        int parts = 6;
        double[] mean = new double[parts];
        double all = 0;
        for (int k = 0; k < parts; k++) {
            int from = k * cents.length / parts;
            int to = (k + 1) * cents.length / parts;
            for (int i = from; i < to; i++) {
                double swing = fit.movement() == null ? 0 : fit.movement().at(t[i] - onset);
                mean[k] += (cents[i] - swing) / (to - from);
            }
            all += mean[k] / parts;
        }
        double sum = 0;
        for (double m : mean) {
            sum += (m - all) * (m - all) / (parts - 1);
        }
        return Math.max(1e-3, Math.sqrt(sum / parts));
    }

    private static List<HeldHarmonic> harmonics(
            Harmonics h,
            double f0,
            double f0Se,
            SincReader reader,
            double fs,
            double start,
            HeldSpan span,
            PitchPath path) {
        // windows overlap by three quarters: so many looks are independent
        double independent = Math.max(1, h.frames() / 2.7);
        Harmonics whole =
                Harmonics.along(reader, fs, path, Math.max(0.01, start - 0.03), Math.min(span.to() / fs, start + 1));
        List<HeldHarmonic> out = new ArrayList<>();
        for (int n = 1; n <= h.count(); n++) {
            double re = 0;
            double im = 0;
            for (int f = 0; f < h.frames(); f++) {
                re += h.re(n, f) / h.frames();
                im += h.im(n, f) / h.frames();
            }
            double noise = mean(h, n, false);
            double coherent = (re * re + im * im) / (noise / independent);
            double power = mean(h, n, true) / noise - 1;
            double plain = power * Math.sqrt(independent);
            if (coherent < LEAST_RATIO && plain < 6) {
                continue;
            }
            double amplitude = Math.sqrt(Math.max(re * re + im * im, power * noise));
            double snr = Math.max(coherent, power * independent);
            // its first periods may be shorter, and then fewer harmonics of them fit under half the rate
            boolean followed = n <= whole.count() && amplitude * amplitude > 60 * noise;
            double[] rise = followed ? rise(whole, n, amplitude) : null;
            out.add(new HeldHarmonic(
                    n,
                    n * f0,
                    n * f0Se,
                    amplitude,
                    Math.atan2(im, re),
                    10 * Math.log10(snr),
                    rise == null ? null : rise[0] - start,
                    rise == null ? null : rise[1]));
        }
        return out;
    }

    /** Time of half the amplitude [s in the recording] and rise from 10 to 90 % [s]. */
    private static double[] rise(Harmonics h, int n, double amplitude) {
        double ten = Double.NaN;
        double half = Double.NaN;
        for (int f = 1; f < h.frames(); f++) {
            double a = Math.sqrt(h.power(n, f - 1)) / amplitude;
            double b = Math.sqrt(h.power(n, f)) / amplitude;
            double dt = h.seconds(f) - h.seconds(f - 1);
            if (Double.isNaN(ten) && b >= 0.1) {
                ten = h.seconds(f - 1) + dt * Math.max(0, Math.min(1, (0.1 - a) / (b - a)));
            }
            if (Double.isNaN(half) && b >= 0.5) {
                half = h.seconds(f - 1) + dt * Math.max(0, Math.min(1, (0.5 - a) / (b - a)));
            }
            if (b >= 0.9) {
                double ninety = h.seconds(f - 1) + dt * Math.max(0, Math.min(1, (0.9 - a) / (b - a)));
                return Double.isNaN(half) ? null : new double[] {half, ninety - ten};
            }
        }
        return null;
    }
}

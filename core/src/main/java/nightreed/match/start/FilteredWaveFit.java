package nightreed.match.start;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import nightreed.dsp.RealFft;
import nightreed.music.Pitch;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Filter.Kind;
import nightreed.recipe.part.Filter.Slope;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Feet;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.wave.WaveOscillator;

/**
 * A wave through a filter whose harmonics rise and fall as those of a recording do. How loud a harmonic is at a time is the wave's
 * level, the filter's at that frequency and the course of the whole: none of it has to be rendered, so that many waves, slopes and
 * resonances can be tried, and the courses of cutoff and level be read off what is left over.
 *
 * <p>Of a wave of the recording's own the levels of the harmonics are what the filter and the course leave over of theirs.
 *
 * @param cycle levels of the harmonics of a wave of the recording's own [dB], null for an ideal one
 * @param rmsDb what is left over, strays counting as far [dB]
 */
record FilteredWaveFit(Oscillator wave, double[] cycle, Filter filter, Envelope amplitude, double rmsDb) {
    private static final int MOST_HARMONICS = 32;
    private static final int FEWEST_LEVELS = 12;

    /** Share of what is heard that has to be harmonics. */
    private static final double LEAST_SHARE = 0.9;

    /** A line that lies further off is none of them, unless it dies so fast that it is wide: [cents], half widths. */
    private static final double HARMONIC_CENTS = 35;

    private static final double WIDE = 3;

    /** Half width of a line times the time in which it falls by 60 dB. */
    private static final double WIDTH = Math.log(1000) / (2 * Math.PI);

    /** The pitch that is heard over the frequency of the whole cycle, at the most. */
    private static final int MOST_PARTS = 3;

    /** A harmonic so far under the strongest of its frame counts no more [dB]. */
    private static final double RANGE_DB = 60;

    private static final double[] WIDTHS = {0.5, 0.4, 0.3, 0.22, 0.15, 0.1, 0.06, 0.03};
    private static final double[] RESONANCES = {0.4, 0.55, 0.8, 1.3, 2.2, 4};
    private static final int CUTOFFS = 36;
    private static final double LOWEST_HZ = 40;
    private static final double HIGHEST_HZ = 18_000;

    /** What may be left over of a sound that is made so, and of one that it is worth to look closer at [dB]. */
    private static final double SURE_DB = 1;

    private static final double MOST_LEFT_DB = 3;

    /** How much more may be left over of a held note, which has noise beside it all the time. */
    private static final double HELD_TIMES = 2;

    /** Of the time in which a course falls by 60 dB, that in which most of it is done. */
    private static final double STRAIGHT = 0.35;

    /** What two that are the same may differ by, as a share. */
    private static final double SAME = 0.01;

    /** Where a course that falls has to end to be one that rises to where it stays, turned over. */
    private static final double ENDED = 0.25;

    private static final int WALKED = 4;
    private static final int TOLD = 2;
    private static final int OWN_TOLD = 2;

    /** Cutoffs that the search for a wave of the recording's own begins with, over the fundamental, and how far they move [oct]. */
    private static final double OWN_CUTOFF = 3;

    private static final double[] OWN_OCTAVES = {0.7, 2.5};

    /** Level of a harmonic that is not there [dB]. */
    private static final double NONE_DB = -120;

    /** Level differences that matter, first from far and then from near [dB]. */
    private static final double[] NEAR_DB = {9, 3, 1};

    /** Of the window of a frame around its middle, where its energy lies [share of its length], [share]. */
    private static final double[][] WINDOW = {{-0.25, 0.09}, {-0.125, 0.24}, {0, 0.34}, {0.125, 0.24}, {0.25, 0.09}};

    /** Samples of one cycle. */
    private static final int CYCLE = 1024;

    /**
     * Levels of the harmonics over time [frame][harmonic].
     *
     * @param f0    of the whole cycle [Hz]
     * @param parts the pitch that is heard over it
     */
    private record Levels(
            double f0, double fs, double window, double[] seconds, double[][] db, double[][] weight, int parts) {
        int harmonics() {
            return db[0].length;
        }
    }

    /** The likeliest first; none for a sound that is not made so, or has too few harmonics. */
    static List<FilteredWaveFit> of(Ground g, Envelope amplitude) {
        int parts = 1;
        while (parts <= MOST_PARTS && harmonic(g, g.f0() / parts) < LEAST_SHARE) {
            parts++;
        }
        return parts > MOST_PARTS ? List.of() : of(g, amplitude, levels(g, parts));
    }

    private static List<FilteredWaveFit> of(Ground g, Envelope amplitude, Levels levels) {
        int seen = 0;
        for (double[] w : levels.weight) {
            for (double v : w) {
                seen += v > 0 ? 1 : 0;
            }
        }
        if (seen < FEWEST_LEVELS || levels.seconds.length < 3) {
            return List.of();
        }
        double times = g.isHeld() ? HELD_TIMES : 1;
        List<FilteredWaveFit> ideal = nearest(
                likely(levels).stream()
                        .map(c -> c.read(levels, amplitude))
                        .flatMap(f -> g.isHeld() ? Stream.of(f, f.straight()) : Stream.of(f))
                        .toList(),
                levels,
                times,
                TOLD);
        List<FilteredWaveFit> own = nearest(own(levels, amplitude), levels, 1, OWN_TOLD);
        return Stream.concat(own.stream(), ideal.stream())
                .map(f -> g.isHeld() ? f.rising() : f)
                .map(f -> f.lower(levels.parts))
                .toList();
    }

    /** So many times under the pitch that is heard. */
    private FilteredWaveFit lower(int parts) {
        Oscillator low = new Oscillator(
                wave.wave(),
                wave.feet(),
                1.0 / parts,
                wave.detuneCents(),
                wave.levelDb(),
                wave.width(),
                wave.phaseRad(),
                wave.free(),
                wave.imperfection(),
                wave.driftCents(),
                wave.pan());
        return new FilteredWaveFit(low, cycle, filter, amplitude, rmsDb);
    }

    /** With a cutoff that moves along a straight line, and a level that stays, as another place to begin at. */
    private FilteredWaveFit straight() {
        Envelope m = filter.envelope();
        double bent = Math.max(0, m.fallCurve());
        Envelope line = new Envelope(
                m.delaySeconds(),
                m.attackSeconds(),
                m.attackCurve(),
                0,
                m.decaySeconds() * (1 - bent * (1 - STRAIGHT)),
                0,
                m.sustain(),
                m.releaseSeconds());
        Filter moved = new Filter(
                filter.kind(),
                filter.slope(),
                filter.cutoffHz(),
                filter.q(),
                filter.keyTracking(),
                filter.envelopeOctaves(),
                filter.velocityOctaves(),
                filter.driveDb(),
                line);
        return new FilteredWaveFit(
                wave, cycle, moved, Envelope.held(amplitude.attackSeconds(), amplitude.releaseSeconds()), rmsDb);
    }

    /** A cutoff that moves up or down to where it stays, as it moves back when the key is let go. */
    private FilteredWaveFit rising() {
        Envelope m = filter.envelope();
        if (m.sustain() > ENDED) {
            return this;
        }
        double octaves = filter.envelopeOctaves();
        Envelope turned = new Envelope(
                m.delaySeconds(),
                Ground.limited(m.attackSeconds() + m.decaySeconds(), 0, 20),
                m.fallCurve(),
                0,
                0,
                1,
                1,
                amplitude.releaseSeconds());
        Filter moved = new Filter(
                filter.kind(),
                filter.slope(),
                Ground.limited(filter.cutoffHz() * Math.pow(2, octaves), 10, 20_000),
                filter.q(),
                filter.keyTracking(),
                -octaves * (1 - m.sustain()),
                filter.velocityOctaves(),
                filter.driveDb(),
                turned);
        return new FilteredWaveFit(wave, cycle, moved, amplitude, rmsDb);
    }

    private static List<FilteredWaveFit> nearest(List<FilteredWaveFit> starts, Levels levels, double times, int most) {
        List<FilteredWaveFit> found = starts.parallelStream()
                .map(f -> f.polished(levels, NEAR_DB[0]))
                .filter(f -> f.rmsDb < times * MOST_LEFT_DB) // the rest are other sounds
                .map(f -> f.polished(levels, NEAR_DB[1]).polished(levels, NEAR_DB[2]))
                .filter(f -> f.rmsDb < times * SURE_DB)
                .sorted(Comparator.comparingDouble(FilteredWaveFit::rmsDb))
                .toList();
        List<FilteredWaveFit> out = new ArrayList<>();
        for (FilteredWaveFit f : found) {
            if (out.size() < most && out.stream().noneMatch(f::isLike)) {
                out.add(f);
            }
        }
        return out;
    }

    /** Whether it came to the same place from another one. */
    private boolean isLike(FilteredWaveFit o) {
        return wave.wave() == o.wave.wave()
                && filter.slope() == o.filter.slope()
                && Math.abs(rmsDb / o.rmsDb - 1) < SAME
                && Math.abs(filter.q() / o.filter.q() - 1) < SAME;
    }

    /** Waves of the recording's own through filters that close by little and by much. */
    private static List<FilteredWaveFit> own(Levels levels, Envelope amplitude) {
        List<FilteredWaveFit> out = new ArrayList<>();
        for (Slope slope : List.of(Slope.DB_12, Slope.DB_24)) {
            for (double octaves : OWN_OCTAVES) {
                Envelope move = Envelope.struck(0.0005, Ground.limited(2 * amplitude.decaySeconds(), 0.05, 50), 0.3);
                out.add(new FilteredWaveFit(
                        oscillator(Wave.MEASURED, 0.5, 0),
                        new double[levels.harmonics()],
                        new Filter(Kind.LOW, slope, OWN_CUTOFF * levels.f0, 0.71, 1, octaves, 1, 0, move),
                        amplitude,
                        Double.POSITIVE_INFINITY));
            }
        }
        return out;
    }

    private static Levels levels(Ground g, int parts) {
        Frames frames = Frames.of(g.side(), g.isHeld() ? g.movement(false) : Common.NONE, false);
        double fs = g.measurement().sampleRateHz();
        double f0 = g.f0() / parts;
        int n = (int) Math.max(1, Math.min(MOST_HARMONICS, 0.45 * fs / f0));
        double[][] db = new double[frames.count()][n];
        double[][] weight = new double[frames.count()][n];
        double sum = 0;
        for (int f = 0; f < db.length; f++) {
            double[] power = frames.power(f);
            double top = -200;
            for (int k = 0; k < n; k++) {
                int middle = (int) Math.round((k + 1) * f0 / frames.binHz());
                double all = 0;
                for (int b = Math.max(1, middle - 2); b <= Math.min(power.length - 1, middle + 2); b++) {
                    all += power[b];
                }
                db[f][k] = 10 * Math.log10(all / 1.5 + 1e-14);
                top = Math.max(top, db[f][k]);
            }
            for (int k = 0; k < n; k++) {
                weight[f][k] = frames.weight(f) * Math.max(0, 1 + (db[f][k] - top) / RANGE_DB);
                sum += weight[f][k];
            }
        }
        for (double[] w : weight) {
            for (int k = 0; k < n; k++) {
                w[k] /= Math.max(1e-9, sum);
            }
        }
        return new Levels(f0, fs, 1 / frames.binHz(), frames.seconds(), db, weight, parts);
    }

    /** Share of the lines that were measured, by their levels, that are harmonics of a frequency [Hz]. */
    private static double harmonic(Ground g, double f0) {
        double top = g.lines().get(0).db();
        double all = 0;
        double harmonic = 0;
        for (Ground.Line l : g.lines()) {
            double weight = Math.max(0, 1 + (l.db() - top) / RANGE_DB);
            double at = Math.max(1, Math.rint(l.hz() / f0)) * f0;
            boolean within = l.t60() != null && Math.abs(l.hz() - at) < WIDE * WIDTH / l.t60();
            all += weight;
            harmonic += within || Math.abs(Pitch.cents(at, l.hz())) < HARMONIC_CENTS ? weight : 0;
        }
        return harmonic / all;
    }

    // ---- from far: each frame with a cutoff of its own ----

    private record Candidate(Wave wave, double width, Slope slope, double q, int[] cutoffs, double cost) {
        FilteredWaveFit read(Levels levels, Envelope usual) {
            int n = cutoffs.length;
            double[] octaves = new double[n];
            double[] gain = new double[n];
            double[] weight = new double[n];
            double[] bare = bare(wave, width, 0, 0, levels.harmonics());
            double high = Double.NEGATIVE_INFINITY;
            double low = Double.POSITIVE_INFINITY;
            double loud = Double.NEGATIVE_INFINITY;
            for (int f = 0; f < n; f++) {
                double hz = cutoff(cutoffs[f]);
                octaves[f] = Math.log(hz) / Math.log(2);
                for (int k = 0; k < bare.length; k++) {
                    double db = bare[k] + MovingFilter.levelDb(Kind.LOW, slope, q, hz, (k + 1) * levels.f0, levels.fs);
                    gain[f] += levels.weight[f][k] * (levels.db[f][k] - db);
                    weight[f] += levels.weight[f][k];
                }
                gain[f] = weight[f] > 0 ? gain[f] / weight[f] : -100;
                if (weight[f] > 0) {
                    high = Math.max(high, octaves[f]);
                    low = Math.min(low, octaves[f]);
                    loud = Math.max(loud, gain[f]);
                }
            }
            boolean rises = weight[0] > 0 && octaves[0] < (high + low) / 2;
            double[] course = new double[n];
            double[] level = new double[n];
            for (int f = 0; f < n; f++) {
                double share = high - low < 0.1 ? 0 : (octaves[f] - low) / (high - low);
                course[f] = rises ? 1 - share : share;
                level[f] = Math.pow(10, (gain[f] - loud) / 20);
            }
            Envelope move = EnvelopeFit.of(levels.seconds, course, weight, 0.0005, usual.releaseSeconds())
                    .envelope();
            Envelope amplitude = EnvelopeFit.ofLevel(
                            levels.seconds, level, weight, usual.attackSeconds(), usual.releaseSeconds())
                    .envelope();
            double depth = rises ? low - high : high - low;
            double base = Math.pow(2, rises ? high : low);
            return new FilteredWaveFit(
                    oscillator(wave, width, 0),
                    null,
                    new Filter(Kind.LOW, slope, base, q, 1, Ground.limited(depth, -8, 8), 1, 0, move),
                    amplitude,
                    Double.POSITIVE_INFINITY);
        }
    }

    private static Oscillator oscillator(Wave wave, double width, double imperfection) {
        return new Oscillator(wave, Feet.FEET_8, 1, 0, 0, width, 0, false, imperfection, 0, 0);
    }

    private static double cutoff(int i) {
        return LOWEST_HZ * Math.pow(HIGHEST_HZ / LOWEST_HZ, i / (CUTOFFS - 1.0));
    }

    private static List<Candidate> likely(Levels levels) {
        List<double[]> waves = new ArrayList<>();
        List<Wave> kinds = new ArrayList<>();
        List<Double> widths = new ArrayList<>();
        for (Wave wave : new Wave[] {Wave.SAW, Wave.TRIANGLE, Wave.PULSE}) {
            for (double width : wave == Wave.PULSE ? WIDTHS : new double[] {0.5}) {
                waves.add(bare(wave, width, 0, 0, levels.harmonics()));
                kinds.add(wave);
                widths.add(width);
            }
        }
        List<Candidate> out = new ArrayList<>();
        for (int w = 0; w < waves.size(); w++) {
            Candidate best = null;
            for (Slope slope : Slope.values()) {
                for (double q : slope == Slope.DB_6 ? new double[] {0.71} : RESONANCES) {
                    Candidate c = framewise(levels, kinds.get(w), widths.get(w), waves.get(w), slope, q);
                    best = best == null || c.cost < best.cost ? c : best;
                }
            }
            out.add(best);
        }
        out.sort(Comparator.comparingDouble(Candidate::cost));
        return out.subList(0, Math.min(WALKED, out.size()));
    }

    private static Candidate framewise(Levels levels, Wave wave, double width, double[] bare, Slope slope, double q) {
        int n = bare.length;
        double[][] filter = new double[CUTOFFS][n];
        for (int c = 0; c < CUTOFFS; c++) {
            for (int k = 0; k < n; k++) {
                filter[c][k] =
                        bare[k] + MovingFilter.levelDb(Kind.LOW, slope, q, cutoff(c), (k + 1) * levels.f0, levels.fs);
            }
        }
        int[] cutoffs = new int[levels.seconds.length];
        double cost = 0;
        for (int f = 0; f < cutoffs.length; f++) {
            double least = Double.POSITIVE_INFINITY;
            for (int c = 0; c < CUTOFFS; c++) {
                double left = left(levels.db[f], levels.weight[f], filter[c]);
                if (left < least) {
                    least = left;
                    cutoffs[f] = c;
                }
            }
            cost += least;
        }
        return new Candidate(wave, width, slope, q, cutoffs, cost);
    }

    /** Weighted squares of what is left over at the best gain, strays counting as far. */
    private static double left(double[] db, double[] weight, double[] model) {
        double mean = 0;
        double all = 1e-12;
        for (int k = 0; k < db.length; k++) {
            mean += weight[k] * (db[k] - model[k]);
            all += weight[k];
        }
        mean /= all;
        double sum = 0;
        for (int k = 0; k < db.length; k++) {
            double r = NearestWalk.bent((db[k] - model[k] - mean) / NEAR_DB[0]);
            sum += weight[k] * r * r;
        }
        return sum;
    }

    /** Levels of the harmonics of a wave, bent by a drive [dB]. */
    private static double[] bare(Wave wave, double width, double imperfection, double driveDb, int harmonics) {
        double fs = CYCLE * 50;
        WaveOscillator o = new WaveOscillator(fs, null);
        o.start(0);
        o.step(wave, 50, 0.49 * fs, width, imperfection, CYCLE);
        double[] x = new double[CYCLE];
        o.render(x, CYCLE);
        if (driveDb > 0.05) { // under this nothing is driven
            double drive = Math.pow(10, driveDb / 20);
            for (int i = 0; i < CYCLE; i++) {
                x[i] = MovingFilter.bent(x[i] * drive);
            }
        }
        double[] s = new RealFft(CYCLE).forward(x);
        double[] out = new double[harmonics];
        for (int k = 0; k < harmonics; k++) {
            double re = s[2 * (k + 1)];
            double im = s[2 * (k + 1) + 1];
            out[k] = 10 * Math.log10(re * re + im * im + 1e-9);
        }
        return out;
    }

    // ---- from near: all values at once ----

    private double[] unknowns() {
        Envelope m = filter.envelope();
        return new double[] {
            Math.log(filter.cutoffHz()),
            Math.log(filter.q()),
            filter.envelopeOctaves() / 3,
            Math.log(m.decaySeconds() + SHORT),
            m.fallCurve(),
            2 * m.sustain(),
            Math.log(m.attackSeconds() + SHORT),
            Math.log(amplitude.decaySeconds() + SHORT),
            amplitude.fallCurve(),
            2 * amplitude.sustain(),
            3 * wave.width(),
            2 * wave.imperfection(),
            filter.driveDb() / 12,
            Math.log(amplitude.attackSeconds() + SHORT)
        };
    }

    /** So that times may come to nothing [s]. */
    private static final double SHORT = 0.002;

    /** A rise that frames see, and that a filter which opens may have a part in [s]. */
    private static final double SLOW = 0.02;

    private FilteredWaveFit with(double[] u) {
        Envelope m = filter.envelope();
        Envelope move = new Envelope(
                m.delaySeconds(),
                Ground.limited(Math.exp(u[6]) - SHORT, 0, 20),
                m.attackCurve(),
                m.holdSeconds(),
                Ground.limited(Math.exp(u[3]) - SHORT, 0, 100),
                Ground.limited(u[4], -1, 1),
                Ground.limited(u[5] / 2, 0, 1),
                m.releaseSeconds());
        Envelope level = new Envelope(
                amplitude.delaySeconds(),
                amplitude.attackSeconds() > SLOW
                        ? Ground.limited(Math.exp(u[13]) - SHORT, SLOW, 20)
                        : amplitude.attackSeconds(),
                amplitude.attackCurve(),
                amplitude.holdSeconds(),
                Ground.limited(Math.exp(u[7]) - SHORT, 0, 100),
                Ground.limited(u[8], -1, 1),
                Ground.limited(u[9] / 2, 0, 1),
                amplitude.releaseSeconds());
        return new FilteredWaveFit(
                oscillator(
                        wave.wave(),
                        wave.wave() == Wave.PULSE ? Ground.limited(u[10] / 3, 0.02, 0.98) : wave.width(),
                        Ground.limited(u[11] / 2, 0, 1)),
                cycle,
                new Filter(
                        filter.kind(),
                        filter.slope(),
                        Ground.limited(Math.exp(u[0]), 10, 20_000),
                        Ground.limited(Math.exp(u[1]), 0.3, 60),
                        filter.keyTracking(),
                        Ground.limited(3 * u[2], -8, 8),
                        filter.velocityOctaves(),
                        Ground.limited(12 * u[12], 0, 36),
                        move),
                level,
                rmsDb);
    }

    private FilteredWaveFit polished(Levels levels, double near) {
        FilteredWaveFit now = with(NearestWalk.from(unknowns(), u -> with(u).residuals(levels, near)));
        double sum = 0;
        for (double r : now.residuals(levels, NEAR_DB[1])) {
            sum += r * r;
        }
        double[] own = cycle == null ? null : now.leftOver(levels, now.shaped(levels));
        return new FilteredWaveFit(now.wave, own, now.filter, now.amplitude, NEAR_DB[1] * Math.sqrt(sum));
    }

    /** What filter and course make of the harmonics in each frame [dB]. */
    private double[][] shaped(Levels levels) {
        int n = levels.harmonics();
        double[][] out = new double[levels.seconds.length][n];
        for (int f = 0; f < out.length; f++) {
            double[] power = new double[n];
            for (double[] part : WINDOW) {
                double t = Math.max(0, levels.seconds[f] + part[0] * levels.window);
                double a = amplitude.at(t, 1);
                double hz = filter.cutoffHz()
                        * Math.pow(
                                2, filter.envelopeOctaves() * filter.envelope().at(t, 1));
                for (int k = 0; k < n; k++) {
                    if (levels.weight[f][k] > 0) {
                        double db = MovingFilter.levelDb(
                                filter.kind(), filter.slope(), filter.q(), hz, (k + 1) * levels.f0, levels.fs);
                        power[k] += part[1] * a * a * Math.exp(db * Math.log(10) / 10);
                    }
                }
            }
            for (int k = 0; k < n; k++) {
                out[f][k] = 10 * Math.log10(power[k] + 1e-14);
            }
        }
        return out;
    }

    /** What is left over for each harmonic, the strongest 0 [dB]. */
    private double[] leftOver(Levels levels, double[][] shaped) {
        double[] out = new double[levels.harmonics()];
        double top = NONE_DB;
        for (int k = 0; k < out.length; k++) {
            double sum = 0;
            double all = 0;
            for (int f = 0; f < shaped.length; f++) {
                sum += levels.weight[f][k] * (levels.db[f][k] - shaped[f][k]);
                all += levels.weight[f][k];
            }
            out[k] = all > 0 ? sum / all : NONE_DB;
            top = all > 0 ? Math.max(top, out[k]) : top;
        }
        for (int k = 0; k < out.length; k++) {
            out[k] = Math.max(NONE_DB, out[k] - top);
        }
        return out;
    }

    private double[] residuals(Levels levels, double near) {
        int n = levels.harmonics();
        double[][] model = shaped(levels);
        double[] bare = cycle == null
                ? bare(wave.wave(), wave.width(), wave.imperfection(), filter.driveDb(), n)
                : leftOver(levels, model);
        double mean = 0;
        for (int f = 0; f < model.length; f++) {
            for (int k = 0; k < n; k++) {
                model[f][k] += bare[k];
                mean += levels.weight[f][k] * (levels.db[f][k] - model[f][k]);
            }
        }
        double[] out = new double[model.length * n];
        for (int f = 0; f < model.length; f++) {
            for (int k = 0; k < n; k++) {
                double r = (levels.db[f][k] - model[f][k] - mean) / near;
                out[f * n + k] = Math.sqrt(levels.weight[f][k]) * NearestWalk.bent(r);
            }
        }
        return out;
    }
}

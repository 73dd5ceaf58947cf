package nightreed.match.start.subtractive;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import nightreed.match.start.StartContext;
import nightreed.optim.LevenbergMarquardt;
import nightreed.optim.RobustLoss;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Filter.Kind;
import nightreed.recipe.part.Filter.Slope;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Feet;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.voice.note.MovingFilter;

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
public record FilteredWaveFit(Oscillator wave, double[] cycle, Filter filter, Envelope amplitude, double rmsDb) {
    private static final int FEWEST_LEVELS = 12;

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

    private static final int TOLD = 2;
    private static final int OWN_TOLD = 2;

    /** Cutoffs that the search for a wave of the recording's own begins with, over the fundamental, and how far they move [oct]. */
    private static final double OWN_CUTOFF = 3;

    private static final double[] OWN_OCTAVES = {0.7, 2.5};

    /** Level of a harmonic that is not there [dB]. */
    private static final double NONE_DB = -120;

    /** Level differences that matter, first from far and then from near [dB]. */
    private static final double[] NEAR_DB = {FrameCutoffs.FAR_DB, 3, 1};

    /** Of the window of a frame around its middle, where its energy lies [share of its length], [share]. */
    private static final double[][] WINDOW = {{-0.25, 0.09}, {-0.125, 0.24}, {0, 0.34}, {0.125, 0.24}, {0.25, 0.09}};

    /** The likeliest first; none for a sound that is not made so, or has too few harmonics. */
    public static List<FilteredWaveFit> of(StartContext g, Envelope amplitude) {
        HarmonicLevels levels = HarmonicLevels.of(g);
        if (levels == null || levels.seen() < FEWEST_LEVELS || levels.frames() < 3) {
            return List.of();
        }
        double times = g.isHeld() ? HELD_TIMES : 1;
        List<FilteredWaveFit> ideal = nearest(
                FrameCutoffs.likely(levels).stream()
                        .map(c -> c.read(levels, amplitude))
                        .flatMap(f -> g.isHeld() ? Stream.of(f, f.straight()) : Stream.of(f))
                        .toList(),
                levels,
                times,
                TOLD);
        List<FilteredWaveFit> own = nearest(own(levels, amplitude), levels, 1, OWN_TOLD);
        return Stream.concat(own.stream(), ideal.stream())
                .map(f -> g.isHeld() ? f.rising() : f)
                .map(f -> f.lower(levels.parts()))
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
                StartContext.limited(m.attackSeconds() + m.decaySeconds(), 0, 20),
                m.fallCurve(),
                0,
                0,
                1,
                1,
                amplitude.releaseSeconds());
        Filter moved = new Filter(
                filter.kind(),
                filter.slope(),
                StartContext.limited(filter.cutoffHz() * Math.pow(2, octaves), 10, 20_000),
                filter.q(),
                filter.keyTracking(),
                -octaves * (1 - m.sustain()),
                filter.velocityOctaves(),
                filter.driveDb(),
                turned);
        return new FilteredWaveFit(wave, cycle, moved, amplitude, rmsDb);
    }

    private static List<FilteredWaveFit> nearest(
            List<FilteredWaveFit> starts, HarmonicLevels levels, double times, int most) {
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
    private static List<FilteredWaveFit> own(HarmonicLevels levels, Envelope amplitude) {
        List<FilteredWaveFit> out = new ArrayList<>();
        for (Slope slope : List.of(Slope.DB_12, Slope.DB_24)) {
            for (double octaves : OWN_OCTAVES) {
                Envelope move =
                        Envelope.struck(0.0005, StartContext.limited(2 * amplitude.decaySeconds(), 0.05, 50), 0.3);
                out.add(new FilteredWaveFit(
                        oscillator(Wave.MEASURED, 0.5, 0),
                        new double[levels.harmonics()],
                        new Filter(Kind.LOW, slope, OWN_CUTOFF * levels.f0(), 0.71, 1, octaves, 1, 0, move),
                        amplitude,
                        Double.POSITIVE_INFINITY));
            }
        }
        return out;
    }

    static Oscillator oscillator(Wave wave, double width, double imperfection) {
        return new Oscillator(wave, Feet.FEET_8, 1, 0, 0, width, 0, false, imperfection, 0, 0);
    }

    // ---- all values at once ----

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
                StartContext.limited(Math.exp(u[6]) - SHORT, 0, 20),
                m.attackCurve(),
                m.holdSeconds(),
                StartContext.limited(Math.exp(u[3]) - SHORT, 0, 100),
                StartContext.limited(u[4], -1, 1),
                StartContext.limited(u[5] / 2, 0, 1),
                m.releaseSeconds());
        Envelope level = new Envelope(
                amplitude.delaySeconds(),
                amplitude.attackSeconds() > SLOW
                        ? StartContext.limited(Math.exp(u[13]) - SHORT, SLOW, 20)
                        : amplitude.attackSeconds(),
                amplitude.attackCurve(),
                amplitude.holdSeconds(),
                StartContext.limited(Math.exp(u[7]) - SHORT, 0, 100),
                StartContext.limited(u[8], -1, 1),
                StartContext.limited(u[9] / 2, 0, 1),
                amplitude.releaseSeconds());
        return new FilteredWaveFit(
                oscillator(
                        wave.wave(),
                        wave.wave() == Wave.PULSE ? StartContext.limited(u[10] / 3, 0.02, 0.98) : wave.width(),
                        StartContext.limited(u[11] / 2, 0, 1)),
                cycle,
                new Filter(
                        filter.kind(),
                        filter.slope(),
                        StartContext.limited(Math.exp(u[0]), 10, 20_000),
                        StartContext.limited(Math.exp(u[1]), 0.3, 60),
                        filter.keyTracking(),
                        StartContext.limited(3 * u[2], -8, 8),
                        filter.velocityOctaves(),
                        StartContext.limited(12 * u[12], 0, 36),
                        move),
                level,
                rmsDb);
    }

    private FilteredWaveFit polished(HarmonicLevels levels, double near) {
        FilteredWaveFit now = with(LevenbergMarquardt.nearest(unknowns(), u -> with(u).residuals(levels, near)));
        double sum = 0;
        for (double r : now.residuals(levels, NEAR_DB[1])) {
            sum += r * r;
        }
        double[] own = cycle == null ? null : now.leftOver(levels, now.shaped(levels));
        return new FilteredWaveFit(now.wave, own, now.filter, now.amplitude, NEAR_DB[1] * Math.sqrt(sum));
    }

    /** What filter and course make of the harmonics in each frame [dB]. */
    private double[][] shaped(HarmonicLevels levels) {
        int n = levels.harmonics();
        double[][] out = new double[levels.frames()][n];
        for (int f = 0; f < out.length; f++) {
            double[] power = new double[n];
            for (double[] part : WINDOW) {
                double t = Math.max(0, levels.seconds()[f] + part[0] * levels.window());
                double a = amplitude.at(t, 1);
                double hz = filter.cutoffHz()
                        * Math.pow(
                                2, filter.envelopeOctaves() * filter.envelope().at(t, 1));
                for (int k = 0; k < n; k++) {
                    if (levels.weight()[f][k] > 0) {
                        double db = MovingFilter.levelDb(
                                filter.kind(), filter.slope(), filter.q(), hz, (k + 1) * levels.f0(), levels.fs());
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
    private double[] leftOver(HarmonicLevels levels, double[][] shaped) {
        double[] out = new double[levels.harmonics()];
        double top = NONE_DB;
        for (int k = 0; k < out.length; k++) {
            double sum = 0;
            double all = 0;
            for (int f = 0; f < shaped.length; f++) {
                sum += levels.weight()[f][k] * (levels.db()[f][k] - shaped[f][k]);
                all += levels.weight()[f][k];
            }
            out[k] = all > 0 ? sum / all : NONE_DB;
            top = all > 0 ? Math.max(top, out[k]) : top;
        }
        for (int k = 0; k < out.length; k++) {
            out[k] = Math.max(NONE_DB, out[k] - top);
        }
        return out;
    }

    private double[] residuals(HarmonicLevels levels, double near) {
        int n = levels.harmonics();
        double[][] model = shaped(levels);
        double[] bare = cycle == null
                ? WaveLevels.of(wave.wave(), wave.width(), wave.imperfection(), filter.driveDb(), n)
                : leftOver(levels, model);
        double mean = 0;
        for (int f = 0; f < model.length; f++) {
            for (int k = 0; k < n; k++) {
                model[f][k] += bare[k];
                mean += levels.weight()[f][k] * (levels.db()[f][k] - model[f][k]);
            }
        }
        double[] out = new double[model.length * n];
        for (int f = 0; f < model.length; f++) {
            for (int k = 0; k < n; k++) {
                double r = (levels.db()[f][k] - model[f][k] - mean) / near;
                out[f * n + k] = Math.sqrt(levels.weight()[f][k]) * RobustLoss.limited(r);
            }
        }
        return out;
    }
}

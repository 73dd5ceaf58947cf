package nightreed.match.start.subtractive;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.EnvelopeFit;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.StartContext;
import nightreed.music.Bark;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Filter.Kind;
import nightreed.recipe.part.Filter.Slope;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.voice.note.MovingFilter;

/**
 * One wave, or two that are a little apart, through a low-pass whose cutoff moves, as the harmonics of a note tell it: for each wave, slope
 * and Q the cutoff and the level of each frame that lie nearest to its harmonics, and of those the combination with the least left over.
 */
final class FilterCourse {
    /** Harmonics that are looked at. */
    private static final int HARMONICS = 48;

    private static final int LEAST_HARMONICS = 4;

    /** Cutoffs tried per octave, and the lowest, as a share of the pitch. */
    private static final int PER_OCTAVE = 6;

    private static final double LOWEST = 0.35;

    /** Octaves over the highest harmonic up to which a cutoff still shows. */
    private static final double OVER = 1;

    private static final double[] WIDTHS = {0.5, 0.4, 0.3, 0.22, 0.15, 0.1, 0.06};
    private static final double[] QS = {0.6, 0.9, 1.4, 2.5, 5};

    /** Under the strongest harmonic of a frame by which one counts no more [dB]. */
    private static final double RANGE_DB = 50;

    /** Most that one harmonic of one frame may count as being off [dB]; one that beats goes to nothing. */
    private static final double MOST_OFF_DB = 12;

    /** Rates at which the fundamentals of two waves may beat: slower is not seen in a note, faster is another pitch [Hz]. */
    private static final double SLOWEST_BEAT = 0.15;

    private static final double FASTEST_BEAT = 12;

    /** Rates tried, each so much faster than the one before. */
    private static final double BEAT_FACTOR = 1.03;

    /** Share of what one wave leaves over that a second has to explain, by chance hardly ever. */
    private static final double EXPLAINED = 0.25;

    /** A cutoff that moves by less stands still [octaves]. */
    private static final double STILL = 0.25;

    private final double f0;
    private final double fs;
    private final double[] seconds;
    private final double[][] db; // [frame][harmonic - 1], under the strongest of the frame
    private final double[] loudest; // level of it [dB]
    private final double window; // length of a frame [s]
    private final double[] frameWeight;
    private final double[] weight; // of each harmonic: its share of a Bark
    private final double[] cutoffs;

    private FilterCourse(StartContext g) {
        NonuniformStft frames = NonuniformStft.of(g.side(), g.movementWithoutTremolo(), false);
        f0 = g.f0();
        fs = g.measurement().sampleRateHz();
        int harmonics = (int) Math.max(1, Math.min(HARMONICS, 0.45 * fs / f0));
        seconds = frames.seconds();
        window = 1 / frames.binHz();
        loudest = new double[seconds.length];
        db = new double[seconds.length][harmonics];
        frameWeight = new double[seconds.length];
        double top = 1;
        for (int f = 0; f < seconds.length; f++) {
            frameWeight[f] = frames.weight(f);
            double most = 1e-20;
            for (int n = 1; n <= harmonics; n++) {
                db[f][n - 1] = around(frames, f, n * f0);
                most = Math.max(most, db[f][n - 1]);
            }
            loudest[f] = 10 * Math.log10(most);
            for (int n = 1; n <= harmonics; n++) {
                double under = 10 * Math.log10(db[f][n - 1] / most + 1e-20);
                db[f][n - 1] = Math.max(-RANGE_DB, under);
                top = under > -RANGE_DB ? Math.max(top, n) : top;
            }
        }
        weight = new double[harmonics];
        for (int n = 1; n <= harmonics; n++) {
            weight[n - 1] = Math.min(1, Bark.of((n + 0.5) * f0) - Bark.of((n - 0.5) * f0));
        }
        double highest = Math.min(20_000, f0 * top * Math.pow(2, OVER));
        int count = 1 + (int) Math.ceil(PER_OCTAVE * Math.log(highest / (LOWEST * f0)) / Math.log(2));
        cutoffs = new double[Math.max(2, count)];
        for (int c = 0; c < cutoffs.length; c++) {
            cutoffs[c] = LOWEST * f0 * Math.pow(2, c / (double) PER_OCTAVE);
        }
    }

    /** Power of what lies nearer to a harmonic than to its neighbours, whether it beats or not. */
    private double around(NonuniformStft frames, int frame, double hz) {
        double half = Math.max(1.5, 0.3 * f0 / frames.binHz());
        int from = (int) Math.max(0, Math.round(hz / frames.binHz() - half));
        int to = (int) Math.min(frames.bins() - 1, Math.round(hz / frames.binHz() + half));
        double sum = 0;
        for (int k = from; k <= to; k++) {
            sum += frames.power(frame)[k];
        }
        return sum;
    }

    /**
     * A wave and how its filter moves.
     *
     * @param width     of a pulse, 0 to 0.5
     * @param beatHz    how much higher a second one is; 0 for one alone
     * @param amplitude level before the filter over time
     * @param left      mean square of what it leaves over [dB²]
     */
    record Source(Wave wave, double width, double beatHz, Filter filter, Envelope amplitude, double left) {}

    /** The best for each kind of wave, those that leave least first; empty for a note of few harmonics or frames. */
    static List<Source> of(StartContext g) {
        FilterCourse c = new FilterCourse(g);
        boolean rich = Arrays.stream(c.db)
                .anyMatch(f -> Arrays.stream(f).filter(v -> v > -RANGE_DB).count() >= LEAST_HARMONICS);
        return rich && c.seconds.length > 2 ? c.sources(g) : List.of();
    }

    private List<Source> sources(StartContext g) {
        List<Passing> filters = new ArrayList<>();
        for (Slope slope : List.of(Slope.DB_12, Slope.DB_24)) {
            for (double q : QS) {
                filters.add(new Passing(slope, q, levels(slope, q)));
            }
        }
        List<Path> best = new ArrayList<>();
        for (Wave wave : List.of(Wave.SAW, Wave.PULSE, Wave.TRIANGLE)) {
            Path one = nearest(wave, filters, 0);
            double beat = beat(one);
            Path two = beat == 0 ? one : nearest(wave, filters, beat);
            best.add(two.left < (1 - EXPLAINED) * one.left ? two : one);
        }
        return best.stream()
                .sorted(Comparator.comparingDouble(p -> p.left))
                .map(p -> p.source(g))
                .toList();
    }

    /** A filter, and what it makes of each harmonic at each cutoff: [cutoff][harmonic - 1], dB. */
    private record Passing(Slope slope, double q, double[][] levels) {}

    private Path nearest(Wave wave, List<Passing> filters, double beatHz) {
        double[][] beats = beats(beatHz);
        Path nearest = null;
        for (double width : wave == Wave.PULSE ? WIDTHS : new double[] {0.5}) {
            double[] source = wave(wave, width);
            for (Passing f : filters) {
                Path p = path(source, f, beats, wave, width, beatHz);
                nearest = nearest == null || p.left < nearest.left ? p : nearest;
            }
        }
        return nearest;
    }

    /** Rate of a second wave, begun with the first, that explains most of what one leaves over; 0 if none explains anything [Hz]. */
    private double beat(Path one) {
        double best = 0;
        double least = one.left;
        double[] source = wave(one.wave, one.width);
        double[][] still = new double[seconds.length][];
        for (int f = 0; f < still.length; f++) {
            still[f] = new double[weight.length];
            for (int n = 1; n <= weight.length; n++) {
                still[f][n - 1] =
                        source[n - 1] + MovingFilter.levelDb(Kind.LOW, one.slope, one.q, one.cutoff[f], n * f0, fs);
            }
        }
        for (double hz = SLOWEST_BEAT; hz < FASTEST_BEAT; hz *= BEAT_FACTOR) {
            double[][] beats = beats(hz);
            double sum = 0;
            double weights = 1e-9;
            for (int f = 0; f < seconds.length; f++) {
                double gain = gain(db[f], still[f], beats[f]);
                sum += frameWeight[f] * left(db[f], still[f], beats[f], gain);
                weights += frameWeight[f];
            }
            if (sum / weights < least) {
                least = sum / weights;
                best = hz;
            }
        }
        return best;
    }

    /** What two equal waves that beat make of each harmonic in each frame: [frame][harmonic - 1], dB. */
    private double[][] beats(double hz) {
        double[][] out = new double[seconds.length][weight.length];
        for (int f = 0; hz > 0 && f < out.length; f++) {
            for (int n = 1; n <= weight.length; n++) {
                double smeared = Math.exp(-Math.pow(n * hz * window, 2)); // a frame is as long as many beats, or not
                double power = 0.5 * (1 + smeared * Math.cos(2 * Math.PI * n * hz * seconds[f]));
                out[f][n - 1] = 10 * Math.log10(power + 1e-3);
            }
        }
        return out;
    }

    /** @return [cutoff][harmonic - 1], dB */
    private double[][] levels(Slope slope, double q) {
        double[][] out = new double[cutoffs.length][weight.length];
        for (int c = 0; c < cutoffs.length; c++) {
            for (int n = 1; n <= weight.length; n++) {
                out[c][n - 1] = MovingFilter.levelDb(Kind.LOW, slope, q, cutoffs[c], n * f0, fs);
            }
        }
        return out;
    }

    private double[] wave(Wave wave, double width) {
        double[] out = new double[weight.length];
        for (int n = 1; n <= out.length; n++) {
            double a = switch (wave) {
                case PULSE -> Math.abs(Math.sin(Math.PI * n * width)) / n;
                case TRIANGLE -> n % 2 == 1 ? 1.0 / n / n : 0;
                default -> 1.0 / n;
            };
            out[n - 1] = 20 * Math.log10(a + 1e-5);
        }
        return out;
    }

    private Path path(double[] wave, Passing filter, double[][] beats, Wave kind, double width, double beatHz) {
        double[] cutoff = new double[seconds.length];
        double[] level = new double[seconds.length];
        double sum = 0;
        double weights = 1e-9;
        double[] source = new double[wave.length];
        for (int f = 0; f < seconds.length; f++) {
            for (int i = 0; i < source.length; i++) {
                source[i] = wave[i] + beats[f][i];
            }
            double least = Double.POSITIVE_INFINITY;
            for (int c = 0; c < cutoffs.length; c++) {
                double gain = gain(db[f], source, filter.levels[c]);
                double left = left(db[f], source, filter.levels[c], gain);
                if (left < least) {
                    least = left;
                    cutoff[f] = cutoffs[c];
                    level[f] = loudest[f] + gain;
                }
            }
            sum += frameWeight[f] * least;
            weights += frameWeight[f];
        }
        return new Path(kind, width, beatHz, filter.slope, filter.q, cutoff, level, sum / weights);
    }

    /** Level that fits a frame best, without those under its range [dB]. */
    private double gain(double[] frame, double[] wave, double[] filter) {
        double sum = 0;
        double weights = 1e-9;
        for (int i = 0; i < frame.length; i++) {
            if (frame[i] > -RANGE_DB) {
                sum += weight[i] * (frame[i] - wave[i] - filter[i]);
                weights += weight[i];
            }
        }
        return sum / weights;
    }

    private double left(double[] frame, double[] wave, double[] filter, double gain) {
        double sum = 0;
        double weights = 1e-9;
        for (int i = 0; i < frame.length; i++) {
            double off = frame[i] - Math.max(-RANGE_DB, gain + wave[i] + filter[i]);
            sum += weight[i] * Math.min(MOST_OFF_DB * MOST_OFF_DB, off * off);
            weights += weight[i];
        }
        return sum / weights;
    }

    /** Cutoff [Hz] and level before the filter [dB] of each frame, and what is left over [dB²]. */
    private final class Path {
        final Wave wave;
        final double width;
        final double beatHz;
        final Slope slope;
        final double q;
        final double[] cutoff;
        final double[] level;
        final double left;

        Path(
                Wave wave,
                double width,
                double beatHz,
                Slope slope,
                double q,
                double[] cutoff,
                double[] level,
                double left) {
            this.wave = wave;
            this.width = width;
            this.beatHz = beatHz;
            this.slope = slope;
            this.q = q;
            this.cutoff = cutoff;
            this.level = level;
            this.left = left;
        }

        Source source(StartContext g) {
            return new Source(wave, width, beatHz, filter(g), amplitude(g), left);
        }

        private Envelope amplitude(StartContext g) {
            double top = Arrays.stream(level).max().orElse(0);
            double[] share = Arrays.stream(level)
                    .map(db -> Math.pow(10, (db - top) / 20))
                    .toArray();
            return EnvelopeFit.ofLevel(seconds, share, frameWeight, g.attack(), g.release())
                    .envelope();
        }

        private Filter filter(StartContext g) {
            double[] octaves =
                    Arrays.stream(cutoff).map(c -> Math.log(c) / Math.log(2)).toArray();
            double low = quantile(octaves, 0);
            double high = quantile(octaves, 1);
            if (high - low < STILL) {
                double hz = StartContext.limited(Math.pow(2, quantile(octaves, 0.5)), 20, 18_000);
                return new Filter(Kind.LOW, slope, hz, q, SubtractiveStart.KEY_TRACKING, 0, 1, 0, null);
            }
            double[] share = Arrays.stream(octaves)
                    .map(o -> StartContext.limited((o - low) / (high - low), 0, 1))
                    .toArray();
            EnvelopeFit fit = EnvelopeFit.of(seconds, share, frameWeight, g.attack(), g.release());
            return new Filter(
                    Kind.LOW,
                    slope,
                    StartContext.limited(Math.pow(2, low), 20, 18_000),
                    q,
                    SubtractiveStart.KEY_TRACKING,
                    StartContext.limited((high - low) * fit.top(), 0, 8),
                    1,
                    0,
                    fit.envelope());
        }

        /** Of the frames by their weights. @param share 0 the least, 1 the greatest that are not mere chance */
        private double quantile(double[] values, double share) {
            Integer[] order = new Integer[values.length];
            Arrays.setAll(order, i -> i);
            Arrays.sort(order, Comparator.comparingDouble(i -> values[i]));
            double all = Arrays.stream(frameWeight).sum();
            double upTo = (0.06 + 0.88 * share) * all;
            double sum = 0;
            for (int i : order) {
                sum += frameWeight[i];
                if (sum >= upTo) {
                    return values[i];
                }
            }
            return values[order[order.length - 1]];
        }
    }
}

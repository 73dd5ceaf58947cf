package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.UnaryOperator;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.fm.FmForwardModel.Placed;
import nightreed.match.start.fm.FmForwardModel.Shape;
import nightreed.optim.LeastSquaresProblem;
import nightreed.optim.LevenbergMarquardt;
import nightreed.recipe.FmPair;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.work.Progress;

/**
 * Least squares over all values of an FM model, against spectral frames of a recording. The model is computed by formula ({@link
 * FmForwardModel}) with the phases of folded sidebands, so that a fit costs less than a few renders (after J. Beauchamp, A. Horner,
 * "Wavetable and FM matching synthesis of musical instrument tones", 1992, who match frame by frame).
 */
final class FmSpectralFit {
    /** Power under the strongest that is as good as none. */
    private static final double FLOOR = 1e-6;

    private static final int PHASES = 6;

    /** What a plainer pair may leave over more. */
    private static final double PLAIN = 1.02;

    /** A round has to gain this share of the cost for another one; chosen, as the frames hold noise. */
    private static final LevenbergMarquardt.Options OPTIONS = LevenbergMarquardt.Options.USUAL.withCostTolerance(0.003);

    /** How far an unknown is moved for a slope. */
    private static final double STEP = 1e-4;

    /** What the root of an index costs: of likenesses the one with the plainer spectrum is meant. */
    private static final double PLAINER = 0.01;

    private final NonuniformStft frames;
    private final Progress progress;
    private final boolean fine;
    private final FmParameterization ruler;
    private final FrameBins bins;
    private final FmForwardModel model;
    private final double[][] seen; // roots [frame][bin, then band]
    private final double[] weight;
    private final double silence;
    private final FmSpectralFit beside;

    /**
     * @param fine  whether weak lines are to count nearly as much as strong ones, as they do once those are right
     * @param tuned whether frequencies stay where they are
     */
    FmSpectralFit(NonuniformStft frames, double f0, boolean fine, boolean tuned) {
        this(frames, f0, fine, tuned, 0, null, Progress.NONE);
    }

    /**
     * @param f0       what ratios are of [Hz]
     * @param gain     amplitude of a pair whose level is 0 dB; 0 for one that suits the frames
     * @param beside   other frames that are fitted at the same time; null for none
     * @param progress asked before each evaluation whether to go on
     */
    FmSpectralFit(
            NonuniformStft frames,
            double f0,
            boolean fine,
            boolean tuned,
            double gain,
            FmSpectralFit beside,
            Progress progress) {
        this.beside = beside;
        this.frames = frames;
        this.progress = progress;
        this.fine = fine;
        ruler = new FmParameterization(tuned, frames.showRelease());
        bins = new FrameBins(frames, gain);
        model = new FmForwardModel(frames, bins, f0);
        weight = new double[frames.count()];
        seen = new double[frames.count()][];
        for (int f = 0; f < seen.length; f++) {
            weight[f] = Math.sqrt(frames.weight(f) / frames.count());
            double[] power = new double[bins.count() + bins.bands()];
            for (int b = 0; b < bins.all(); b++) {
                power[bins.slot(b)] += frames.power(f)[b];
            }
            seen[f] = roots(power);
        }
        silence = sum(new Residuals().of(new FmModel(List.of(), null)));
    }

    private double[] roots(double[] power) {
        double[] out = new double[power.length];
        for (int i = 0; i < out.length; i++) {
            double root = Math.sqrt(Math.sqrt(power[i] / bins.most() + FLOOR));
            out[i] = fine ? Math.sqrt(root) : root;
        }
        return out;
    }

    /** Amplitude of a pair whose level is 0 dB. */
    double gain() {
        return bins.gain();
    }

    /** How unlike the frames a sound is: 0 for the same, 1 as silence. */
    double misfit(FmModel sound) {
        return sum(new Residuals().of(sound)) / silence;
    }

    /** Of each, which costs less where one is much like the one before. */
    List<Double> misfits(List<FmModel> sounds) {
        Residuals residuals = new Residuals();
        return sounds.stream().map(s -> sum(residuals.of(s)) / silence).toList();
    }

    private Residuals residuals() {
        return new Residuals();
    }

    private static double sum(double[] r) {
        double sum = 0;
        for (double v : r) {
            sum += v * v;
        }
        return sum;
    }

    /** The best model that a local search from there finds. @param rounds Jacobians at the most */
    FmModel nearest(FmModel from, int rounds) {
        Residuals residuals = new Residuals();
        double[] start = ruler.unknowns(from);
        LeastSquaresProblem problem = new LeastSquaresProblem() {
            @Override
            public double[] residuals(double[] by) {
                return residuals.of(ruler.heard(sum(start, by), from));
            }

            @Override
            public double[][] jacobian(double[] by, double[] there) {
                return residuals.slopes(sum(start, by), from);
            }

            @Override
            public double[] stepLimits(double[] by) {
                double[] out = new double[by.length];
                Arrays.fill(out, 1);
                return out;
            }
        };
        double[] moved = LevenbergMarquardt.minimize(
                        problem, new double[start.length], OPTIONS.withMostIterations(rounds))
                .point();
        return ruler.heard(sum(start, moved), from);
    }

    private static double[] sum(double[] a, double[] b) {
        double[] out = a.clone();
        for (int i = 0; i < out.length; i++) {
            out[i] += b[i];
        }
        return out;
    }

    /** Without feedback, with a modulation that stays, or without any, where that leaves hardly anything over. */
    FmModel plain(FmModel sound) {
        FmModel now = sound;
        for (int i = 0; i < sound.pairs().size(); i++) {
            for (UnaryOperator<FmPair> plainer :
                    List.<UnaryOperator<FmPair>>of(FmSpectralFit::notFedBack, this::steady, FmSpectralFit::bare)) {
                FmModel other = now.with(i, plainer.apply(now.pairs().get(i)));
                now = misfit(other) < PLAIN * misfit(now) ? other : now;
            }
        }
        return now;
    }

    private static FmPair notFedBack(FmPair p) {
        return p.withFeedback(0);
    }

    /** With the index that it has while it is loud: one that sweeps while hardly anything is heard says nothing. */
    private FmPair steady(FmPair p) {
        double[] t = frames.seconds();
        double sum = 0;
        double weights = 1e-12;
        for (double at : t) {
            double w = p.amplitude().at(at, 1);
            sum += w * w * p.bend().at(at, 1);
            weights += w * w;
        }
        return p.with(p.carrierRatio(), p.modulatorRatio(), p.index() * sum / weights)
                .withEnvelopes(p.amplitude(), Envelope.held(0, p.bend().releaseSeconds()));
    }

    private static FmPair bare(FmPair p) {
        return p.with(p.carrierRatio(), p.modulatorRatio(), 0).withFeedback(0);
    }

    /** Power that a sound puts into each bin that is looked at [frame][bin]. */
    double[][] power(FmModel sound) {
        double[][] out = new double[frames.count()][frames.bins()];
        double[][] all = new Residuals().power(sound);
        for (int f = 0; f < out.length; f++) {
            for (int b = 0; b < bins.all(); b++) {
                out[f][b] = bins.isLookedAt(b) ? all[f][bins.slot(b)] : 0;
            }
        }
        return out;
    }

    /** With the phases of one pair that leave least over, of a grid. */
    FmModel turned(FmModel sound, int pair) {
        Residuals residuals = new Residuals();
        FmPair p = sound.pairs().get(pair);
        FmModel best = sound;
        double least = Double.POSITIVE_INFINITY;
        for (int c = 0; c < PHASES; c++) {
            for (int m = 0; m < PHASES; m++) {
                FmModel turned = sound.with(pair, p.withPhases(2 * Math.PI * c / PHASES, 2 * Math.PI * m / PHASES));
                double cost = sum(residuals.of(turned));
                if (cost < least) {
                    least = cost;
                    best = turned;
                }
            }
        }
        return best;
    }

    /** Remembers what each pair gave last, as most that is tried moves one of them only. Not for several threads. */
    private final class Residuals {
        private final List<FmPair> pairs = new ArrayList<>();
        private final List<Placed> placed = new ArrayList<>();
        private final List<Shape> shapes = new ArrayList<>();
        private final Residuals others = beside == null ? null : beside.residuals();
        private Exciter noise;
        private double[][] hiss; // [frame][bin, then band]

        double[] of(FmModel sound) {
            progress.check();
            double[] own = own(sound);
            return others == null ? own : joined(own, others.of(sound));
        }

        private static double[] joined(double[] a, double[] b) {
            double[] out = Arrays.copyOf(a, a.length + b.length);
            System.arraycopy(b, 0, out, a.length, b.length);
            return out;
        }

        private double[] own(FmModel sound) {
            double[][] power = power(sound);
            double[] out =
                    new double[power.length * power[0].length + sound.pairs().size()];
            int at = 0;
            for (int f = 0; f < power.length; f++) {
                double[] r = roots(power[f]);
                for (int b = 0; b < r.length; b++) {
                    double more = r[b] - seen[f][b];
                    out[at++] =
                            weight[f] * (b < bins.count() ? more : Math.max(0, more)); // there is other noise in a band
                }
            }
            for (FmPair p : sound.pairs()) {
                out[at++] = PLAINER * Math.sqrt(p.index());
            }
            return out;
        }

        /** Of all of that by each unknown [unknown][residual]. @param like what has no unknowns */
        double[][] slopes(double[] u, FmModel like) {
            double[][] own = ownSlopes(u, like);
            if (others != null) {
                double[][] more = others.slopes(u, like);
                for (int k = 0; k < own.length; k++) {
                    own[k] = joined(own[k], more[k]);
                }
            }
            return own;
        }

        private double[][] ownSlopes(double[] u, FmModel like) {
            double[][] power = power(ruler.heard(u, like));
            double[][] steep = steep(power);
            double[][] sum = sum(power.length);
            int n = placed.size();
            int perPair = ruler.perPair();
            int residuals = power.length * power[0].length + n;
            double[][] out = new double[u.length][residuals];
            for (int i = 0; i < n; i++) {
                for (int k = 0; k < perPair; k++) {
                    double[] moved = Arrays.copyOfRange(u, perPair * i, perPair * (i + 1));
                    moved[k] += STEP;
                    double[][] change = placed.get(i)
                            .change(ruler.pair(moved, 0, like.pairs().get(i)));
                    fill(out[perPair * i + k], steep, sum, change);
                }
                out[perPair * i + FmParameterization.ROOT_OF_INDEX][residuals - n + i] = PLAINER;
            }
            for (int k = perPair * n; k < u.length; k++) {
                double[] moved = u.clone();
                moved[k] += STEP;
                double[][] other =
                        new StrikeNoisePower(frames, bins).expected(FmParameterization.noise(moved, perPair * n));
                for (int f = 0, at = 0; f < power.length; f++) {
                    for (int b = 0; b < power[f].length; b++) {
                        out[k][at++] = steep[f][b] * (other[f][b] - hiss[f][b]) / STEP;
                    }
                }
            }
            return out;
        }

        /** Of residuals by power [frame][bin, then band]. */
        private double[][] steep(double[][] power) {
            double root = fine ? 0.125 : 0.25;
            double[][] out = new double[power.length][power[0].length];
            for (int f = 0; f < power.length; f++) {
                double[] r = roots(power[f]);
                for (int b = 0; b < r.length; b++) {
                    boolean counts = b < bins.count() || r[b] > seen[f][b];
                    double slope = weight[f] * root * r[b] / (power[f][b] + FLOOR * bins.most());
                    out[f][b] = counts ? slope : 0;
                }
            }
            return out;
        }

        /** Real and imaginary part of all pairs together [frame][2 bin]. */
        private double[][] sum(int count) {
            double[][] out = new double[count][2 * bins.count()];
            for (Placed p : placed) {
                for (int f = 0; f < count; f++) {
                    for (int i = 0; i < out[f].length; i++) {
                        out[f][i] += p.value()[f][i];
                    }
                }
            }
            return out;
        }

        private void fill(double[] slope, double[][] steep, double[][] sum, double[][] change) {
            int n = bins.count();
            int at = 0;
            for (int f = 0; f < steep.length; f++) {
                double[] s = sum[f];
                double[] c = change[f];
                for (int b = 0; b < n; b++) {
                    slope[at++] = steep[f][b] * 2 * (s[2 * b] * c[2 * b] + s[2 * b + 1] * c[2 * b + 1]) / STEP;
                }
                for (int b = n; b < steep[f].length; b++) {
                    slope[at++] = steep[f][b] * c[n + b] / STEP;
                }
            }
        }

        private void place(List<FmPair> sound) {
            while (placed.size() > sound.size()) {
                pairs.remove(placed.size() - 1);
                shapes.remove(placed.size() - 1);
                placed.remove(placed.size() - 1);
            }
            for (int i = 0; i < sound.size(); i++) {
                FmPair p = sound.get(i);
                if (i == placed.size()) {
                    pairs.add(p);
                    shapes.add(model.shape(p));
                    placed.add(model.placed(p, shapes.get(i)));
                } else if (!p.equals(pairs.get(i))) {
                    boolean same = FmForwardModel.isSameShape(p, pairs.get(i));
                    shapes.set(i, same ? shapes.get(i) : model.shape(p));
                    pairs.set(i, p);
                    placed.set(i, model.placed(p, shapes.get(i)));
                }
            }
        }

        double[][] power(FmModel sound) {
            place(sound.pairs());
            if (sound.noise() != null && !sound.noise().equals(noise)) {
                noise = sound.noise();
                hiss = new StrikeNoisePower(frames, bins).expected(noise);
            }
            int n = bins.count();
            double[][] power = new double[seen.length][seen[0].length];
            double[][] sum = sum(seen.length);
            for (int f = 0; f < power.length; f++) {
                for (int b = 0; b < n; b++) {
                    power[f][b] = sum[f][2 * b] * sum[f][2 * b] + sum[f][2 * b + 1] * sum[f][2 * b + 1];
                }
                for (int b = n; b < power[f].length; b++) {
                    for (Placed p : placed) {
                        power[f][b] += p.value()[f][n + b];
                    }
                }
                for (int b = 0; sound.noise() != null && b < power[f].length; b++) {
                    power[f][b] += hiss[f][b];
                }
            }
            return power;
        }
    }
}

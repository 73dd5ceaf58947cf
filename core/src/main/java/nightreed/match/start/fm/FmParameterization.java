package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.List;
import nightreed.match.start.StartContext;
import nightreed.recipe.FmPair;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;

/** Values of an FM model as parameters of a fit, scaled so that 1 is a large change. */
final class FmParameterization {
    /** Which unknown of a pair tells its index. */
    static final int ROOT_OF_INDEX = 5;

    /** Unknowns of a pair, and of its fall after the key was let go. */
    private static final int PER_HELD_PAIR = 15;

    private static final int PER_RELEASE = 2;
    private static final int PER_NOISE = 4;

    /** A level that rises faster clicks, and frames do not tell it from one that does not [s]. */
    private static final double LEAST_RISE_SECONDS = 0.0005;

    /** So that times may come to nothing [s]. */
    private static final double SHORT = 0.005;

    private final boolean tuned;
    private final int perPair;

    /**
     * @param tuned    whether frequencies stay where they are
     * @param released whether falls after the key was let go are unknown too
     */
    FmParameterization(boolean tuned, boolean released) {
        this.tuned = tuned;
        perPair = PER_HELD_PAIR + (released ? PER_RELEASE : 0);
    }

    /** Unknowns of a pair. */
    int perPair() {
        return perPair;
    }

    /** Of one pair after the other, then of the noise. */
    double[] unknowns(FmModel sound) {
        int n = sound.pairs().size();
        double[] u = new double[perPair * n + (sound.noise() == null ? 0 : PER_NOISE)];
        for (int i = 0; i < n; i++) {
            FmPair p = sound.pairs().get(i);
            double[] of = {
                Math.log(p.carrierRatio()) / 1e-4,
                Math.log(p.modulatorRatio()) / 1e-4,
                p.carrierPhaseRad(),
                p.modulatorPhaseRad(),
                p.levelDb() / 9,
                Math.sqrt(p.index()),
                p.feedback() / 0.2,
                rise(p.amplitude()),
                fall(p.amplitude()),
                p.amplitude().fallCurve(),
                Math.sqrt(p.amplitude().sustain()),
                rise(p.bend()),
                fall(p.bend()),
                p.bend().fallCurve(),
                Math.sqrt(p.bend().sustain()),
                release(p.amplitude()),
                release(p.bend())
            };
            System.arraycopy(of, 0, u, perPair * i, perPair); // those of the release come last
        }
        if (sound.noise() != null) {
            double[] of = unknowns(sound.noise());
            System.arraycopy(of, 0, u, perPair * n, PER_NOISE);
        }
        return u;
    }

    private static double rise(Envelope e) {
        return Math.log(SHORT + e.attackSeconds());
    }

    private static double fall(Envelope e) {
        return Math.log(SHORT + e.decaySeconds());
    }

    private static double release(Envelope e) {
        return Math.log(SHORT + e.releaseSeconds());
    }

    private double release(double[] u, int at, Envelope like) {
        return perPair == PER_HELD_PAIR ? like.releaseSeconds() : StartContext.limited(Math.exp(u[at]) - SHORT, 0, 20);
    }

    /** @param like what has no unknowns */
    FmPair pair(double[] u, int at, FmPair like) {
        return new FmPair(
                like.kind(),
                StartContext.limited(9 * u[at + 4], -80, 6),
                tuned ? like.carrierRatio() : StartContext.limited(Math.exp(1e-4 * u[at]), 0.05, 60),
                tuned ? like.modulatorRatio() : StartContext.limited(Math.exp(1e-4 * u[at + 1]), 0.05, 60),
                StartContext.limited(u[at + 5] * u[at + 5], 0, 50),
                like.tracking(),
                Math.IEEEremainder(u[at + 2], 2 * Math.PI),
                Math.IEEEremainder(u[at + 3], 2 * Math.PI),
                like.free(),
                StartContext.limited(0.2 * u[at + 6], 0, 1.5),
                like.width(),
                like.pan(),
                like.chainRad(),
                envelope(u, at + 7, release(u, at + 15, like.amplitude()), like.amplitude(), LEAST_RISE_SECONDS),
                envelope(u, at + 11, release(u, at + 16, like.bend()), like.bend(), 0));
    }

    private static Envelope envelope(double[] u, int at, double release, Envelope like, double leastRise) {
        return new Envelope(
                0,
                StartContext.limited(Math.exp(u[at]) - SHORT, leastRise, 10),
                like.attackCurve(),
                0,
                StartContext.limited(Math.exp(u[at + 1]) - SHORT, 0, 100),
                StartContext.limited(u[at + 2], -1, 1),
                StartContext.limited(u[at + 3] * u[at + 3], 0, 1),
                release);
    }

    /** @param like what has no unknowns */
    FmModel heard(double[] u, FmModel like) {
        List<FmPair> out = new ArrayList<>();
        for (int i = 0; i < like.pairs().size(); i++) {
            out.add(pair(u, perPair * i, like.pairs().get(i)));
        }
        return new FmModel(out, like.noise() == null ? null : noise(u, perPair * out.size()));
    }

    private static double[] unknowns(Exciter noise) {
        return new double[] {
            noise.noiseDb() / 9,
            Math.log(noise.noiseT60Ms()),
            Math.log(noise.noiseLowHz()),
            Math.log(noise.noiseHighHz() / noise.noiseLowHz())
        };
    }

    static Exciter noise(double[] u, int at) {
        double low = StartContext.limited(Math.exp(u[at + 2]), 20, 9000);
        return new Exciter(
                1,
                StartContext.limited(9 * u[at], -80, 24),
                StartContext.limited(Math.exp(u[at + 1]), 1, 2000),
                low,
                StartContext.limited(low * Math.exp(u[at + 3]), Math.max(60, low), 20_000));
    }
}

package nightreed.voice.string;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.StringRecipe;

/**
 * The arithmetic of a loop on one key.
 *
 * @param samples           once round at the pitch
 * @param wholeSamples      of the delay line
 * @param tuningSamples     phase delay of the tuning all-pass
 * @param lossSamples       of the loss filter
 * @param stiffnessSamples  of the stiffness
 * @param errorCents        pitch of partial 1 against the one asked
 * @param uncompensatedCents what it would be with the whole samples rounded and the loss filter not allowed for
 * @param noiseGainDb       what noise gains in the loop, -10·log10(1 - g²)
 * @param partials          the first of them
 */
public record LoopTable(
        double samples,
        int wholeSamples,
        double tuningSamples,
        double lossSamples,
        double stiffnessSamples,
        double errorCents,
        double uncompensatedCents,
        double noiseGainDb,
        List<Partial> partials) {
    private static final int PARTIALS = 24;
    private static final double WITHIN = 0.03;

    /**
     * One partial.
     *
     * @param hz          where a string of this stiffness has it
     * @param offCents    where the loop has it, against that
     * @param askedT60    decay asked for [s]
     * @param reachedT60  decay of the loop [s]
     * @param neededGain  once round, for the decay asked
     * @param reachedGain once round, of the loop
     * @param pluckDb     what the pluck point leaves of it [dB]
     */
    public record Partial(
            int number,
            double hz,
            double offCents,
            double askedT60,
            double reachedT60,
            double neededGain,
            double reachedGain,
            double pluckDb) {}

    /** @param hz pitch of the key @param fs sample rate [Hz] */
    public static LoopTable of(StringRecipe r, int key, double hz, double fs) {
        LoopDesign d = new LoopDesign(fs);
        double factor = Math.pow(2, -r.keyTracking().decayPower() * (key - r.key()) / 12.0);
        d.solve(hz, r.loss(), factor, r.stiffness(), r.inverted());
        double w = 2 * Math.PI * d.partialHz(1) / fs;
        double share = r.inverted() ? 0.5 : 1;
        List<Partial> partials = new ArrayList<>();
        for (int i = 0; i < PARTIALS; i++) {
            int n = r.inverted() ? 2 * i + 1 : i + 1;
            double f = d.partialHz(n);
            if (f > 0.45 * fs) {
                break;
            }
            double off = 1200 * Math.log(d.foundHz(n) / f) / Math.log(2);
            double beta = r.pluckPoint();
            double pluck = beta <= 0 ? 0 : 20 * Math.log10(Math.abs(2 * Math.sin(Math.PI * n * beta)) + 1e-6);
            partials.add(
                    new Partial(n, f, off, d.askedT60(n), d.reachedT60(n), d.neededGain(n), d.reachedGain(n), pluck));
        }
        double loss = d.loss.delay(w);
        double period = share * fs / d.partialHz(1);
        double plain = Math.rint(period) + loss;
        double g = Math.min(1 - 1e-9, d.reachedGain(1));
        return new LoopTable(
                d.period(),
                d.whole,
                d.thiranDelay(w),
                loss,
                d.stiff.delay(w),
                1200 * Math.log(period / d.period()) / Math.log(2),
                1200 * Math.log(period / plain) / Math.log(2),
                -10 * Math.log10(1 - g * g),
                partials);
    }

    /** Partials whose decay is within 3 % of the one asked. */
    public int reached() {
        int n = 0;
        for (Partial p : partials) {
            n += Math.abs(p.reachedT60() / p.askedT60() - 1) <= WITHIN ? 1 : 0;
        }
        return n;
    }
}

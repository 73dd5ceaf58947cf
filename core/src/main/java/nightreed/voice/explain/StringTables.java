package nightreed.voice.explain;

import java.util.List;
import nightreed.recipe.StringRecipe;
import nightreed.voice.string.LoopTable;

/** The loop of a string. */
final class StringTables {
    private StringTables() {}

    static List<Table> of(StringRecipe r, int key, double hz) {
        LoopTable t = LoopTable.of(r, key, hz, Arithmetic.SAMPLE_RATE_HZ);
        Rows loop = new Rows(
                "loop",
                "once round [samples] .4",
                "whole [samples] .0",
                "tuning [samples] .4",
                "loss filter [samples] .4",
                "stiffness [samples] .4",
                "error [cents] .4",
                "without compensation [cents] .1");
        loop.add(
                t.samples(),
                (double) t.wholeSamples(),
                t.tuningSamples(),
                t.lossSamples(),
                t.stiffnessSamples(),
                t.errorCents(),
                t.uncompensatedCents());
        loop.say(
                "A string of %.3f Hz comes round in %.4f samples; its filters take their share of them.",
                hz, t.samples());
        loop.say(
                "Rounded to whole samples, and with nothing allowed for the filters, it would be %.1f cents off.",
                t.uncompensatedCents());
        Rows partials = new Rows(
                "partials of the loop",
                "number .0",
                "frequency [Hz] .2",
                "off [cents] .2",
                "T60 asked [s] .3",
                "T60 reached [s] .3",
                "gain needed .6",
                "gain reached .6",
                "pluck [dB] .1");
        for (LoopTable.Partial p : t.partials()) {
            partials.add(
                    (double) p.number(),
                    p.hz(),
                    p.offCents(),
                    p.askedT60(),
                    p.reachedT60(),
                    p.neededGain(),
                    p.reachedGain(),
                    p.pluckDb());
        }
        partials.say(
                t.reached() == t.partials().size()
                        ? "All decays are within 3 %% of those asked."
                        : "%d of %d decays are within 3 %% of those asked; the loop filter cannot follow the others.",
                t.reached(),
                t.partials().size());
        if (t.noiseGainDb() > 0) {
            partials.say("Noise that is driven into this loop grows by %.1f dB.", t.noiseGainDb());
        }
        return List.of(loop.done(), partials.done());
    }
}

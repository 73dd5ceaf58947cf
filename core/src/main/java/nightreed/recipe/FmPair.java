package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.PartlyIdle;
import nightreed.recipe.part.Repeatable;

/**
 * A carrier and what modulates it: sin(2π c t + φc + I sin(2π m t + φm + feedback)). In a chain the whole pair, along its level's
 * envelope, bends the carrier of the pair before it in place of being heard. As a pulse, its width is what is
 * modulated, by I/2π of a cycle at the most.
 */
@RecordBuilder
public record FmPair(
        @ParameterSpec(
                name = "kind",
                neutral = 0,
                meaning = "What is modulated: the phase of a sine or the width of a pulse.")
        Kind kind,

        @ParameterSpec(
                name = "level",
                unit = "dB",
                least = -80,
                most = 6,
                decimals = 1,
                neutral = 0,
                meaning = "Level of the pair; -80 is silent.")
        double levelDb,

        @ParameterSpec(
                name = "carrier ratio",
                unit = "×",
                least = 0.05,
                most = 60,
                law = Law.LOGARITHMIC,
                decimals = 4,
                neutral = 1,
                meaning = "Frequency of the carrier over that of the key.")
        double carrierRatio,

        @ParameterSpec(
                name = "modulator ratio",
                unit = "×",
                least = 0.05,
                most = 60,
                law = Law.LOGARITHMIC,
                decimals = 4,
                neutral = 1,
                meaning = "Frequency of the modulator over that of the key.")
        double modulatorRatio,

        @ParameterSpec(
                name = "index",
                unit = "rad",
                most = 50,
                law = Law.ROOT,
                neutral = 0,
                meaning = "How far the modulator bends the carrier, at the top of its envelope.")
        double index,

        @ParameterSpec(
                name = "index tracking",
                neutral = 1,
                meaning =
                        "On: the same index on all keys. Off: a fixed deviation in Hz, so that low keys are brighter.")
        boolean tracking,

        @ParameterSpec(
                name = "carrier phase",
                unit = "rad",
                least = -6.2832,
                most = 6.2832,
                leastEver = -100,
                mostEver = 100,
                neutral = 0,
                meaning = "Where the carrier starts.")
        double carrierPhaseRad,

        @ParameterSpec(
                name = "modulator phase",
                unit = "rad",
                least = -6.2832,
                most = 6.2832,
                leastEver = -100,
                mostEver = 100,
                neutral = 0,
                meaning = "Where the modulator starts; folded sidebands add or cancel by it.")
        double modulatorPhaseRad,

        @ParameterSpec(
                name = "free-running",
                neutral = 0,
                meaning = "On: each note starts anywhere, so that folded spectra vary.")
        boolean free,

        @ParameterSpec(
                name = "feedback",
                unit = "rad",
                most = 2,
                neutral = 0,
                meaning = "How far the modulator bends itself: towards a saw, then noise.")
        double feedback,

        @ParameterSpec(
                name = "width",
                least = 0.02,
                most = 0.98,
                neutral = 0.5,
                meaning = "Width of the pulse, for pulses only.")
        double width,

        @ParameterSpec(name = "pan", least = -1, neutral = 0, meaning = "-1 left, 1 right.")
        double pan,

        @ParameterSpec(
                id = "chain",
                name = "chain index",
                unit = "rad",
                most = 20,
                law = Law.ROOT,
                neutral = 0,
                meaning = "Above 0 the pair is not heard: it bends the carrier of the pair before it, so far.")
        Double chainRad,

        @Part(id = "amp", name = "level") Envelope amplitude,
        @Part(id = "bend", name = "index") Envelope bend)
        implements FmPairBuilder.With, Repeatable, PartlyIdle {
    public static final double OFF_DB = -79.5;

    /** What is modulated. */
    public enum Kind {
        PHASE,
        PULSE_WIDTH
    }

    public FmPair {
        chainRad = chainRad == null ? 0 : chainRad;
        ParameterAccess.check(
                FmPair.class,
                kind,
                levelDb,
                carrierRatio,
                modulatorRatio,
                index,
                tracking,
                carrierPhaseRad,
                modulatorPhaseRad,
                free,
                feedback,
                width,
                pan,
                chainRad);
        if (amplitude == null || bend == null) {
            throw new IllegalArgumentException("a pair needs an envelope for its level and one for its index");
        }
    }

    /** A plain pair of sines. */
    public static FmPair of(
            double levelDb, double carrier, double modulator, double index, Envelope amplitude, Envelope bend) {
        return new FmPair(
                Kind.PHASE, levelDb, carrier, modulator, index, true, 0, 0, false, 0, 0.5, 0, 0.0, amplitude, bend);
    }

    /** Over it, an octave up and softer. */
    @Override
    public FmPair next() {
        return with(b -> b.carrierRatio(Math.min(60, 2 * carrierRatio)).levelDb(Math.max(-80, levelDb - 9)));
    }

    public FmPair withPhases(double carrierRad, double modulatorRad) {
        return with(b -> b.carrierPhaseRad(carrierRad).modulatorPhaseRad(modulatorRad));
    }

    /** With other courses of its level and of its index. */
    public FmPair withEnvelopes(Envelope level, Envelope ofIndex) {
        return with(b -> b.amplitude(level).bend(ofIndex));
    }

    /** On other lines, with another index [rad]. */
    public FmPair with(double carrier, double modulator, double index) {
        return with(b -> b.carrierRatio(carrier).modulatorRatio(modulator));
    }

    @Override
    public boolean inEffect(String id) {
        boolean modulates =
                id.startsWith("modulator") || id.startsWith("bend.") || id.equals("feedback") || id.equals("tracking");
        return id.equals("level")
                || levelDb > OFF_DB && (index > 0 || !modulates) && (kind == Kind.PULSE_WIDTH || !id.equals("width"));
    }
}

package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.PartlyIdle;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.SingleCycle;
import nightreed.recipe.part.VelocityMap;

/**
 * A source wave and noise through a bank of bands, each with a mix, a level and a course of its own.
 *
 * @param bank      how the bands are made
 * @param source    the wave
 * @param cycle     one cycle of the recording, for a source of that wave; null if there is none
 * @param bands     1 to {@value #MOST_BANDS}, by rising centre
 * @param stepSeconds time between the levels of bands that follow a recording [s]
 * @param amplitude level over time
 * @param exciter   strike into the bands, null for none
 */
@RecordBuilder
public record FormantRecipe(
        int key,

        @ParameterSpec(
                id = "tune",
                name = "tuning",
                unit = "cents",
                least = -100,
                most = 100,
                decimals = 1,
                meaning = "Offset from the key at A4 = 440 Hz.")
        double tuningCents,

        @ParameterSpec(
                name = "level",
                unit = "dBFS",
                least = -80,
                most = 36,
                decimals = 1,
                meaning = "Level of everything.")
        double levelDb,

        @ParameterSpec(
                name = "bank",
                group = Group.BODY,
                neutral = 0,
                meaning = "Bands side by side that fill the spectrum, or free formants.")
        Bank bank,

        @Part(id = "source", name = "source", group = Group.SOURCE)
        Oscillator source,

        @Part(group = Group.SOURCE) SingleCycle cycle,

        @ParameterSpec(
                id = "noise",
                name = "noise",
                unit = "dB",
                least = -80,
                most = 12,
                decimals = 1,
                neutral = -80,
                meaning = "Level of the noise source; -80 is silent.")
        double noiseDb,

        @Part(id = "band", name = "band", group = Group.BODY, least = 1, most = FormantRecipe.MOST_BANDS)
        List<FormantBand> bands,

        @ParameterSpec(
                id = "tilt",
                name = "tilt",
                unit = "dB/oct",
                least = -12,
                most = 12,
                decimals = 1,
                group = Group.BODY,
                neutral = 0,
                meaning = "Slope over all bands, about 1 kHz.")
        double tiltDbPerOctave,

        @ParameterSpec(
                name = "shift",
                unit = "cents",
                least = -2400,
                most = 2400,
                decimals = 0,
                group = Group.BODY,
                neutral = 0,
                meaning = "Moves all bands, and not the pitch.")
        double shiftCents,

        @ParameterSpec(
                id = "follow.attack",
                name = "follower attack",
                unit = "ms",
                least = 0.5,
                most = 200,
                law = Law.LOGARITHMIC,
                decimals = 1,
                group = Group.MOVEMENT,
                meaning = "How fast bands follow a rise of the recording.")
        double followAttackMs,

        @ParameterSpec(
                id = "follow.decay",
                name = "follower decay",
                unit = "ms",
                least = 1,
                most = 2000,
                law = Law.LOGARITHMIC,
                decimals = 1,
                group = Group.MOVEMENT,
                meaning = "How fast they follow a fall.")
        double followDecayMs,

        double stepSeconds,

        @ParameterSpec(
                id = "q",
                name = "Q of all",
                unit = "×",
                least = 0.1,
                most = 10,
                law = Law.LOGARITHMIC,
                group = Group.BODY,
                neutral = 1,
                meaning = "Narrows all formants at once; bands side by side have none.")
        Double qFactor,

        @ParameterSpec(
                id = "even",
                name = "even bands",
                unit = "dB",
                least = -80,
                most = 12,
                decimals = 1,
                group = Group.BODY,
                neutral = 0,
                meaning = "Level of bands 2, 4, 6 against the others; -80 is silent.")
        Double evenDb,

        @ParameterSpec(
                name = "apart",
                least = -1,
                group = Group.BODY,
                neutral = 0,
                meaning = "Odd bands to the left, even bands to the right; below 0 the other way.")
        Double apart,

        @ParameterSpec(
                id = "follow.level",
                name = "even follow odd",
                unit = "dB",
                least = -80,
                most = 40,
                decimals = 1,
                group = Group.MOVEMENT,
                neutral = -80,
                meaning =
                        "Above -80 each even band is as loud as the odd one before it makes it, with the follower's times.")
        Double followDb,

        @Part(id = "amp", name = "level", group = Group.SHAPING)
        Envelope amplitude,

        @Part(group = Group.EXCITER) Exciter exciter,
        @Part(id = "velocity", group = Group.PLAYING) VelocityMap velocity,
        @Part Common common)
        implements Recipe, FormantRecipeBuilder.With, PartlyIdle {
    public static final int MOST_BANDS = 32;
    public static final double OFF_DB = -79.5;
    private static final double OFF_LEVEL = -80;

    /** How bands are made. */
    public enum Bank {
        /** Each band ends where the next begins, 36 dB per octave; all up, the sum is flat. */
        SIDE_BY_SIDE,
        /** Resonances of any centre and width. */
        FORMANTS
    }

    public FormantRecipe {
        bands = bands == null ? List.of() : List.copyOf(bands);
        qFactor = qFactor == null ? 1 : qFactor;
        evenDb = evenDb == null ? 0 : evenDb;
        apart = apart == null ? 0 : apart;
        followDb = followDb == null ? OFF_LEVEL : followDb;
        common = common == null ? Common.NONE : common;
        velocity = velocity == null ? VelocityMap.USUAL : velocity;
        if (source == null || amplitude == null) {
            throw new IllegalArgumentException("a formant recipe needs a source and an envelope");
        }
        Range.check("number of bands", bands.size(), 1, MOST_BANDS, "");
        Range.check("key", key, 0, 127, "");
        Range.check("step of followed levels", stepSeconds, 0.0005, 1, "s");
        for (int i = 1; i < bands.size(); i++) {
            if (bands.get(i).centreHz() <= bands.get(i - 1).centreHz() && bank == Bank.SIDE_BY_SIDE) {
                throw new IllegalArgumentException("bands side by side must rise in frequency; band " + (i + 1) + " at "
                        + bands.get(i).centreHz() + " Hz does not");
            }
        }
        ParameterAccess.check(
                FormantRecipe.class,
                key,
                tuningCents,
                levelDb,
                bank,
                source,
                cycle,
                noiseDb,
                bands,
                tiltDbPerOctave,
                shiftCents,
                followAttackMs,
                followDecayMs,
                stepSeconds,
                qFactor,
                evenDb,
                apart,
                followDb);
    }

    /** With all bands alike in what they do. */
    public FormantRecipe(
            int key,
            double tuningCents,
            double levelDb,
            Bank bank,
            Oscillator source,
            SingleCycle cycle,
            double noiseDb,
            List<FormantBand> bands,
            double tiltDbPerOctave,
            double shiftCents,
            double followAttackMs,
            double followDecayMs,
            double stepSeconds,
            Envelope amplitude,
            Exciter exciter,
            VelocityMap velocity,
            Common common) {
        this(
                key,
                tuningCents,
                levelDb,
                bank,
                source,
                cycle,
                noiseDb,
                bands,
                tiltDbPerOctave,
                shiftCents,
                followAttackMs,
                followDecayMs,
                stepSeconds,
                null,
                null,
                null,
                null,
                amplitude,
                exciter,
                velocity,
                common);
    }

    @Override
    public String method() {
        return "formant";
    }

    @Override
    public FormantRecipe withCommon(Common c) {
        return with(b -> b.common(c));
    }

    @Override
    public FormantRecipe with(String id, double value) {
        return Recipe.changed(this, id, value);
    }

    @Override
    public FormantRecipe played() {
        return Recipe.withMacros(this);
    }

    @Override
    public boolean inEffect(String id) {
        boolean follows =
                followDb > OFF_DB || bands.stream().anyMatch(b -> !b.pathDb().isEmpty());
        boolean toned = source.levelDb() > OFF_DB && bands.stream().anyMatch(b -> b.noiseShare() < 1);
        boolean side = bank == Bank.SIDE_BY_SIDE;
        if (side && id.startsWith("band.") && id.endsWith(".width")) { // they end where the next begins
            return id.equals("band.1.width") || id.equals("band." + bands.size() + ".width");
        }
        return switch (id) {
            case "follow.attack", "follow.decay" -> follows;
            case "q" -> !side;
            case "noise" -> bands.stream().anyMatch(b -> b.noiseShare() > 0);
            default -> !id.startsWith("harmonic.") || toned && source.wave() == Oscillator.Wave.MEASURED;
        };
    }
}

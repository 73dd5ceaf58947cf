package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.Repeatable;

/**
 * One band of a formant bank.
 *
 * @param envelope its own course; null if it only follows the whole
 * @param pathDb   levels taken from a recording, one each step of the recipe [dB]; empty for none
 */
@RecordBuilder
public record FormantBand(
        @ParameterSpec(
                name = "centre",
                unit = "Hz",
                least = 20,
                most = 18_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Middle of the band.")
        double centreHz,

        @ParameterSpec(
                name = "width",
                unit = "Hz",
                least = 5,
                most = 12_000,
                law = Law.LOGARITHMIC,
                decimals = 0,
                meaning = "Width within 3 dB of a free formant, or between the edges of bands side by side.")
        double widthHz,

        @ParameterSpec(
                name = "level",
                unit = "dB",
                least = -80,
                most = 24,
                decimals = 1,
                neutral = 0,
                meaning = "Level of the band; -80 is silent.")
        double levelDb,

        @ParameterSpec(
                name = "noise share",
                neutral = {0, 1},
                meaning = "What drives it: 0 the wave, 1 the noise.")
        double noiseShare,

        @ParameterSpec(name = "pan", least = -1, neutral = 0, meaning = "-1 left, 1 right.")
        double pan,

        @ParameterSpec(name = "drone", neutral = 0, meaning = "On: it sounds on while the whole dies away.")
        boolean drone,

        @Part(id = "amp", name = "level") Envelope envelope,
        List<Double> pathDb)
        implements FormantBandBuilder.With, Repeatable {
    private static final int MOST_STEPS = 20_000;

    public FormantBand {
        pathDb = pathDb == null ? List.of() : List.copyOf(pathDb);
        ParameterAccess.check(FormantBand.class, centreHz, widthHz, levelDb, noiseShare, pan, drone);
        Range.check("number of followed levels", pathDb.size(), 0, MOST_STEPS, "");
        pathDb.forEach(v -> Range.check("followed level", v, -200, 40, "dB"));
    }

    /** Half an octave over it, as wide for its centre. */
    @Override
    public FormantBand next() {
        return shifted(Math.sqrt(2)).with(b -> b.levelDb(Math.max(-80, levelDb - 3)));
    }

    /** A semitone over it. */
    @Override
    public FormantBand twin() {
        return shifted(Math.pow(2, 1.0 / 12));
    }

    /** The same at another centre, without the levels of a recording, which are of its own. */
    private FormantBand shifted(double factor) {
        return with(b -> b.centreHz(Math.min(18_000, centreHz * factor))
                .widthHz(Math.min(12_000, widthHz * factor))
                .pathDb(List.of()));
    }

    public static FormantBand of(double centreHz, double widthHz, double levelDb, double noiseShare) {
        return new FormantBand(centreHz, widthHz, levelDb, noiseShare, 0, false, null, List.of());
    }
}

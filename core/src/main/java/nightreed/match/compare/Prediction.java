package nightreed.match.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Attack;
import nightreed.measure.ClipFacts;
import nightreed.measure.HeardPitch;
import nightreed.measure.Measurement;
import nightreed.measure.PartialSet;
import nightreed.measure.RoomFacts;
import nightreed.measure.StrikeBands;
import nightreed.measure.StrikeFacts;
import nightreed.measure.partial.Partial;
import nightreed.measure.traits.Traits;
import nightreed.recipe.Mode;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Exciter;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;

/**
 * What a recipe would measure as. The partials of a mode bank are its modes, so they need no measuring; attack, burst and
 * paths come from a real render. That a measurement of the render agrees is a test.
 */
public final class Prediction {
    private Prediction() {}

    /**
     * The recipe rendered on its own key, laid out in time as a recording.
     *
     * @param like        recording whose onset, length and rate are taken over
     * @param mostSeconds rendered after the onset at the most [s]
     */
    public static AnalysedSound of(ResonatorRecipe recipe, Measurement like, double mostSeconds) {
        double onset = like.onsetSeconds();
        double total = Math.min(like.durationSeconds(), onset + mostSeconds);
        int fs = like.sampleRateHz();
        Clip whole = Renderer.asFitted(recipe, onset, total, fs);
        Exciter e = recipe.exciter();
        ResonatorRecipe dry =
                recipe.withExciter(new Exciter(e.contactMs(), -100, e.noiseT60Ms(), e.noiseLowHz(), e.noiseHighHz()));
        Clip tone = Renderer.asFitted(dry, onset, Math.min(total, onset + 0.1), fs);
        int start = (int) Math.round(onset * fs);
        double[] x = whole.mixed();
        double[] strike = whole.span(start, start + (int) (0.08 * fs)).mixed();
        double[] burst = tone.span(start, start + strike.length).mixed();
        for (int i = 0; i < burst.length; i++) {
            burst[i] = strike[i] - burst[i];
        }
        double strongest = amplitude(recipe, strongest(recipe));
        StrikeBands bands = StrikeBands.of(burst, strike, fs, strongest, hz -> 0);
        return new AnalysedSound(whole, measurement(recipe, like, Attack.seconds(x, fs, start), bands));
    }

    /** The numbers of a recipe, with attack and burst from a render of a recipe much like it. */
    public static Measurement measurement(ResonatorRecipe recipe, Measurement like, Double attack, StrikeBands bands) {
        double top = amplitude(recipe, strongest(recipe));
        List<Partial> partials = new ArrayList<>();
        for (Mode m : recipe.modes()) {
            double a = amplitude(recipe, m);
            // modes that are no more than part of the strike are no partials on either side
            boolean rings = m.t60Seconds() > 0.03;
            partials.add(new Partial(
                    m.ratio() * recipe.f0Hz(),
                    m.ratio(),
                    20 * Math.log10(a / top),
                    a,
                    m.phaseRad(),
                    m.t60Seconds(),
                    null,
                    null,
                    null,
                    0,
                    0.0,
                    100,
                    rings));
        }
        partials.sort(Comparator.comparingDouble(Partial::frequencyHz));
        return new Measurement(
                new ClipFacts(
                        like.sampleRateHz(), like.durationSeconds(), like.onsetSeconds(), List.of(), null, List.of()),
                HeardPitch.of(recipe.f0Hz(), List.of()),
                new PartialSet(partials, null, null, null),
                new StrikeFacts(attack, null, bands),
                null,
                null,
                Traits.NONE,
                RoomFacts.DRY);
    }

    private static Mode strongest(ResonatorRecipe r) {
        return r.modes().stream()
                .filter(m -> m.t60Seconds() > 0.03)
                .max(Comparator.comparingDouble(Mode::levelDb))
                .orElse(r.modes().get(0));
    }

    private static double amplitude(ResonatorRecipe r, Mode m) {
        return Math.pow(10, (r.levelDb() + m.levelDb()) / 20);
    }
}

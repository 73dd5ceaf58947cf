package nightreed.desktop.workspace;

import java.util.ArrayList;
import java.util.List;
import nightreed.project.Snapshot;
import nightreed.recipe.Feeds;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.Layer;
import nightreed.recipe.Layer.CrossFade;
import nightreed.recipe.Mode;
import nightreed.recipe.Patch;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Feet;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.Route;
import nightreed.sound.Clip;

/** Patches of the demo that were put together by hand. */
final class DemoPatches {
    private DemoPatches() {}

    /** Three layers: the fitted lute, a glassy one an octave up, and a drone that the wheel brings in. */
    static Patch luteWithGhost(Snapshot lute) {
        Layer glass = Layer.of(FirstRecipe.of("fm"))
                .withTranspose(12)
                .withBalanceDb(-14)
                .withPan(0.4);
        Layer drone = Layer.of(FirstRecipe.of("formant"))
                .withTranspose(-12)
                .withBalanceDb(-6)
                .withCrossFade(CrossFade.COMES_IN);
        return lute.patch().with(glass).with(drone);
    }

    /** Combs in alternating polarity, driven by a recording. */
    static Patch hullFedBy(Clip recording) {
        ResonatorRecipe bar = (ResonatorRecipe) FirstRecipe.of("resonators");
        double[] ratios = {0.5, 0.75, 1, 1.5};
        List<Mode> combs = new ArrayList<>();
        for (double r : ratios) {
            combs.add(new Mode(r, -6, 3, 0));
        }
        return Patch.of(bar.withBody(ResonatorRecipe.Body.COMBS)
                .withModes(combs)
                .withPolarity(ResonatorRecipe.Polarity.ALTERNATING)
                .withFeed(Feeds.of(recording, 0))
                .withPart("reverb"));
    }

    /** Drawbars at five lengths, two ranks three cents apart, a full square tremolo in eighths, the lower half an octave up. */
    static Patch organ() {
        SubtractiveRecipe r = (SubtractiveRecipe) FirstRecipe.of("subtractive");
        List<Oscillator> ranks = new ArrayList<>();
        Feet[] feet = {Feet.FEET_16, Feet.FEET_8, Feet.FEET_4, Feet.FEET_2};
        double[] levels = {-6, 0, -5, -9};
        for (int i = 0; i < feet.length; i++) {
            ranks.add(Oscillator.of(Wave.SINE, 1).withFeet(feet[i]).withLevelDb(levels[i]));
        }
        ranks.add(Oscillator.of(Wave.SINE, 3).withLevelDb(-10));
        ranks.add(Oscillator.of(Wave.TRIANGLE, 1).withDetuneCents(3).withLevelDb(-8));
        Common gated = Common.NONE
                .withFirst(new Lfo(Lfo.Shape.SQUARE, 2, Lfo.Per.QUARTER, 0, 0, 0, 0.5, 0.1, false, true, List.of()))
                .withRoutes(List.of(new Route(Route.Source.LFO_1, Route.Target.LEVEL, 30)));
        SubtractiveRecipe organ = r.withOscillators(ranks)
                .withFilter(null)
                .withAmplitude(Envelope.held(0.008, 0.04))
                .withCommon(gated);
        return Patch.split(organ, 60, 12);
    }

    /** A small bell of two pairs, nothing else. */
    static Patch glass() {
        return Patch.of(FirstRecipe.of("fm")
                .with("pair.1.modulatorRatio", 3.53)
                .with("pair.1.index", 1.6)
                .withPart("reverb"));
    }
}

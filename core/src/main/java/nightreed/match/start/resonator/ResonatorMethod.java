package nightreed.match.start.resonator;

import java.util.List;
import java.util.Map;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.start.Anchor;
import nightreed.match.start.Method;
import nightreed.match.start.StartContext;
import nightreed.recipe.Mode;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.UnusableSound;

/** A bank of decaying modes. */
public final class ResonatorMethod extends Method {
    public ResonatorMethod() {
        super("resonators", ResonatorRecipe.class);
    }

    @Override
    public boolean needsPitch() {
        return false; // says itself what it lacks
    }

    @Override
    public Recipe start(StartContext g) throws UnusableSound {
        g.say("tune", true, "measured pitch");
        g.say("mode", true, "measured partials, the most audible ones");
        g.say("exciter", true, "measured rise of the waveform");
        g.say("noise", true, "measured noise of the strike");
        return ResonatorStart.of(g.side());
    }

    @Override
    public List<? extends Recipe> starts(StartContext g, boolean brief) throws UnusableSound {
        return ResonatorStart.several(g.side());
    }

    @Override
    public boolean isOpen() {
        return false;
    }

    /** It begins so near that more gains little. */
    @Override
    public double amount(boolean held) {
        return 1650;
    }

    @Override
    public double costPerSecond(Recipe recipe, double fs) {
        return 2.2;
    }

    /** First the strike, then all but the frequencies, which are measured. */
    @Override
    public List<List<String>> stages(Recipe recipe) {
        List<String> all = searched(recipe);
        return List.of(
                all.stream()
                        .filter(v -> v.startsWith("exciter.") || v.startsWith("noise.") || v.equals("rise"))
                        .toList(),
                all.stream()
                        .filter(v -> !v.endsWith(".ratio") && !v.equals("tune"))
                        .toList());
    }

    /** All modes begin alike. */
    @Override
    public Recipe settable(Recipe recipe) {
        ResonatorRecipe r = (ResonatorRecipe) recipe;
        return r.withModes(r.modes().stream()
                .map(m -> new Mode(m.ratio(), m.levelDb(), m.t60Seconds(), 0))
                .toList());
    }

    @Override
    protected boolean believesStrikeNoise() {
        return false;
    }

    /** Levels and decays of modes are measured far better than a short look at a mixture could tell. */
    @Override
    public Map<String, Anchor> anchors(Recipe recipe) {
        Map<String, Anchor> out = super.anchors(recipe);
        ResonatorRecipe r = (ResonatorRecipe) recipe;
        double[] weight = new double[r.modes().size()];
        double weights = 0;
        for (int i = 0; i < weight.length; i++) {
            weight[i] = Math.max(0.02, 1 + r.modes().get(i).levelDb() / 50);
            weights += weight[i];
        }
        for (int i = 0; i < weight.length; i++) {
            Mode m = r.modes().get(i);
            double w = Math.sqrt(weight[i] / weights / ASPECTS);
            String of = "mode." + (i + 1) + ".";
            out.put(of + "level", new Anchor(m.levelDb(), false, JndThresholds.USUAL.levelDb(), w));
            out.put(of + "t60", new Anchor(m.t60Seconds(), true, Math.log(JndThresholds.USUAL.decayLonger()), w));
        }
        return out;
    }

    @Override
    public String needs(Recipe recipe) {
        return many(((ResonatorRecipe) recipe).modes().size(), "resonator");
    }

    @Override
    public String whyPartials() {
        return "More modes, or levels nearer to them, would carry these.";
    }

    @Override
    public String whyDecays() {
        return "Each mode dies by one law; some of the recording's partials die in two stages.";
    }

    @Override
    public String whyBrightness() {
        return "It follows from partials and noise: what is left there is left here.";
    }
}

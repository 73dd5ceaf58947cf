package nightreed.match.start.fm;

import java.util.List;
import nightreed.match.start.Method;
import nightreed.match.start.StartContext;
import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Recipe;
import nightreed.voice.fm.FmSound;

/** Frequency modulation: pairs of carrier and modulator. */
public final class FmMethod extends Method {
    public FmMethod() {
        super("fm", FmRecipe.class);
    }

    @Override
    public Recipe start(StartContext g) {
        return FmStart.of(g);
    }

    @Override
    public Recipe instant(StartContext g) {
        return FmStart.onePair(g);
    }

    @Override
    public List<? extends Recipe> starts(StartContext g, boolean brief) {
        return FmStart.several(g, brief);
    }

    @Override
    public boolean hasDearStarts() {
        return true;
    }

    @Override
    public boolean computesStarts(boolean held) {
        return true;
    }

    @Override
    public boolean keepsFrequencies(boolean held) {
        return held;
    }

    @Override
    public double savedByNearStart() {
        return 0.4;
    }

    /**
     * A few rounds, since its starts have been refined. With ten times as much, 18 recorded notes came as near in the median: 11 the
     * same, 5 nearer by up to 11 %, 2 further off.
     */
    @Override
    public double amount(boolean held) {
        return held ? 45 : 65;
    }

    @Override
    public double costPerSecond(Recipe recipe, double fs) {
        FmRecipe r = (FmRecipe) recipe;
        int sounding = 0;
        for (FmPair p : r.pairs()) {
            sounding += p.levelDb() > FmPair.OFF_DB ? 1 : 0;
        }
        return 0.3 + 0.82 * sounding * FmSound.times(r, Pitch.hz(r.key()), 1, fs);
    }

    @Override
    protected int sines(Recipe recipe) {
        return 2 * ((FmRecipe) recipe).pairs().size();
    }

    @Override
    public String whyPartials() {
        return "Levels of sidebands are tied to each other by the index.";
    }
}

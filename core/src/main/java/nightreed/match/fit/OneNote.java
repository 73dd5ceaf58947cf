package nightreed.match.fit;

import java.util.Arrays;
import java.util.List;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Layer;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;

/** A recording, and a recipe on its own key against it, with or without something that sounds beside it. */
public final class OneNote implements ResidualFunction {
    private final PerceptualResiduals ear;
    private final Clip backing;

    public OneNote(PerceptualResiduals ear) {
        this(ear, null);
    }

    /** @param backing what sounds beside the recipe, from the onset on; null for nothing */
    public OneNote(PerceptualResiduals ear, Clip backing) {
        this.ear = ear;
        this.backing = backing;
    }

    /** @param others layers that sound beside what is tried; may be empty */
    public static OneNote beside(List<Layer> others, PerceptualResiduals ear) {
        OneNote alone = new OneNote(ear);
        double[] sum = new double[0];
        for (Layer l : others) {
            double[] x = alone.render(l.recipe()).mixed();
            sum = Arrays.copyOf(sum, Math.max(sum.length, x.length));
            for (int i = 0; i < x.length; i++) {
                sum[i] += l.gain() * x[i];
            }
        }
        int fs = ear.recording().measurement().sampleRateHz();
        return new OneNote(ear, others.isEmpty() ? null : Clip.mono(sum, fs));
    }

    /** The recipe by itself from the onset on. */
    public Clip render(Recipe recipe) {
        AnalysedSound r = recording();
        return Renderer.asFitted(
                recipe, 0, r.keySeconds(), ear.seconds(), r.measurement().sampleRateHz());
    }

    /** Time after the onset that is rendered [s]. */
    public double seconds() {
        return ear.seconds();
    }

    public AnalysedSound recording() {
        return ear.recording();
    }

    /** What sounds beside the recipe; null for nothing. */
    public Clip backing() {
        return backing;
    }

    @Override
    public double[] differences(Recipe recipe) {
        return ear.differences(backed(render(recipe)));
    }

    @Override
    public double cost(Recipe recipe) {
        return RenderCost.of(recipe, ear.seconds(), recording().measurement().sampleRateHz());
    }

    private Clip backed(Clip own) {
        if (backing == null) {
            return own;
        }
        double[] sum = own.mixed();
        double[] other = backing.mixed();
        for (int i = 0; i < Math.min(sum.length, other.length); i++) {
            sum[i] += other[i];
        }
        return Clip.mono(sum, own.sampleRateHz());
    }
}

package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;

/** A recording, and a recipe on its own key against it, with or without something that sounds beside it. */
public final class OneNote implements ResidualFunction {
    private final PerceptualResiduals ear;
    private final Patch around;
    private final Clip backing;

    public OneNote(PerceptualResiduals ear) {
        this(ear, (Clip) null);
    }

    /** @param backing what sounds beside the recipe, from the onset on; null for nothing */
    public OneNote(PerceptualResiduals ear, Clip backing) {
        this(ear, null, backing);
    }

    private OneNote(PerceptualResiduals ear, Patch around, Clip backing) {
        this.ear = ear;
        this.around = around;
        this.backing = backing;
    }

    /** @param patch what a recipe that is tried is the first layer of; the others sound as they are */
    public static OneNote within(Patch patch, PerceptualResiduals ear) {
        if (patch.isOne()) {
            return new OneNote(ear);
        }
        List<Layer> as = new ArrayList<>(); // with what is heard told by each for itself
        for (int i = 0; i < patch.layers().size(); i++) {
            as.add(patch.layers().get(i).withSolo(false).withMuted(!patch.isHeard(i)));
        }
        Layer own = as.get(0);
        boolean usual = own.plain() && own.recipe().key() == patch.key();
        Patch alone = usual ? null : patch.withLayers(List.of(own));
        as.set(0, own.withMuted(true));
        Clip rest = as.size() > 1 ? render(patch.withLayers(as), ear) : null;
        return new OneNote(ear, alone, rest);
    }

    /** The recipe by itself from the onset on. */
    public Clip render(Recipe recipe) {
        if (around != null) {
            return render(around.withFirst(recipe), ear);
        }
        AnalysedSound r = recording();
        return Renderer.asFitted(
                recipe, 0, r.keySeconds(), ear.seconds(), r.measurement().sampleRateHz());
    }

    private static Clip render(Patch patch, PerceptualResiduals ear) {
        AnalysedSound r = ear.recording();
        Clip both = Renderer.asFitted(
                patch, 0, r.keySeconds(), ear.seconds(), r.measurement().sampleRateHz());
        return Clip.mono(both.mixed(), both.sampleRateHz());
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

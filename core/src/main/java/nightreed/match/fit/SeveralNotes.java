package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.sound.AnalysedSound;
import nightreed.music.Pitch;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;

/** Recordings of one instrument, and a recipe on the key and with the strength of each of them. */
public final class SeveralNotes implements ResidualFunction {
    private final List<Note> notes;
    private final List<PerceptualResiduals> ears = new ArrayList<>();
    private final Patch around;
    private final double referenceCents;
    private final int size;

    /**
     * @param reference the note whose key and tuning are the recipe's
     * @param seconds   that are listened to of each
     * @param around    what the recipe is the first layer of; null for nothing
     */
    public SeveralNotes(List<Note> notes, Note reference, double seconds, Patch around) {
        this.around = around;
        this.notes = List.copyOf(notes);
        int n = 0;
        for (Note note : notes) {
            PerceptualResiduals ear = new PerceptualResiduals(note.recording(), seconds);
            ears.add(ear);
            n += ear.size();
        }
        size = n;
        referenceCents = cents(reference);
    }

    /** How far a note lies off its key [cents]; 0 without a pitch. */
    private static double cents(Note note) {
        Double f0 = note.recording().measurement().f0Hz();
        return f0 == null ? 0 : 1200 * Math.log(f0 / Pitch.hz(note.key())) / Math.log(2);
    }

    /** The recipe as this note needs it: instruments are not in tune with themselves, and that is no fault of a recipe. */
    Recipe tuned(Recipe recipe, Note note) {
        double by = cents(note) - referenceCents;
        return Math.abs(by) > 100 ? recipe : recipe.with("tune", recipe.tuningCents() + by);
    }

    /** A note of the recipe, laid out as its recording is. */
    Clip render(Recipe recipe, Note note, double lead, double total) {
        AnalysedSound r = note.recording();
        Recipe tuned = tuned(recipe, note);
        return Renderer.at(
                around == null ? Patch.of(tuned) : around.withFirst(tuned),
                note.key(),
                note.velocity(),
                lead,
                r.keySeconds(),
                total,
                r.measurement().sampleRateHz());
    }

    @Override
    public double[] differences(Recipe recipe) {
        double[] out = new double[size];
        double share = 1 / Math.sqrt(notes.size());
        int at = 0;
        for (int i = 0; i < notes.size(); i++) {
            PerceptualResiduals ear = ears.get(i);
            for (double d : ear.differences(render(recipe, notes.get(i), 0, ear.seconds()))) {
                out[at++] = share * d;
            }
        }
        return out;
    }

    @Override
    public double cost(Recipe recipe) {
        double sum = 0;
        for (PerceptualResiduals ear : ears) {
            double fs = ear.recording().measurement().sampleRateHz();
            sum += RenderCost.of(recipe, ear.seconds(), fs);
        }
        return sum;
    }
}

package nightreed.voice.effect;

import nightreed.recipe.part.Effects.Tremolo;
import nightreed.voice.note.Note;

/** Level that swings in dB, one side against the other if wanted. */
final class TremoloEffect {
    private final double fs;
    private double cycles;
    private double advance;
    private double depthDb;
    private double sides;
    private double gainLeft = 1;
    private double gainRight = 1;
    private double stepLeft;
    private double stepRight;

    TremoloEffect(double fs) {
        this.fs = fs;
    }

    void step(Tremolo t) {
        advance = t.rateHz() / fs;
        depthDb = t.depthDb();
        sides = t.sides();
        gainLeft = gain(cycles);
        gainRight = gain(cycles + 0.5 * sides);
        cycles += Note.STEP * advance;
        cycles -= Math.floor(cycles);
        stepLeft = (gain(cycles) - gainLeft) / Note.STEP;
        stepRight = (gain(cycles + 0.5 * sides) - gainRight) / Note.STEP;
    }

    void process(double[] l, double[] r, int n) {
        for (int i = 0; i < n; i++) {
            l[i] *= gainLeft;
            r[i] *= gainRight;
            gainLeft += stepLeft;
            gainRight += stepRight;
        }
    }

    /** Lets time pass where there is nothing to hear. */
    void rest(int n) {
        gainLeft += n * stepLeft;
        gainRight += n * stepRight;
    }

    private double gain(double at) {
        return Math.pow(10, depthDb * 0.5 * (Math.sin(2 * Math.PI * at) - 1) / 20);
    }
}

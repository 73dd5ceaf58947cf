package nightreed.voice.effect;

import nightreed.recipe.part.Effects.Tone;
import nightreed.voice.note.Section;

/** Low and high cut at the very end. */
final class ToneEffect {
    private static final double FLAT = Math.sqrt(0.5);
    private final double fs;
    private final Section[] sections = {new Section(), new Section(), new Section(), new Section()};
    private Tone seen;

    ToneEffect(double fs) {
        this.fs = fs;
    }

    void step(Tone t) {
        for (Section s : sections) {
            s.flush();
        }
        if (t != seen) {
            seen = t;
            sections[0].highPass(t.lowCutHz(), FLAT, fs);
            sections[1].lowPass(t.highCutHz(), FLAT, fs);
            sections[2].highPass(t.lowCutHz(), FLAT, fs);
            sections[3].lowPass(t.highCutHz(), FLAT, fs);
        }
    }

    void clear() {
        for (Section s : sections) {
            s.reset();
        }
    }

    void process(double[] l, double[] r, int n) {
        sections[0].process(l, 0, n);
        sections[1].process(l, 0, n);
        sections[2].process(r, 0, n);
        sections[3].process(r, 0, n);
    }
}

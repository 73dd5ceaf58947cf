package nightreed.voice.effect;

import nightreed.recipe.part.Effects.Chorus;

/** Two copies that move against each other, a quarter of a cycle apart. */
final class ChorusEffect {
    private static final double BASE_SECONDS = 0.012;
    private final double fs;
    private final Line left;
    private final Line right;
    private double cycles;
    private double advance;
    private double depth;
    private double mix;
    private double width;

    ChorusEffect(double fs) {
        this.fs = fs;
        left = new Line((int) (0.04 * fs));
        right = new Line((int) (0.04 * fs));
    }

    void step(Chorus c) {
        advance = c.rateHz() / fs;
        depth = c.depthMs() / 1000 * fs;
        mix = c.mix();
        width = c.width();
    }

    void clear() {
        left.clear();
        right.clear();
    }

    /** Lets time pass where there is nothing to hear; its sway goes on. */
    void rest(int n) {
        cycles += n * advance;
        cycles -= Math.floor(cycles);
    }

    void process(double[] l, double[] r, int n) {
        for (int i = 0; i < n; i++) {
            left.put(l[i]);
            right.put(r[i]);
            double base = BASE_SECONDS * fs;
            double a = left.get(base + depth * Math.sin(2 * Math.PI * cycles));
            double b = right.get(base + depth * Math.sin(2 * Math.PI * (cycles + 0.25)));
            double mid = 0.5 * (a + b);
            l[i] = (l[i] + mix * (mid + width * (a - mid))) / (1 + 0.5 * mix);
            r[i] = (r[i] + mix * (mid + width * (b - mid))) / (1 + 0.5 * mix);
            cycles += advance;
            cycles -= cycles >= 1 ? 1 : 0;
        }
    }
}

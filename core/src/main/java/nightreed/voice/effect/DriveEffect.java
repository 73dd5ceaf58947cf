package nightreed.voice.effect;

import nightreed.recipe.part.Effects.Drive;
import nightreed.voice.note.SoftClipper;

/** y = tanh(gx)/tanh(g), so oversampled that the harmonics it makes do not fold. */
final class DriveEffect {
    private final SoftClipper left = new SoftClipper();
    private final SoftClipper right = new SoftClipper();
    private double gain = 1;
    private double scale = 1;
    private double mix;

    void step(Drive d) {
        gain = Math.pow(10, d.amountDb() / 20);
        scale = 1 / Math.tanh(gain);
        mix = d.mix();
        left.flush();
        right.flush();
    }

    void clear() {
        left.reset();
        right.reset();
    }

    void process(double[] l, double[] r, int n) {
        left.process(l, 0, n, gain, scale, mix);
        right.process(r, 0, n, gain, scale, mix);
    }
}

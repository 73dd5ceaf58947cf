package nightreed.voice.effect;

import nightreed.dsp.HalfBand;
import nightreed.recipe.part.Effects.Drive;
import nightreed.voice.note.Note;

/** y = tanh(gx)/tanh(g) at four times the rate, so that the harmonics it makes do not fold. */
final class DriveEffect {
    private final Side left = new Side();
    private final Side right = new Side();
    private double gain = 1;
    private double scale = 1;
    private double mix;

    private static final class Side {
        private final HalfBand up = HalfBand.steep();
        private final HalfBand upAgain = HalfBand.wide();
        private final HalfBand downFirst = HalfBand.wide();
        private final HalfBand down = HalfBand.steep();
        private final double[] two = new double[2 * Note.STEP];
        private final double[] four = new double[4 * Note.STEP];

        void process(double[] x, int n, double gain, double scale, double mix) {
            up.up(x, two, n);
            upAgain.up(two, four, 2 * n);
            for (int i = 0; i < 4 * n; i++) {
                double v = four[i];
                four[i] = v + mix * (scale * Math.tanh(gain * v) - v);
            }
            downFirst.down(four, two, 2 * n);
            down.down(two, x, n);
        }

        void flush() {
            up.flush();
            upAgain.flush();
            downFirst.flush();
            down.flush();
        }

        void clear() {
            up.reset();
            upAgain.reset();
            downFirst.reset();
            down.reset();
        }
    }

    void step(Drive d) {
        gain = Math.pow(10, d.amountDb() / 20);
        scale = 1 / Math.tanh(gain);
        mix = d.mix();
        left.flush();
        right.flush();
    }

    void clear() {
        left.clear();
        right.clear();
    }

    void process(double[] l, double[] r, int n) {
        left.process(l, n, gain, scale, mix);
        right.process(r, n, gain, scale, mix);
    }
}

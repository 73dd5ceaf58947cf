package nightreed.voice.note;

import nightreed.dsp.HalfBand;

/**
 * tanh of one side at eight times the rate, so that what folds back stays under -80 dB: driven by 24 dB, the harmonics of a
 * sine fall by e^(-0.098) each (tanh has its poles at ±iπ/2), and the first that can fold is number 172 at 2.1 kHz and 48 kHz.
 */
public final class SoftClipper {
    private static final int TIMES = 8;
    private final HalfBand[] up = {HalfBand.steep(), HalfBand.wide(), HalfBand.wide()};
    private final HalfBand[] down = {HalfBand.wide(), HalfBand.wide(), HalfBand.steep()};
    private final double[] one = new double[Note.STEP];
    private final double[] two = new double[2 * Note.STEP];
    private final double[] four = new double[4 * Note.STEP];
    private final double[] eight = new double[TIMES * Note.STEP];

    /**
     * Clips {@code x[from..to)} in place: {@code x + mix (scale tanh(gain x) - x)}, late by the few samples of the filters.
     *
     * @param gain  into the curve
     * @param scale behind it
     * @param mix   0 to 1
     */
    public void process(double[] x, int from, int to, double gain, double scale, double mix) {
        for (int at = from; at < to; at += Note.STEP) {
            int n = Math.min(Note.STEP, to - at);
            System.arraycopy(x, at, one, 0, n);
            up[0].up(one, two, n);
            up[1].up(two, four, 2 * n);
            up[2].up(four, eight, 4 * n);
            for (int i = 0; i < TIMES * n; i++) {
                double v = eight[i];
                eight[i] = v + mix * (scale * tanh(gain * v) - v);
            }
            down[0].down(eight, four, 4 * n);
            down[1].down(four, two, 2 * n);
            down[2].down(two, one, n);
            System.arraycopy(one, 0, x, at, n);
        }
    }

    /**
     * By a ratio of polynomials that is never off by more than 3e-7 (minimax over -8 to 8, where tanh is 1 within as much): as
     * smooth as tanh itself, and several times quicker.
     */
    static double tanh(double x) {
        double c = Math.max(-8, Math.min(8, x));
        double q = c * c;
        double top = -2.76076847742355e-16;
        top = top * q + 2.00018790482477e-13;
        top = top * q - 8.60467152213735e-11;
        top = top * q + 5.12229709037114e-08;
        top = top * q + 1.48572235717979e-05;
        top = top * q + 6.37261928875436e-04;
        top = top * q + 4.89352455891786e-03;
        double bottom = 1.19825839466702e-06;
        bottom = bottom * q + 1.18534705686654e-04;
        bottom = bottom * q + 2.26843463243900e-03;
        bottom = bottom * q + 4.89352518554385e-03;
        return c * top / bottom;
    }

    /** Ends tails that have sunk into denormal numbers. */
    public void flush() {
        for (int i = 0; i < up.length; i++) {
            up[i].flush();
            down[i].flush();
        }
    }

    public void reset() {
        for (int i = 0; i < up.length; i++) {
            up[i].reset();
            down[i].reset();
        }
    }
}

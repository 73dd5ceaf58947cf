package nightreed.match.start;

import nightreed.dsp.RealFft;
import nightreed.match.Side;
import nightreed.recipe.part.Common;

/**
 * Mean power of a note while its key is held, once its vibrato and its tremolo are taken off, finely resolved.
 *
 * @param power of a sine's amplitude by bin, 1 for one of full scale
 */
record SteadySpectrum(double[] power, double binHz) {
    /** Length of a window, that tells lines 5 Hz apart, if there are two of them [s]. */
    private static final double WINDOW = 0.68;

    static SteadySpectrum of(Side side, Common movement) {
        double fs = side.measurement().sampleRateHz();
        double[] note = SteadyNote.samples(side, movement);
        int end = (int) Math.min(note.length, side.keySeconds() * fs);
        int n = RealFft.powerOfTwoFrom((int) (WINDOW * fs));
        n = 2 * n > end ? n / 2 : n; // of a short note a few windows are worth more than fine ones
        RealFft fft = new RealFft(n);
        double[] mean = new double[n / 2 + 1];
        double[] y = new double[n];
        for (int at = 0; at + n <= end; at += n / 4) {
            for (int i = 0; i < n; i++) {
                y[i] = note[at + i] * (0.5 - 0.5 * Math.cos(2 * Math.PI * (i + 0.5) / n));
            }
            double[] p = RealFft.power(fft.forward(y));
            for (int k = 0; k < mean.length; k++) {
                mean[k] += p[k] * 16.0 / n / n;
            }
        }
        return new SteadySpectrum(mean, fs / n);
    }
}

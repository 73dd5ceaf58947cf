package nightreed.sound;

import java.util.Arrays;
import nightreed.dsp.RealFft;

/**
 * Peak between the samples (the true peak of ITU-R BS.1770-4, annex 2). Pieces of the sound are laid out eight times as
 * densely through their spectra, which passes everything up to half the sample rate, and a parabola is laid through the largest three
 * values: a tone just under half the rate is read within 0.02 dB, where the filter of the standard's annex reads 0.3 dB too little.
 */
public final class TruePeak {
    private static final int PIECE = 8192;
    private static final int TIMES = 8;

    /** At both ends of a piece, where its spectrum takes it for one turn of a circle; other pieces cover it. */
    private static final int MARGIN = PIECE / 4;

    private static final RealFft PLAIN = new RealFft(PIECE);
    private static final RealFft DENSE = new RealFft(TIMES * PIECE);

    private TruePeak() {}

    /** Largest absolute value of the waveform, full scale = 1; 0 for an empty clip. */
    public static double of(Clip clip) {
        double peak = clip.peak();
        for (int c = 0; c < clip.channelCount(); c++) {
            float[] x = clip.channel(c);
            for (int from = -MARGIN; from < x.length; from += PIECE - 2 * MARGIN) {
                peak = Math.max(peak, of(x, from));
            }
        }
        return peak;
    }

    /** The same of a piece; 0 if it is silent. @param from first sample of the piece, which may lie before the sound */
    private static double of(float[] x, int from) {
        double[] piece = new double[PIECE];
        double most = 0;
        for (int i = Math.max(0, -from); i < PIECE && from + i < x.length; i++) {
            piece[i] = x[from + i];
            most = Math.max(most, Math.abs(piece[i]));
        }
        if (most == 0) {
            return 0;
        }
        double[] spectrum = Arrays.copyOf(PLAIN.forward(piece), TIMES * PIECE + 2);
        spectrum[PIECE] *= 0.5; // half the rate is now a frequency as any other, and there is one on either side
        spectrum[PIECE + 1] *= 0.5;
        double[] y = DENSE.inverse(spectrum);
        double peak = 0;
        for (int i = TIMES * MARGIN; i < TIMES * (PIECE - MARGIN); i++) {
            double b = Math.abs(y[i]);
            if (b > peak) {
                double a = Math.abs(y[i - 1]);
                double c = Math.abs(y[i + 1]);
                double bend = a - 2 * b + c;
                double top = b >= a && b >= c && bend < 0 ? b - (c - a) * (c - a) / (8 * bend) : b;
                peak = Math.max(peak, top);
            }
        }
        return TIMES * peak;
    }

    /** {@link #of} in dB true peak; negative infinity for silence. */
    public static double db(Clip clip) {
        return 20 * Math.log10(of(clip));
    }
}

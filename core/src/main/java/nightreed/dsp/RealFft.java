package nightreed.dsp;

import org.jtransforms.fft.DoubleFFT_1D;
import org.visnow.jlargearrays.ConcurrencyUtils;

/**
 * Discrete Fourier transform of real signals of one length, X[k] = Σ x[n] e^(-j2πkn/N), unscaled.
 * <p>Holds tables only; one instance may be used by several threads.
 */
public final class RealFft {
    private final int length;
    private final DoubleFFT_1D transform;

    /**
     * @param length N, even and at least 2; products of 2, 3 and 5 are fast
     */
    public RealFft(int length) {
        if (length < 2 || length % 2 != 0) {
            throw new IllegalArgumentException("transform length must be even and at least 2, got " + length);
        }
        this.length = length;
        // the library starts threads for long transforms; they cost more than they bring on two cores
        ConcurrencyUtils.setNumberOfThreads(1);
        this.transform = new DoubleFFT_1D(length);
    }

    public int length() {
        return length;
    }

    /**
     * @param x signal; read up to N samples, a shorter one counts as padded with zeros
     * @return new array of N + 2 values: real and imaginary part of bins 0..N/2, interleaved
     */
    public double[] forward(double[] x) {
        double[] spectrum = new double[length + 2];
        System.arraycopy(x, 0, spectrum, 0, Math.min(x.length, length));
        transform.realForward(spectrum);
        // the library packs the real-valued bin N/2 beside bin 0
        spectrum[length] = spectrum[1];
        spectrum[length + 1] = 0;
        spectrum[1] = 0;
        return spectrum;
    }

    /**
     * @param spectrum N + 2 values as {@link #forward} returns them; not changed
     * @return new array of the N samples, scaled so that it undoes {@link #forward}
     */
    public double[] inverse(double[] spectrum) {
        double[] x = new double[length];
        System.arraycopy(spectrum, 0, x, 0, length);
        x[1] = spectrum[length];
        transform.realInverse(x, true);
        return x;
    }

    /** Squared magnitude of bins 0..N/2 of a spectrum from {@link #forward}: new array of N/2 + 1 values. */
    public static double[] power(double[] spectrum) {
        double[] power = new double[spectrum.length / 2];
        for (int k = 0; k < power.length; k++) {
            power[k] = spectrum[2 * k] * spectrum[2 * k] + spectrum[2 * k + 1] * spectrum[2 * k + 1];
        }
        return power;
    }

    /** Smallest power of two that is at least {@code n} (and at least 2). */
    public static int powerOfTwoFrom(int n) {
        return Math.max(2, Integer.highestOneBit(Math.max(1, n - 1)) << 1);
    }

    /** Largest even product of 2, 3 and 5 that is at most {@code n}; {@code n} at least 2. */
    public static int fastLengthUpTo(int n) {
        if (n < 2) {
            throw new IllegalArgumentException("needs at least 2 samples, got " + n);
        }
        int best = 2;
        for (long p5 = 1; 2 * p5 <= n; p5 *= 5) {
            for (long p3 = p5; 2 * p3 <= n; p3 *= 3) {
                long p = 2 * p3;
                while (2 * p <= n) {
                    p *= 2;
                }
                best = (int) Math.max(best, p);
            }
        }
        return best;
    }
}

package nightreed.measure.partial;

/**
 * One term of the model y[n] = Σ Re(c e^((-α + jω) n)) of a segment of samples.
 *
 * @param omega frequency [rad/sample], 0 to π
 * @param alpha decay [nepers/sample], above 0
 * @param cRe   real part of the complex amplitude at the first sample
 * @param cIm   imaginary part
 * @param omegaSe standard error of omega and of alpha, which share one bound
 * @param snr   energy over the noise variance at its frequency (power ratio)
 */
public record DampedSinusoid(double omega, double alpha, double cRe, double cIm, double omegaSe, double snr) {
    /** Frequency and decay known, the rest still to be fitted. */
    public static DampedSinusoid candidate(double omega, double alpha, double snr) {
        return new DampedSinusoid(omega, alpha, 0, 0, Double.NaN, snr);
    }

    /**
     * The term of a frequency and a decay that explains the most of some samples by itself.
     *
     * @param variance of the noise at that frequency, over which the ratio is stated
     */
    public static DampedSinusoid matched(double[] r, double omega, double alpha, double variance) {
        int n = (int) Math.min(r.length, 7 / alpha);
        double re = 0;
        double im = 0;
        double c = 1;
        double s = 0;
        double zr = Math.exp(-alpha) * Math.cos(omega);
        double zi = -Math.exp(-alpha) * Math.sin(omega);
        for (int i = 0; i < n; i++) {
            re += r[i] * c;
            im += r[i] * s;
            double t = c * zr - s * zi;
            s = c * zi + s * zr;
            c = t;
        }
        double energy = -Math.expm1(-2 * alpha * n) / -Math.expm1(-2 * alpha);
        double ratio = (re * re + im * im) / energy / variance;
        return new DampedSinusoid(omega, alpha, 2 * re / energy, 2 * im / energy, Double.NaN, ratio);
    }

    public double amplitude() {
        return Math.hypot(cRe, cIm);
    }

    /** Σ e^(-2αn) over {@code n} samples: the length, in samples, that the decaying energy amounts to. */
    public double energySamples(int n) {
        return -Math.expm1(-2 * alpha * n) / -Math.expm1(-2 * alpha);
    }

    public DampedSinusoid with(double newOmegaSe, double newSnr) {
        return new DampedSinusoid(omega, alpha, cRe, cIm, newOmegaSe, newSnr);
    }

    /** The same term with its sample 0 moved to a later (or, if negative, an earlier) sample. */
    public DampedSinusoid movedBy(int samples) {
        double size = Math.exp(-alpha * samples);
        double re = size * Math.cos(omega * samples);
        double im = size * Math.sin(omega * samples);
        return new DampedSinusoid(omega, alpha, cRe * re - cIm * im, cRe * im + cIm * re, omegaSe, snr);
    }

    /** Adds {@code gain} times the waveform to {@code y}, whose sample {@code start} is the model's sample 0. */
    public void addTo(double[] y, int start, double gain) {
        addTo(y, start, gain, 1e-9 * amplitude());
    }

    /**
     * @param least amplitude below which what is left of the term may be left out
     */
    public void addTo(double[] y, int start, double gain, double least) {
        int length = y.length - start;
        if (alpha > 0 && amplitude() > 0) {
            length = (int) Math.min(length, Math.max(0, Math.ceil(Math.log(amplitude() / least) / alpha)));
        }
        // four samples a turn: each is a product of its own with the state, so that they need not wait for each other
        double m1 = Math.exp(-alpha);
        double c1 = m1 * Math.cos(omega);
        double s1 = m1 * Math.sin(omega);
        double c2 = c1 * c1 - s1 * s1;
        double s2 = 2 * c1 * s1;
        double c3 = c2 * c1 - s2 * s1;
        double s3 = c2 * s1 + s2 * c1;
        double c4 = c2 * c2 - s2 * s2;
        double s4 = 2 * c2 * s2;
        double re = gain * cRe;
        double im = gain * cIm;
        int i = start;
        int end = start + length;
        for (; i + 3 < end; i += 4) {
            y[i] += re;
            y[i + 1] += re * c1 - im * s1;
            y[i + 2] += re * c2 - im * s2;
            y[i + 3] += re * c3 - im * s3;
            double t = re * c4 - im * s4;
            im = re * s4 + im * c4;
            re = t;
        }
        for (; i < end; i++) {
            y[i] += re;
            double t = re * c1 - im * s1;
            im = re * s1 + im * c1;
            re = t;
        }
    }
}

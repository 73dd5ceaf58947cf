package nightreed.measure;

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
record DampedSinusoid(double omega, double alpha, double cRe, double cIm, double omegaSe, double snr) {
    /** Frequency and decay known, the rest still to be fitted. */
    static DampedSinusoid candidate(double omega, double alpha, double snr) {
        return new DampedSinusoid(omega, alpha, 0, 0, Double.NaN, snr);
    }

    double amplitude() {
        return Math.hypot(cRe, cIm);
    }

    /** Σ e^(-2αn) over {@code n} samples: the length, in samples, that the decaying energy amounts to. */
    double energySamples(int n) {
        return -Math.expm1(-2 * alpha * n) / -Math.expm1(-2 * alpha);
    }

    DampedSinusoid with(double newOmegaSe, double newSnr) {
        return new DampedSinusoid(omega, alpha, cRe, cIm, newOmegaSe, newSnr);
    }

    /** The same term with its sample 0 moved to a later (or, if negative, an earlier) sample. */
    DampedSinusoid movedBy(int samples) {
        double size = Math.exp(-alpha * samples);
        double re = size * Math.cos(omega * samples);
        double im = size * Math.sin(omega * samples);
        return new DampedSinusoid(omega, alpha, cRe * re - cIm * im, cRe * im + cIm * re, omegaSe, snr);
    }

    /** Adds {@code gain} times the waveform to {@code y}, whose sample {@code start} is the model's sample 0. */
    void addTo(double[] y, int start, double gain) {
        double zr = Math.exp(-alpha) * Math.cos(omega);
        double zi = Math.exp(-alpha) * Math.sin(omega);
        double re = gain * cRe;
        double im = gain * cIm;
        double end = 1e-9 * Math.hypot(re, im);
        for (int i = start; i < y.length; i++) {
            y[i] += re;
            double t = re * zr - im * zi;
            im = re * zi + im * zr;
            re = t;
            if ((i & 1023) == 0 && Math.abs(re) + Math.abs(im) < end) {
                return;
            }
        }
    }
}

package nightreed.voice.note;

/**
 * One second-order section (transposed direct form II) whose coefficients are set in place, for voices, which must not
 * allocate. Designs by the bilinear transform with the cutoff prewarped (R. Bristow-Johnson's audio formulas, 1994).
 */
public final class Section {
    private double b0 = 1;
    private double b1;
    private double b2;
    private double a1;
    private double a2;
    private double s1;
    private double s2;

    /** 12 dB per octave. @param hz held below 0.49 of the rate @param q quality, above 0 */
    public void lowPass(double hz, double q, double fs) {
        double w = angle(hz, fs);
        double c = Math.cos(w);
        set((1 - c) / 2, 1 - c, (1 - c) / 2, c, Math.sin(w) / (2 * q));
    }

    /** 12 dB per octave. */
    public void highPass(double hz, double q, double fs) {
        double w = angle(hz, fs);
        double c = Math.cos(w);
        set((1 + c) / 2, -(1 + c), (1 + c) / 2, c, Math.sin(w) / (2 * q));
    }

    /** A resonance of gain 1 at its centre, {@code widthHz} between its -3 dB points. */
    public void bandPass(double hz, double widthHz, double fs) {
        double w = angle(hz, fs);
        // the width as it is after the bilinear transform's bend: tan of half the angle between the -3 dB points
        double alpha = Math.tan(Math.PI * Math.min(widthHz, 0.45 * fs) / fs);
        double c = Math.cos(w);
        double n = 1 + alpha;
        b0 = alpha / n;
        b1 = 0;
        b2 = -alpha / n;
        a1 = -2 * c / n;
        a2 = (1 - alpha) / n;
    }

    private static double angle(double hz, double fs) {
        return 2 * Math.PI * Math.min(Math.max(hz, 1e-3), 0.49 * fs) / fs;
    }

    private void set(double n0, double n1, double n2, double c, double alpha) {
        double a0 = 1 + alpha;
        b0 = n0 / a0;
        b1 = n1 / a0;
        b2 = n2 / a0;
        a1 = -2 * c / a0;
        a2 = (1 - alpha) / a0;
    }

    public void reset() {
        s1 = 0;
        s2 = 0;
    }

    public double next(double x) {
        double y = b0 * x + s1;
        s1 = b1 * x - a1 * y + s2;
        s2 = b2 * x - a2 * y;
        return y;
    }

    /** Filters {@code x[from..to)} in place. */
    public void process(double[] x, int from, int to) {
        double t1 = s1;
        double t2 = s2;
        for (int i = from; i < to; i++) {
            double v = x[i];
            double y = b0 * v + t1;
            t1 = b1 * v - a1 * y + t2;
            t2 = b2 * v - a2 * y;
            x[i] = y;
        }
        s1 = t1;
        s2 = t2;
    }

    /** Ends a tail that has sunk into denormal numbers, which are slow on some processors. */
    public void flush() {
        if (Math.abs(s1) + Math.abs(s2) < 1e-30) {
            reset();
        }
    }

    /** |H|² at an angle [rad per sample]. */
    public double power(double w) {
        double c1 = Math.cos(w);
        double s = Math.sin(w);
        double c2 = 2 * c1 * c1 - 1;
        double d2 = 2 * s * c1;
        double nr = b0 + b1 * c1 + b2 * c2;
        double ni = b1 * s + b2 * d2;
        double dr = 1 + a1 * c1 + a2 * c2;
        double di = a1 * s + a2 * d2;
        return (nr * nr + ni * ni) / (dr * dr + di * di);
    }

    /** H at an angle [rad per sample]: real and imaginary part. Allocates. */
    public double[] response(double w) {
        double c1 = Math.cos(w);
        double s = Math.sin(w);
        double c2 = 2 * c1 * c1 - 1;
        double d2 = 2 * s * c1;
        double nr = b0 + b1 * c1 + b2 * c2;
        double ni = -b1 * s - b2 * d2;
        double dr = 1 + a1 * c1 + a2 * c2;
        double di = -a1 * s - a2 * d2;
        double size = dr * dr + di * di;
        return new double[] {(nr * dr + ni * di) / size, (ni * dr - nr * di) / size};
    }
}

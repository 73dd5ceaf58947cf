package nightreed.voice.note;

/**
 * The push of a contact: the response of two equal one-pole low-passes to one impulse, (1-a)²/(1-a/z)², so that it has no
 * zeros: a shorter contact only ever brightens. After the contact time it has fallen to a tenth of its peak.
 */
public final class ContactPulse {
    private final double fs;
    private double pole;
    private double p1;
    private double p2;
    private double impulse;
    private int left; // samples until it is over

    public ContactPulse(double sampleRateHz) {
        this.fs = sampleRateHz;
    }

    /** @param amplitude factor on a pulse whose sum is 1; 0 for none */
    public void start(double contactMs, double amplitude) {
        pole = pole(contactMs);
        p1 = 0;
        p2 = 0;
        impulse = amplitude;
        // 200 dB under its start; left over, it would only cost time
        left = amplitude == 0 ? 0 : (int) Math.min(2 * fs, 2 + 30 / -Math.log(Math.max(1e-12, pole)));
    }

    /** Pole for a contact of so many ms. */
    public double pole(double contactMs) {
        // t e^(-t/τ) reaches a tenth of its peak at t = 4.89 τ
        return Math.exp(-4.89 / (Math.max(contactMs, 0.005) / 1000 * fs));
    }

    /** What a pulse whose sum is 1 holds at a frequency, 0 to 1. */
    public double share(double contactMs, double hz) {
        double a = pole(contactMs);
        double w = 2 * Math.PI * Math.min(hz, 0.499 * fs) / fs;
        return (1 - a) * (1 - a) / (1 - 2 * a * Math.cos(w) + a * a);
    }

    /** Largest sample of a pulse whose sum is 1. */
    public double peak(double contactMs) {
        double a = pole(contactMs);
        double n = Math.max(0, -1 / Math.log(a) - 1);
        return (1 - a) * (1 - a) * (n + 1) * Math.pow(a, n);
    }

    public boolean over() {
        return left == 0;
    }

    /** Adds the next samples to {@code out[from..to)}. */
    public void add(double[] out, int from, int to) {
        double k = 1 - pole;
        int end = Math.min(to, from + left);
        for (int i = from; i < end; i++) {
            p1 = pole * p1 + k * impulse;
            p2 = pole * p2 + k * p1;
            impulse = 0;
            out[i] += p2;
        }
        left -= end - from;
    }
}

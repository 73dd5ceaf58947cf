package nightreed.voice.note;

/** Mean square of what a sound rendered lately, brought up to date once a step so that blocks do not matter. */
public final class Loudness {
    private static final double SECONDS = 0.02;
    private final double fs;
    private double sum;
    private int count;
    private double meanSquare;
    private double lastStep;

    public Loudness(double sampleRateHz) {
        this.fs = sampleRateHz;
    }

    public void start() {
        sum = 0;
        count = 0;
        meanSquare = 0;
        lastStep = 0;
    }

    /** Counts {@code x[from..to)} in. */
    public void add(double[] x, int from, int to) {
        double s = sum;
        for (int i = from; i < to; i++) {
            s += x[i] * x[i];
        }
        sum = s;
        count += to - from;
    }

    /** A step begins. */
    public void step() {
        if (count > 0) {
            lastStep = sum / count;
            meanSquare += (lastStep - meanSquare) * Math.min(1, count / (SECONDS * fs));
        }
        sum = 0;
        count = 0;
    }

    public double meanSquare() {
        return meanSquare;
    }

    /** Root of the mean square of the last step alone. */
    public double rms() {
        return Math.sqrt(lastStep);
    }
}

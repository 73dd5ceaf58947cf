package nightreed.voice.wave;

import nightreed.recipe.part.Oscillator.Wave;

/**
 * One oscillator at work. Pitch and width glide within a step. Harmonics that would lie above the band are left out, so that
 * nothing folds. One thread at a time; nothing is allocated.
 */
public final class WaveOscillator {
    private final double fs;
    private final WaveSet measured;
    private double phase;
    private double advance; // cycles per sample
    private double advanceStep;
    private double width = 0.5;
    private double widthStep;
    private double uneven;
    private final TableBlend table = new TableBlend();
    private final TableBlend unevenTable = new TableBlend();
    private Wave wave = Wave.SINE;
    private boolean fresh = true;

    /**
     * @param sampleRateHz rate it is asked at
     * @param measured     wave of the recording, null if there is none
     */
    public WaveOscillator(double sampleRateHz, WaveSet measured) {
        this.fs = sampleRateHz;
        this.measured = measured;
    }

    /** Begins. @param cycles where in the cycle */
    public void start(double cycles) {
        phase = cycles - Math.floor(cycles);
        fresh = true;
        table.start();
        unevenTable.start();
    }

    /**
     * Sets what the next {@code n} samples glide towards.
     *
     * @param hz         frequency, at least 0
     * @param topHz      no harmonic lies above it [Hz]
     * @param pulseWidth 0.01 to 0.99, for pulses
     * @param unevenness 0 to 1
     */
    public void step(Wave kind, double hz, double topHz, double pulseWidth, double unevenness, int n) {
        double target = Math.max(0, hz) / fs;
        double w = Math.max(0.01, Math.min(0.99, pulseWidth));
        if (fresh) {
            advance = target;
            width = w;
            fresh = false;
        }
        advanceStep = (target - advance) / n;
        widthStep = (w - width) / n;
        wave = kind == Wave.MEASURED && measured == null ? Wave.SAW : kind;
        uneven = wave == Wave.SINE ? 0 : unevenness;
        double most = hz > topHz ? 0 : topHz / Math.max(1e-3, hz); // below 1 even the fundamental is too high
        table.aim(
                switch (wave) {
                    case SINE -> WaveSet.sine();
                    case TRIANGLE -> WaveSet.triangle();
                    case SAW, PULSE -> WaveSet.saw();
                    case MEASURED -> measured;
                },
                most,
                n);
        if (uneven > 0) {
            unevenTable.aim(WaveSet.uneven(), most, n);
        }
    }

    /** Next samples, about -1 to 1, into {@code out[0..n)}. */
    public void render(double[] out, int n) {
        double at = phase;
        double by = advance;
        double w = width;
        boolean pulse = wave == Wave.PULSE;
        for (int i = 0; i < n; i++) {
            double y = read(at);
            if (pulse) {
                double back = at - w;
                y -= read(back < 0 ? back + 1 : back);
            }
            table.advance();
            if (uneven > 0) {
                unevenTable.advance();
            }
            out[i] = y;
            at += by;
            at -= at >= 1 ? Math.floor(at) : 0;
            by += advanceStep;
            w += widthStep;
        }
        phase = at;
        advance = by;
        width = w;
    }

    private double read(double at) {
        double y = table.read(at);
        return uneven > 0 ? y + uneven * unevenTable.read(at) : y;
    }
}

package nightreed.voice.wave;

/** A pulse whose width is moved at audio rate: the difference of two saws, one of which is moved. */
public final class WidePulse {
    private final TableBlend table = new TableBlend();

    /** Begins anew. */
    public void start() {
        table.start();
    }

    /**
     * Keeps every sideband that matters under a frequency. Harmonic n of the moved saw has sidebands as far as nI + 4
     * (nI)^(1/3) (Chowning 1973, with the bound for -70 dB).
     *
     * @param carrierHz   frequency of the pulse
     * @param modulatorHz of what moves the width
     * @param index       2π times how far, in cycles
     * @param topHz       highest frequency
     * @param samples     in which it is reached
     */
    public void limit(double carrierHz, double modulatorHz, double index, double topHz, int samples) {
        double n = topHz / Math.max(1, carrierHz + index * modulatorHz);
        for (int i = 0; i < 3; i++) {
            n = (topHz - 4 * Math.cbrt(Math.max(0, n * index)) * modulatorHz)
                    / Math.max(1, carrierHz + index * modulatorHz);
        }
        table.aim(WaveSet.saw(), Math.max(1, n), samples);
    }

    /** The next sample. @param cycles place in the cycle @param width 0 to 1, beyond that it wraps */
    public double of(double cycles, double width) {
        double back = cycles - width;
        double y = table.read(cycles - Math.floor(cycles)) - table.read(back - Math.floor(back));
        table.advance();
        return y;
    }
}

package nightreed.sound;

import nightreed.dsp.Resampler;

/** Peak between the samples, by 4-fold oversampling (ITU-R BS.1770-4, annex 2; 2-fold from 96 kHz, as it allows). */
public final class TruePeak {
    private TruePeak() {}

    /** Largest absolute value of the waveform, full scale = 1; 0 for an empty clip. */
    public static double of(Clip clip) {
        int factor = clip.sampleRateHz() >= 96_000 ? 2 : 4;
        double peak = clip.peak();
        for (int c = 0; c < clip.channelCount(); c++) {
            float[] up = Resampler.resample(clip.channel(c), clip.sampleRateHz(), factor * clip.sampleRateHz());
            for (float v : up) {
                peak = Math.max(peak, Math.abs(v));
            }
        }
        return peak;
    }

    /** {@link #of} in dB true peak; negative infinity for silence. */
    public static double db(Clip clip) {
        return 20 * Math.log10(of(clip));
    }
}

package nightreed.sound;

import java.util.ArrayList;
import java.util.List;
import nightreed.dsp.Biquad;
import nightreed.dsp.BiquadFilter;

/**
 * Loudness by ITU-R BS.1770-4: K-weighting, 400 ms blocks with 75 % overlap, gates at -70 LUFS and 10 LU under the mean.
 * The filters of the standard are given for 48 kHz; for other rates they are designed anew from the same analogue
 * prototypes (constants as in B. De Man, "Evaluation of implementations of the EBU R128 loudness measurement", 2014).
 */
public final class Loudness {
    private Loudness() {}

    /** Offset that makes a 997 Hz sine of full scale in one channel read -3.01 LKFS [dB]. */
    private static final double OFFSET_DB = -0.691;

    /**
     * Gated loudness of the whole clip, channels weighted alike (mono counts as one channel, as the standard has it).
     *
     * @return loudness [LUFS], or negative infinity if all of it is below the gate; a clip under 400 ms, for which the
     *     standard knows no gate, is measured ungated over its length
     */
    public static double integrated(Clip clip) {
        int block = (int) Math.round(0.4 * clip.sampleRateHz());
        int step = block / 4;
        double[][] weighted = weighted(clip);
        if (clip.length() < block) {
            return lufs(meanSquare(weighted, 0, clip.length()));
        }
        List<Double> powers = new ArrayList<>();
        for (int at = 0; at + block <= clip.length(); at += step) {
            powers.add(meanSquare(weighted, at, at + block));
        }
        double first = meanAbove(powers, power(-70));
        return lufs(meanAbove(powers, Math.max(power(-70), first * 0.1)));
    }

    /** Loudness of the loudest 400 ms (EBU Tech 3341, momentary), of the whole where it is shorter; negative infinity in silence. */
    public static double loudest(Clip clip) {
        int block = (int) Math.round(0.4 * clip.sampleRateHz());
        double[][] weighted = weighted(clip);
        if (clip.length() < block) {
            return lufs(meanSquare(weighted, 0, clip.length()));
        }
        double most = 0;
        for (int at = 0; at + block <= clip.length(); at += block / 40) {
            most = Math.max(most, meanSquare(weighted, at, at + block));
        }
        return lufs(most);
    }

    /**
     * K-weighted level of the samples from {@code from} to {@code to}, ungated: what recording and imitation are
     * matched by, over one common span.
     *
     * @return level [dB], or negative infinity in silence
     */
    public static double over(Clip clip, int from, int to) {
        return lufs(meanSquare(weighted(clip), Math.max(0, from), Math.min(clip.length(), to)));
    }

    /** K-weighted mean square per frame of {@code frame} samples, channels added: new array, last part frame left out. */
    public static double[] framePower(Clip clip, int frame) {
        double[][] weighted = weighted(clip);
        double[] power = new double[clip.length() / frame];
        for (int i = 0; i < power.length; i++) {
            power[i] = meanSquare(weighted, i * frame, (i + 1) * frame);
        }
        return power;
    }

    /** Power gain of the K-weighting at a frequency [Hz]: about 1 at 1 kHz, 2.5 from 4 kHz on, falling below 60 Hz. */
    public static double weighting(double frequencyHz, double sampleRateHz) {
        return shelf(sampleRateHz).powerGain(frequencyHz, sampleRateHz)
                * highPass(sampleRateHz).powerGain(frequencyHz, sampleRateHz);
    }

    private static double meanAbove(List<Double> powers, double gate) {
        return powers.stream()
                .filter(p -> p > gate)
                .mapToDouble(p -> p)
                .average()
                .orElse(0);
    }

    private static double power(double lufs) {
        return Math.pow(10, (lufs - OFFSET_DB) / 10);
    }

    private static double lufs(double meanSquare) {
        return OFFSET_DB + 10 * Math.log10(meanSquare);
    }

    private static double meanSquare(double[][] x, int from, int to) {
        double sum = 0;
        for (double[] channel : x) {
            for (int i = from; i < to; i++) {
                sum += channel[i] * channel[i];
            }
        }
        return to > from ? sum / (to - from) : 0;
    }

    private static double[][] weighted(Clip clip) {
        double[][] out = new double[clip.channelCount()][];
        Biquad shelf = shelf(clip.sampleRateHz());
        Biquad highPass = highPass(clip.sampleRateHz());
        for (int c = 0; c < out.length; c++) {
            BiquadFilter first = new BiquadFilter(shelf);
            BiquadFilter second = new BiquadFilter(highPass);
            float[] x = clip.channel(c);
            out[c] = new double[x.length];
            for (int i = 0; i < x.length; i++) {
                out[c][i] = second.next(first.next(x[i]));
            }
        }
        return out;
    }

    private static Biquad shelf(double fs) {
        double q = 0.7071752369554196;
        double k = Math.tan(Math.PI * 1681.974450955533 / fs);
        double vh = Math.pow(10, 3.999843853973347 / 20);
        double vb = Math.pow(vh, 0.4996667741545416);
        double a0 = 1 + k / q + k * k;
        return new Biquad(
                (vh + vb * k / q + k * k) / a0,
                2 * (k * k - vh) / a0,
                (vh - vb * k / q + k * k) / a0,
                2 * (k * k - 1) / a0,
                (1 - k / q + k * k) / a0);
    }

    private static Biquad highPass(double fs) {
        double q = 0.5003270373238773;
        double k = Math.tan(Math.PI * 38.13547087602444 / fs);
        double a0 = 1 + k / q + k * k;
        // the standard leaves this section's numerator at 1, -2, 1 for 48 kHz; elsewhere it is scaled to the same gain
        Biquad plain = new Biquad(1, -2, 1, 2 * (k * k - 1) / a0, (1 - k / q + k * k) / a0);
        if (fs == 48_000) {
            return plain;
        }
        double g = Math.sqrt(highPass(48_000).powerGain(997, 48_000) / plain.powerGain(997, fs));
        return new Biquad(g, -2 * g, g, plain.a1(), plain.a2());
    }
}

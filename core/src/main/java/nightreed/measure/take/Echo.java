package nightreed.measure.take;

import java.util.Arrays;
import java.util.Locale;
import nightreed.dsp.RealFft;
import nightreed.measure.partial.NoiseFloor;
import nightreed.sound.Clip;

/**
 * A repeat of the sound in the recording, read from the ripple that it puts on the logarithm of the spectrum: a peak of the
 * cepstrum at its delay (B. Bogert, M. Healy, J. Tukey, 1963).
 *
 * @param delaySeconds time from the sound to its repeat [s]
 * @param gain         amplitude of the repeat over that of the sound, 0 to 1
 * @param feedback     whether the repeat is itself repeated, and so on
 * @param side         "left" or "right" if it is heard on one side of a stereo recording, null if on both or in mono
 */
public record Echo(double delaySeconds, double gain, boolean feedback, String side) {
    /** Gain on one side over that on the other from which on it is heard on one side. */
    private static final double ONE_SIDED = 2;

    private static final double LEAST_SECONDS = 0.06;
    private static final double MOST_SECONDS = 1.6;

    /** Height of the peak over the scatter of the cepstrum, by which mere chance hardly ever makes one. */
    private static final double CLEAR = 14;

    private static final double LEAST_GAIN = 0.05;

    /** A repeat that is as loud as the sound is a further note. */
    private static final double MOST_GAIN = 0.92;

    /** Whether something that comes so long after the sound [s] is its echo, or one of those. */
    public boolean repeats(double seconds) {
        double n = Math.rint(seconds / delaySeconds);
        return n >= 1 && (n == 1 || feedback) && Math.abs(seconds - n * delaySeconds) < 0.012;
    }

    public String words() {
        return String.format(
                Locale.ROOT,
                "There is an echo in it after %.1f ms, %.0f dB down%s%s: it is no part of the instrument.",
                1000 * delaySeconds,
                -20 * Math.log10(gain),
                side == null ? "" : ", on the " + side,
                feedback ? String.format(Locale.ROOT, ", fed back by %.0f %%", 100 * gain) : "");
    }

    /** Null if there is none. */
    public static Echo find(double[] x, double fs, int onset, NoiseFloor floor) {
        int length = x.length - onset;
        if (length < 2.2 * LEAST_SECONDS * fs) {
            return null;
        }
        Cepstrum c = Cepstrum.of(x, fs, onset, floor);
        if (c == null) {
            return null;
        }
        double[] cepstrum = c.values;
        int from = (int) (LEAST_SECONDS * fs);
        int to = (int) Math.min(Math.min(cepstrum.length / 2 - 1, MOST_SECONDS * fs), 0.9 * length);
        int best = -1;
        double top = 0;
        for (int i = from; i < to; i++) {
            boolean peak = cepstrum[i] > cepstrum[i - 1] && cepstrum[i] >= cepstrum[i + 1];
            double ratio = peak && cepstrum[i] > LEAST_GAIN / 8 ? cepstrum[i] / scatter(cepstrum, i) : 0;
            if (ratio > top) {
                top = ratio;
                best = i;
            }
        }
        if (best < 0 || top < CLEAR) {
            return null;
        }
        double gain = c.gain(best);
        if (gain < LEAST_GAIN || gain > MOST_GAIN) {
            return null;
        }
        // ln(1 + g z) rises at D and dips at 2 D; ln 1/(1 - g z) rises at both
        boolean feedback = 2 * best < cepstrum.length / 2 && peak(cepstrum, 2 * best) > 0;
        return new Echo(best / fs, Math.min(1, gain), feedback, null);
    }

    /** The same echo with the side on which it is heard. */
    public Echo sided(Clip clip, int onset, NoiseFloor floor) {
        if (clip.channelCount() != 2) {
            return this;
        }
        double[] gains = new double[2];
        for (int k = 0; k < 2; k++) {
            Clip one = Clip.mono(clip.channel(k), clip.sampleRateHz());
            Cepstrum c = Cepstrum.of(one.mixed(), clip.sampleRateHz(), onset, floor);
            gains[k] = c == null ? 0 : Math.max(0, c.gain((int) Math.round(delaySeconds * clip.sampleRateHz())));
        }
        String heard = gains[0] > ONE_SIDED * gains[1] ? "left" : gains[1] > ONE_SIDED * gains[0] ? "right" : null;
        return new Echo(delaySeconds, gain, feedback, heard);
    }

    /**
     * Cepstrum of a note whose end is faded out.
     *
     * @param values by delay [samples]
     * @param pace   of the fade [nepers/sample]
     * @param heard  share of the spectrum that stands out of the background
     */
    private record Cepstrum(double[] values, double pace, double heard) {
        /** Null if next to nothing stands out of the background. */
        static Cepstrum of(double[] x, double fs, int onset, NoiseFloor floor) {
            int length = x.length - onset;
            RealFft fft = new RealFft(RealFft.powerOfTwoFrom(length));
            double[] note = Arrays.copyOfRange(x, onset, x.length);
            // a steep fall makes what comes late count less, and is itself no ripple: the end of the clip leaves no
            // edge
            double pace = Math.log(1000) / length;
            double step = Math.exp(-pace);
            double weight = 1;
            for (int i = 0; i < length; i++) {
                note[i] *= weight;
                weight *= step;
            }
            double[] power = RealFft.power(fft.forward(note));
            double[] log = new double[fft.length() + 2];
            double quiet = 0;
            for (int k = 0; k < power.length; k++) {
                // what is noise has no ripple, and its scatter would hide that of the rest
                double noise = floor.at(k * fs / fft.length()) / (2 * pace) + 1e-18;
                log[2 * k] = Math.log(power[k] + 4 * noise);
                quiet += power[k] < 4 * noise ? 1 : 0;
            }
            double heard = 1 - quiet / power.length;
            if (heard < 0.02) {
                return null;
            }
            return new Cepstrum(fft.inverse(log), pace, heard);
        }

        /** Gain of a repeat after so many samples. */
        double gain(int delay) {
            return peak(values, delay) / Math.exp(-pace * delay) / heard;
        }
    }

    /** Sum around a place: a delay between two samples spreads over its neighbours. */
    private static double peak(double[] c, int at) {
        double sum = 0;
        for (int i = -2; i <= 2; i++) {
            sum += c[at + i];
        }
        return sum;
    }

    /** Median size of the cepstrum some way to both sides of a place. */
    private static double scatter(double[] c, int at) {
        int reach = 200;
        double[] v = new double[80];
        int n = 0;
        for (int k = 0; k < 40; k++) {
            v[n++] = Math.abs(c[Math.max(0, at - 6 - k * reach / 40)]);
            v[n++] = Math.abs(c[Math.min(c.length - 1, at + 6 + k * reach / 40)]);
        }
        Arrays.sort(v);
        return v[n / 2] + 1e-12;
    }
}

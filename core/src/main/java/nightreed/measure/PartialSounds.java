package nightreed.measure;

import java.util.Arrays;
import java.util.List;
import nightreed.dsp.RealFft;
import nightreed.measure.held.HeldSound;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.Partial;
import nightreed.measure.take.Channels;
import nightreed.sound.Clip;

/**
 * Parts of a recording by themselves: a partial, all of them, or what remains without them. What dies by exponentials is
 * made from its numbers, what is held from its harmonics along the pitch, anything else is cut out of the recording around
 * its frequency.
 */
public final class PartialSounds {
    /** Half of the band that is cut out for a partial without a decay of its own, at the most [Hz]. */
    private static final double BAND_HZ = 60;

    private PartialSounds() {}

    /** The given partials as they sound in the recording; mono, as long as the recording. */
    public static Clip of(Clip clip, Measurement m, List<Partial> partials) {
        int fs = clip.sampleRateHz();
        if (m.held() != null) {
            int[] numbers = partials.stream()
                    .mapToInt(p -> (int) Math.round(p.frequencyHz() / m.held().f0Hz()))
                    .toArray();
            return Clip.mono(HeldSound.harmonics(Channels.of(clip).samples(), fs, m.held(), numbers), fs);
        }
        double[] out = new double[clip.length()];
        int onset = (int) Math.round(m.onsetSeconds() * fs);
        for (Partial p : partials) {
            if (p.t60Seconds() == null) {
                add(out, band(clip, m, p));
            } else if (p.stages() == null) {
                addStage(out, onset, p, p.amplitude(), p.t60Seconds(), fs);
            } else {
                double late = p.amplitude() * Math.pow(10, p.stages().lateLevelDb() / 20);
                addStage(out, onset, p, p.amplitude() - late, p.stages().earlyT60Seconds(), fs);
                addStage(out, onset, p, late, p.stages().lateT60Seconds(), fs);
            }
        }
        return Clip.mono(out, fs);
    }

    /** What remains of the recording without its reliable partials. */
    public static Clip rest(Clip clip, Measurement m) {
        double[] x = Channels.of(clip).samples();
        if (m.fm() != null && m.reliablePartials().size() == m.partials().size()) { // nothing is left out by hand
            double since = m.onsetSeconds() * clip.sampleRateHz();
            int first = (int) Math.ceil(since);
            double[] sounding = Arrays.copyOfRange(x, first, x.length);
            m.fm().addTo(sounding, first - since, clip.sampleRateHz(), -1);
            System.arraycopy(sounding, 0, x, first, sounding.length);
            return Clip.mono(x, clip.sampleRateHz());
        }
        float[] partials = of(clip, m, m.reliablePartials()).channel(0);
        for (int i = 0; i < x.length; i++) {
            x[i] -= partials[i];
        }
        return Clip.mono(x, clip.sampleRateHz());
    }

    private static void addStage(double[] out, int onset, Partial p, double amplitude, double t60, int fs) {
        if (onset < out.length && amplitude != 0) {
            new DampedSinusoid(
                            2 * Math.PI * p.frequencyHz() / fs,
                            Math.log(1000) / (t60 * fs),
                            amplitude * Math.cos(p.phaseRad()),
                            amplitude * Math.sin(p.phaseRad()),
                            0,
                            0)
                    .addTo(out, onset, 1);
        }
    }

    private static void add(double[] out, double[] x) {
        for (int i = 0; i < out.length; i++) {
            out[i] += x[i];
        }
    }

    /** The recording around a partial, half-way to its neighbours at the most. */
    private static double[] band(Clip clip, Measurement m, Partial p) {
        double half = BAND_HZ;
        for (Partial q : m.reliablePartials()) {
            double apart = Math.abs(q.frequencyHz() - p.frequencyHz());
            half = apart > 0.5 ? Math.min(half, 0.5 * apart) : half;
        }
        double[] x = Channels.of(clip).samples();
        RealFft fft = new RealFft(RealFft.powerOfTwoFrom(x.length));
        double[] s = fft.forward(x);
        double binHz = clip.sampleRateHz() / (double) fft.length();
        for (int k = 0; k < s.length / 2; k++) {
            double u = Math.abs(k * binHz - p.frequencyHz()) / half;
            double gain = u < 0.7 ? 1 : u < 1 ? 0.5 + 0.5 * Math.cos(Math.PI * (u - 0.7) / 0.3) : 0;
            s[2 * k] *= gain;
            s[2 * k + 1] *= gain;
        }
        return fft.inverse(s);
    }
}

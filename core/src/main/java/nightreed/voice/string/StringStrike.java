package nightreed.voice.string;

import java.util.List;
import nightreed.dsp.Noise;
import nightreed.recipe.StringRecipe.Drive;
import nightreed.recipe.part.Exciter;
import nightreed.voice.note.ContactPulse;
import nightreed.voice.note.Section;
import nightreed.voice.note.StrikeNoise;
import nightreed.voice.string.StringModes.Mode;

/**
 * How much of each partial a strike calls up: the spectrum of what goes into the loop, with its own noise and not with the mean of
 * all noises, at the loop's partials. A partial of a linear system begins at the residue of its pole, so none of it has to be
 * rendered.
 */
public final class StringStrike {
    private static final double SQRT_HALF = Math.sqrt(0.5);
    private static final double SIXTY_DB = Math.log(1000);

    /** Of the T60 of a noise, after which it adds nothing. */
    private static final double OVER = 1.2;

    private final double fs;
    private final double tunedHz;
    private final long seed;
    private final double[] w; // angle per sample of each partial
    private final double[] decay; // nepers per sample
    private final double[] scale;

    /**
     * @param tunedHz pitch of the loop [Hz]
     * @param modes   its partials
     * @param seed    of the noise in the note
     */
    public StringStrike(double fs, double tunedHz, List<Mode> modes, long seed) {
        this.fs = fs;
        this.tunedHz = tunedHz;
        this.seed = seed;
        w = modes.stream().mapToDouble(m -> 2 * Math.PI * m.hz() / fs).toArray();
        decay = modes.stream()
                .mapToDouble(m -> SIXTY_DB / (m.t60Seconds() * fs))
                .toArray();
        scale = modes.stream().mapToDouble(m -> 2 / (m.tripSeconds() * fs)).toArray();
    }

    /** Spectrum of decaying noise at the partials, before its cuts. */
    public record White(double[] re, double[] im) {}

    public White white(double t60Ms) {
        int n = (int) (OVER * t60Ms / 1000 * fs) + 1;
        double[] x = new double[n];
        Noise noise = new Noise(seed);
        double falls = SIXTY_DB / (t60Ms / 1000 * fs);
        for (int i = 0; i < n; i++) {
            x[i] = noise.white() * Math.exp(-falls * i);
        }
        White out = new White(new double[w.length], new double[w.length]);
        for (int k = 0; k < w.length; k++) {
            double grow = Math.exp(decay[k]);
            double c = grow * Math.cos(w[k]);
            double s = -grow * Math.sin(w[k]);
            double re = 1;
            double im = 0;
            for (int i = 0; i < n; i++) {
                out.re[k] += x[i] * re;
                out.im[k] += x[i] * im;
                double next = re * c - im * s;
                im = re * s + im * c;
                re = next;
            }
        }
        return out;
    }

    /**
     * Levels that the partials of a string begin at which is struck at its very end, where every partial is called up [dB].
     *
     * @param drive {@link Drive#PULSE} or {@link Drive#BURST}
     * @param white with the T60 of the exciter's noise
     */
    public double[] levels(Drive drive, Exciter e, White white) {
        double pole = StringSound.blockPole(tunedHz, fs);
        ContactPulse contact = new ContactPulse(fs);
        double a = contact.pole(e.contactMs());
        double push = drive == Drive.PULSE ? (1 - a) * (1 - a) / contact.peak(e.contactMs()) : 0;
        StrikeNoise noise = new StrikeNoise(fs);
        noise.start(e, 1, 1, 1, seed);
        double loud = noise.level();
        Section low = new Section();
        Section high = new Section();
        low.highPass(Math.min(e.noiseLowHz(), 0.45 * fs), SQRT_HALF, fs);
        high.lowPass(Math.min(e.noiseHighHz(), 0.49 * fs), SQRT_HALF, fs);
        double[] out = new double[w.length];
        for (int k = 0; k < out.length; k++) {
            double c = Math.cos(w[k]);
            double s = Math.sin(w[k]);
            // push / (1 - a/z)²
            double dr = 1 - a * c;
            double di = a * s;
            double size = dr * dr + di * di;
            double re = push * (dr * dr - di * di) / (size * size);
            double im = -push * 2 * dr * di / (size * size);
            double[] l = low.response(w[k]);
            double[] h = high.response(w[k]);
            double fr = loud * (l[0] * h[0] - l[1] * h[1]);
            double fi = loud * (l[0] * h[1] + l[1] * h[0]);
            re += fr * white.re[k] - fi * white.im[k];
            im += fr * white.im[k] + fi * white.re[k];
            double blocked = pole * pole * (2 - 2 * c) / (1 + pole * pole - 2 * pole * c);
            out[k] = 20 * Math.log10(scale[k] * Math.sqrt((re * re + im * im) * blocked) + 1e-12);
        }
        return out;
    }

    /** What it changes of them to strike or pluck the string at a share of its length [dB]. */
    public double[] comb(double pluckPoint) {
        double[] out = new double[w.length];
        if (pluckPoint <= 0) {
            return out;
        }
        double delay = Math.max(1, pluckPoint * fs / tunedHz);
        for (int k = 0; k < out.length; k++) {
            out[k] = 20 * Math.log10(2 * Math.abs(Math.sin(w[k] * delay / 2)) + 1e-3);
        }
        return out;
    }
}

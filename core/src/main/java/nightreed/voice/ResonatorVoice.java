package nightreed.voice;

import nightreed.dsp.Biquad;
import nightreed.dsp.BiquadFilter;
import nightreed.dsp.Noise;
import nightreed.recipe.Mode;
import nightreed.recipe.ResonatorRecipe;

/**
 * One struck note of a mode bank: s[n] = z s[n-1] + g x[n], output Σ Re s, with z = 10^(-3/(T60 fs)) e^(j2πf/fs).
 *
 * <p>The strike x is the response of two equal one-pole low-passes to one impulse, (1-a)²/(1-a/z)², so that it has no
 * zeros: a mode of any frequency can be given any level, and a shorter contact only ever brightens. Each g is set so that
 * the mode, once the contact is over, rings with the level and phase the recipe asks for at its own key and reference
 * velocity; other keys and velocities change the contact and with it the balance.
 *
 * <p>State in double, as the poles lie close to the unit circle. One thread at a time: whoever renders also strikes.
 */
final class ResonatorVoice {
    private static final double SILENT = 1e-7;
    private final double fs;
    private final int most = ResonatorRecipe.MOST_MODES;
    private final double[] re = new double[most];
    private final double[] im = new double[most];
    private final double[] zr = new double[most];
    private final double[] zi = new double[most];
    private final double[] gr = new double[most];
    private final double[] gi = new double[most];
    private final double[] struckLevel = new double[most]; // level [dB] that the state was struck with
    private final double[] gain = new double[most]; // glides to targetGain when a level is moved while ringing
    private final double[] targetGain = new double[most];
    private final double[] pulse;
    private final Noise noise = new Noise(1);
    private final BiquadFilter lowCut = new BiquadFilter(Biquad.highPass(100, Biquad.BUTTERWORTH_Q, 48000));
    private final BiquadFilter highCut = new BiquadFilter(Biquad.lowPass(1000, Biquad.BUTTERWORTH_Q, 48000));
    private int modes;
    private double pole; // a of the contact
    private double p1;
    private double p2;
    private double impulse;
    private boolean inContact;
    private double noiseLevel;
    private double noiseDecay;
    private int key = -1;
    private boolean held;
    private boolean sounding;
    private double fade = 1; // falls to 0 when the voice is wanted for another note
    private double fadeStep;

    /** @param largestBlock most samples that are rendered in one go */
    ResonatorVoice(double sampleRateHz, int largestBlock) {
        this.fs = sampleRateHz;
        this.pulse = new double[largestBlock];
    }

    boolean sounding() {
        return sounding;
    }

    boolean held() {
        return held;
    }

    int key() {
        return key;
    }

    /** Rough loudness now, for choosing which voice to take. */
    double energy() {
        double e = 0;
        for (int i = 0; i < modes; i++) {
            e += re[i] * re[i] + im[i] * im[i];
        }
        return e * fade;
    }

    /** Starts a note from rest. @param noteVelocity 0 to 1 @param seed chooses the noise of this strike */
    void strike(ResonatorRecipe recipe, int noteKey, double noteVelocity, long seed) {
        key = noteKey;
        held = true;
        sounding = true;
        fade = 1;
        fadeStep = 0;
        modes = 0;
        java.util.Arrays.fill(re, 0);
        java.util.Arrays.fill(im, 0);
        double transpose = noteKey - recipe.key();
        double keyFactor = Math.pow(2, transpose / 12);
        double share = recipe.keyTracking().exciterShare();
        double follow = Math.pow(keyFactor, -share);
        double reference = contactPole(recipe.exciter().contactMs());
        pole = contactPole(recipe.exciter().contactMs() * recipe.velocity().contactFactorAt(noteVelocity) * follow);
        p1 = 0;
        p2 = 0;
        impulse = 1;
        inContact = true;
        double level = amplitude(recipe.levelDb() + recipe.velocity().levelDbAt(noteVelocity));
        modes = recipe.modes().size();
        tune(recipe);
        for (int i = 0; i < modes; i++) {
            Mode m = recipe.modes().get(i);
            strikeGain(i, m, level, reference, recipe.f0Hz() * m.ratio());
            gain[i] = 1;
            targetGain[i] = 1;
            struckLevel[i] = m.levelDb() + recipe.levelDb();
        }
        startNoise(recipe, level, follow, seed);
    }

    /** Complex gain that leaves the mode with its level and phase once a contact of the reference length is over. */
    private void strikeGain(int i, Mode m, double level, double referencePole, double referenceHz) {
        double amplitude = level * amplitude(m.levelDb());
        // X(z) of the reference contact at the mode's own pole on the recipe's key
        double r = Math.exp(-Math.log(1000) / (m.t60Seconds() * fs));
        double w = 2 * Math.PI * Math.min(referenceHz, 0.499 * fs) / fs;
        double ar = 1 - referencePole / r * Math.cos(w);
        double ai = referencePole / r * Math.sin(w);
        double k = (1 - referencePole) * (1 - referencePole);
        double xr = ar * ar - ai * ai; // 1/X · k = (1 - a/z)²
        double xi = 2 * ar * ai;
        double c = Math.cos(m.phaseRad());
        double s = Math.sin(m.phaseRad());
        gr[i] = amplitude / k * (c * xr - s * xi);
        gi[i] = amplitude / k * (c * xi + s * xr);
    }

    private void startNoise(ResonatorRecipe recipe, double level, double follow, long seed) {
        noise.reseed(seed);
        lowCut.reset();
        highCut.reset();
        double low = Math.min(recipe.exciter().noiseLowHz() / follow, 0.45 * fs);
        double high = Math.min(recipe.exciter().noiseHighHz() / follow, 0.49 * fs);
        lowCut.retune(Biquad.highPass(low, Biquad.BUTTERWORTH_Q, fs));
        highCut.retune(Biquad.lowPass(high, Biquad.BUTTERWORTH_Q, fs));
        boolean on = recipe.exciter().noiseDb() > -99.5;
        noiseLevel = on ? level * amplitude(recipe.exciter().noiseDb()) * Math.sqrt(0.5 / passedPower(low, high)) : 0;
        noiseDecay = Math.exp(-Math.log(1000) / (recipe.exciter().noiseT60Ms() / 1000 * fs));
    }

    /** Part of the power of white noise that both cuts let through. */
    private double passedPower(double low, double high) {
        Biquad a = Biquad.highPass(low, Biquad.BUTTERWORTH_Q, fs);
        Biquad b = Biquad.lowPass(high, Biquad.BUTTERWORTH_Q, fs);
        double sum = 0;
        int steps = 400;
        for (int i = 0; i < steps; i++) {
            double hz = (i + 0.5) / steps * fs / 2;
            sum += a.powerGain(hz, fs) * b.powerGain(hz, fs) / steps;
        }
        return Math.max(1e-6, sum);
    }

    /** Takes over a changed recipe while ringing: frequencies and decays at once, levels in a glide. */
    void follow(ResonatorRecipe recipe) {
        int common = Math.min(modes, recipe.modes().size());
        for (int i = 0; i < modes; i++) {
            targetGain[i] =
                    i < common ? amplitude(recipe.modes().get(i).levelDb() + recipe.levelDb() - struckLevel[i]) : 0;
        }
        tune(recipe);
    }

    private void tune(ResonatorRecipe recipe) {
        double keyFactor = Math.pow(2, (key - recipe.key()) / 12.0);
        double decayFactor = Math.pow(keyFactor, -recipe.keyTracking().decayPower());
        double f0 = recipe.f0Hz() * keyFactor;
        for (int i = 0; i < Math.min(modes, recipe.modes().size()); i++) {
            Mode m = recipe.modes().get(i);
            double hz = f0 * m.ratio();
            double t60 = Math.max(0.002, m.t60Seconds() * decayFactor);
            if (!held) {
                t60 = Math.min(t60, recipe.damperT60());
            }
            // a mode above the band is left out: it would fold down to a wrong frequency
            double r = hz < 0.49 * fs ? Math.exp(-Math.log(1000) / (t60 * fs)) : 0;
            zr[i] = r * Math.cos(2 * Math.PI * hz / fs);
            zi[i] = r * Math.sin(2 * Math.PI * hz / fs);
        }
    }

    /** Key-up: the damper falls. */
    void release(ResonatorRecipe recipe) {
        held = false;
        tune(recipe);
    }

    /** Fades the voice out within {@code seconds}, for a new note that needs it. */
    void fadeOut(double seconds) {
        fadeStep = 1 / Math.max(1, seconds * fs);
    }

    /** Adds the next {@code n} samples to {@code out[from..)}. {@code n} at most the largest block. */
    void render(float[] out, int from, int n) {
        if (!sounding) {
            return;
        }
        if (inContact) {
            contact(n);
        }
        double startFade = fade;
        double endFade = Math.max(0, fade - fadeStep * n);
        double slope = (endFade - startFade) / n;
        double loudest = 0;
        for (int i = 0; i < modes; i++) {
            if (zr[i] == 0 && zi[i] == 0) {
                continue;
            }
            double g0 = gain[i];
            double g1 = targetGain[i] + (g0 - targetGain[i]) * Math.exp(-n / (0.008 * fs));
            mode(i, out, from, n, g0 * startFade, (g1 * endFade - g0 * startFade) / n);
            gain[i] = g1;
            if (Math.abs(re[i]) + Math.abs(im[i]) < 1e-30) {
                re[i] = 0; // a dead tail would end in denormals, slow on some processors
                im[i] = 0;
            }
            loudest = Math.max(loudest, Math.abs(re[i]) + Math.abs(im[i]));
        }
        if (noiseLevel > 1e-9) {
            addNoise(out, from, n, startFade, slope);
        }
        fade = endFade;
        if (!inContact && loudest < SILENT && noiseLevel <= 1e-7 || fade <= 0) {
            sounding = false;
            held = false;
        }
    }

    /** Next samples of the strike. */
    private void contact(int n) {
        double k = 1 - pole;
        double loudest = 0;
        for (int i = 0; i < n; i++) {
            p1 = pole * p1 + k * impulse;
            p2 = pole * p2 + k * p1;
            impulse = 0;
            pulse[i] = p2;
            loudest = Math.max(loudest, p2);
        }
        // 120 dB under the first sample of a sharp contact; left over, it would only cost time
        if (loudest < 1e-9 * k) {
            inContact = false;
        }
    }

    private void mode(int i, float[] out, int from, int n, double gain0, double step) {
        double r = re[i];
        double m = im[i];
        double a = zr[i];
        double b = zi[i];
        double g = gain0;
        if (inContact) {
            double cr = gr[i];
            double ci = gi[i];
            for (int t = 0; t < n; t++) {
                double next = a * r - b * m + cr * pulse[t];
                m = a * m + b * r + ci * pulse[t];
                r = next;
                out[from + t] += (float) (g * r);
                g += step;
            }
        } else {
            for (int t = 0; t < n; t++) {
                double next = a * r - b * m;
                m = a * m + b * r;
                r = next;
                out[from + t] += (float) (g * r);
                g += step;
            }
        }
        re[i] = r;
        im[i] = m;
    }

    private void addNoise(float[] out, int from, int n, double fade0, double slope) {
        double level = noiseLevel;
        for (int t = 0; t < n; t++) {
            double v = lowCut.next(highCut.next(noise.white() * level));
            out[from + t] += (float) (v * (fade0 + slope * t));
            level *= noiseDecay;
        }
        noiseLevel = level;
        lowCut.flush();
        highCut.flush();
    }

    /** Pole of the two low-passes whose response has fallen to a tenth of its peak after the contact time. */
    private double contactPole(double contactMs) {
        // t e^(-t/τ) reaches a tenth of its peak at t = 4.89 τ
        return Math.exp(-4.89 / (Math.max(contactMs, 0.005) / 1000 * fs));
    }

    private static double amplitude(double db) {
        return Math.pow(10, db / 20);
    }
}

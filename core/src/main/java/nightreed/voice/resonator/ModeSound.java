package nightreed.voice.resonator;

import nightreed.recipe.ExcitationSample;
import nightreed.recipe.Mode;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.ContactPulse;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.note.Note;
import nightreed.voice.note.Rise;
import nightreed.voice.note.StrikeNoise;
import nightreed.voice.note.VoiceModel;

/**
 * One struck note of a mode bank. Once the contact is over, mode i rings as Re(A z^n), z = 10^(-3/(T60 fs)) e^(j2πf/fs), with
 * the level and phase that the recipe asks for at its own key and reference velocity; other keys and velocities change the
 * contact, and each mode's level by what the contact holds at its frequency.
 *
 * <p>While the contact lasts, all modes come up together as the push does its work. A body that is bent by the contact without
 * ringing radiates hardly any sound; a mode that is driven by the push sample by sample would sound that bend, as a thump of up
 * to 39 dB over the ringing where the contact lasts longer than a period. So modes are driven (s[n] = z s[n-1] + g x[n]) only
 * where the push passes a filter, or where a recording drives them.
 *
 * <p>State in double, as the poles lie close to the unit circle.
 */
public final class ModeSound implements VoiceModel<ResonatorRecipe> {
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
    private final double[] gain = new double[most]; // glides to wanted when a level is moved while ringing
    private final double[] wanted = new double[most];
    private final double[] slope = new double[most]; // of the gain, within a step
    private final double[] push = new double[Note.STEP];
    private final ContactPulse contact;
    private final StrikeNoise noise;
    private final MovingFilter before;
    private final FeedPlayer feed;
    private final Rise rise;
    private final double[] rising = new double[Note.STEP];
    private final double[][] cosines = new double[most][Note.STEP];
    private final double[][] sines = new double[most][Note.STEP];
    private boolean powersReady;
    private boolean free; // neither driven nor moved: rings by itself
    private int offset; // samples rendered since the state was set, while free
    private int modes;
    private boolean filtered;
    private boolean driven; // by a push that a recording or a filter shapes
    private boolean pushed; // whether anything still drives the modes
    private double built; // share of the push that has done its work
    private double tunedHz;
    private double tunedDecay;
    private boolean damped;
    private double noiseGain = 1;
    private double loudest;
    private double lead; // samples until the filter before has died away

    /** @param feed recording that drives the modes with the strike, null for none */
    public ModeSound(double sampleRateHz, ExcitationSample feed) {
        this.fs = sampleRateHz;
        this.contact = new ContactPulse(fs);
        this.noise = new StrikeNoise(fs);
        this.before = new MovingFilter(fs);
        this.feed = new FeedPlayer(feed, fs);
        this.rise = new Rise(fs);
    }

    @Override
    public boolean drifts() {
        return false;
    }

    @Override
    public boolean followsFinely() {
        return false; // its decays go by themselves, to the sample
    }

    @Override
    public boolean stereo() {
        return false;
    }

    @Override
    public double energy() {
        double e = 0;
        for (int i = 0; i < modes; i++) {
            e += re[i] * re[i] + im[i] * im[i];
        }
        return e / 2;
    }

    @Override
    public void start(ResonatorRecipe recipe, Note note) {
        offset = 0;
        java.util.Arrays.fill(re, 0);
        java.util.Arrays.fill(im, 0);
        before.reset();
        double velocity = note.velocity();
        double follow = Math.pow(note.keyFactor(recipe), -recipe.keyTracking().exciterShare());
        double reference = contact.pole(recipe.exciter().contactMs());
        double contactMs = recipe.exciter().contactMs() * recipe.velocity().contactFactorAt(velocity) * follow;
        contact.start(contactMs, 1);
        feed.start();
        rise.start(recipe.riseMs());
        double level = amplitude(recipe.levelDb() + recipe.velocity().levelDbAt(velocity));
        modes = recipe.modes().size();
        filtered = recipe.common().before() != null;
        driven = filtered || recipe.feed() != null;
        pushed = driven;
        built = 0;
        lead = filtered ? 0.2 * fs : 0;
        tune(recipe, note);
        for (int i = 0; i < modes; i++) {
            Mode m = recipe.modes().get(i);
            if (driven) {
                strikeGain(i, m, level, reference, recipe.f0Hz() * m.ratio());
            } else {
                double reached = contact.share(contactMs, note.hz() * m.ratio())
                        / contact.share(recipe.exciter().contactMs(), recipe.f0Hz() * m.ratio());
                setRinging(i, m, level * reached);
            }
            gain[i] = 1;
            wanted[i] = 1;
            slope[i] = 0;
            struckLevel[i] = m.levelDb() + recipe.levelDb();
        }
        noise.start(recipe.exciter(), 1 / follow, 1, level, note.seed());
    }

    /** State of a mode that rings from the next sample on. */
    private void setRinging(int i, Mode m, double level) {
        double square = zr[i] * zr[i] + zi[i] * zi[i];
        if (square == 0) {
            return; // too high to sound
        }
        double a = level * amplitude(m.levelDb()) / square; // the next sample is a whole turn of z later
        double c = Math.cos(m.phaseRad());
        double s = Math.sin(m.phaseRad());
        re[i] = a * (c * zr[i] + s * zi[i]);
        im[i] = a * (s * zr[i] - c * zi[i]);
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

    @Override
    public void follow(ResonatorRecipe recipe, Note note) {
        int common = Math.min(modes, recipe.modes().size());
        for (int i = 0; i < modes; i++) {
            wanted[i] = i < common ? amplitude(recipe.modes().get(i).levelDb() + recipe.levelDb() - struckLevel[i]) : 0;
        }
        filtered = recipe.common().before() != null;
        tune(recipe, note);
    }

    private void tune(ResonatorRecipe recipe, Note note) {
        arrive();
        powersReady = false;
        free = false;
        tunedHz = note.hz();
        tunedDecay = note.factor(Target.DECAY);
        damped = !note.held();
        double decayFactor =
                Math.pow(note.keyFactor(recipe), -recipe.keyTracking().decayPower()) * tunedDecay;
        for (int i = 0; i < Math.min(modes, recipe.modes().size()); i++) {
            Mode m = recipe.modes().get(i);
            double hz = tunedHz * m.ratio();
            double t60 = Math.max(0.002, m.t60Seconds() * decayFactor);
            if (damped) {
                t60 = Math.min(t60, recipe.damperT60Seconds());
            }
            // a mode above the band is left out: it would fold down to a wrong frequency
            double r = hz < 0.49 * fs ? Math.exp(-Math.log(1000) / (t60 * fs)) : 0;
            zr[i] = r * Math.cos(2 * Math.PI * hz / fs);
            zi[i] = r * Math.sin(2 * Math.PI * hz / fs);
        }
    }

    /** The damper falls. */
    @Override
    public void release(ResonatorRecipe recipe, Note note) {
        tune(recipe, note);
    }

    @Override
    public void step(ResonatorRecipe recipe, Note note, int n) {
        arrive();
        boolean moved = note.hz() != tunedHz || note.factor(Target.DECAY) != tunedDecay;
        if (moved) {
            tune(recipe, note);
        }
        double near = Math.exp(-n / (0.008 * fs));
        boolean still = true;
        loudest = 0;
        for (int i = 0; i < modes; i++) {
            boolean there = Math.abs(wanted[i] - gain[i]) < 1e-9;
            gain[i] = there ? wanted[i] : gain[i];
            slope[i] = there ? 0 : (wanted[i] - gain[i]) * (1 - near) / n;
            still &= there;
            if (Math.abs(re[i]) + Math.abs(im[i]) < 1e-30) {
                re[i] = 0; // a dead tail would end in denormals, slow on some processors
                im[i] = 0;
            }
            loudest = Math.max(loudest, gain[i] * (Math.abs(re[i]) + Math.abs(im[i])));
        }
        noiseGain = note.gain(Target.NOISE);
        if (filtered) {
            before.step(
                    recipe.common().before(),
                    MovingFilter.cutoffHz(recipe.common().before(), recipe, note),
                    n);
        }
        pushed = driven && (!contact.over() || !feed.over() || lead > 0);
        free = !pushed && !moved && still;
        if (free && !powersReady) {
            powers();
        }
    }

    /** Moves the state on by what was rendered since it was last set. */
    private void arrive() {
        if (offset == 0) {
            return;
        }
        for (int i = 0; i < modes; i++) {
            double a = cosines[i][offset - 1];
            double b = sines[i][offset - 1];
            double r = re[i];
            re[i] = a * r - b * im[i];
            im[i] = a * im[i] + b * r;
        }
        offset = 0;
    }

    /** z to the power of 1 to a whole step, for each mode. */
    private void powers() {
        for (int i = 0; i < modes; i++) {
            double r = zr[i];
            double m = zi[i];
            for (int t = 0; t < Note.STEP; t++) {
                cosines[i][t] = r;
                sines[i][t] = m;
                double next = zr[i] * r - zi[i] * m;
                m = zr[i] * m + zi[i] * r;
                r = next;
            }
        }
        powersReady = true;
    }

    @Override
    public void render(double[] left, double[] right, int from, int to) {
        int n = to - from;
        boolean building = !driven && !contact.over();
        if (rise.over() && !building) {
            ringOrPush(left, from, n);
        } else {
            java.util.Arrays.fill(rising, 0, n, 0);
            ringOrPush(rising, 0, n);
            if (building) {
                build(n);
            }
            rise.fade(rising, n);
            for (int t = 0; t < n; t++) {
                left[from + t] += rising[t];
            }
        }
        if (!noise.over()) {
            noise.add(left, from, to, noiseGain);
        }
    }

    /** Lets the modes come up with the contact. */
    private void build(int n) {
        java.util.Arrays.fill(push, 0, n, 0);
        contact.add(push, 0, n);
        for (int t = 0; t < n; t++) {
            built += push[t];
            rising[t] *= built;
        }
    }

    private void ringOrPush(double[] out, int from, int n) {
        if (free) {
            ring(out, from, n);
        } else {
            push(out, from, n);
        }
    }

    /**
     * Modes left to themselves: Re(s z^t) from the powers of z, where no sample waits for the one before and the processor
     * can do several at once.
     */
    private void ring(double[] out, int from, int n) {
        int i = 0;
        if (from == 0 && offset == 0) { // as nearly always
            for (; i + 1 < modes; i += 2) {
                pair(
                        out,
                        n,
                        cosines[i],
                        sines[i],
                        gain[i] * re[i],
                        -gain[i] * im[i],
                        cosines[i + 1],
                        sines[i + 1],
                        gain[i + 1] * re[i + 1],
                        -gain[i + 1] * im[i + 1]);
            }
        }
        for (; i + 1 < modes; i += 2) { // the same sums in the same order
            double a0 = gain[i] * re[i];
            double b0 = -gain[i] * im[i];
            double a1 = gain[i + 1] * re[i + 1];
            double b1 = -gain[i + 1] * im[i + 1];
            for (int t = 0; t < n; t++) {
                int at = offset + t;
                out[from + t] +=
                        (a0 * cosines[i][at] + b0 * sines[i][at]) + (a1 * cosines[i + 1][at] + b1 * sines[i + 1][at]);
            }
        }
        if (i < modes) {
            double a = gain[i] * re[i];
            double b = -gain[i] * im[i];
            for (int t = 0; t < n; t++) {
                out[from + t] += a * cosines[i][offset + t] + b * sines[i][offset + t];
            }
        }
        offset += n;
    }

    /** A plain loop over arrays that all begin at 0, which the compiler turns into vectors; with offsets it would not. */
    private static void pair(
            double[] out,
            int n,
            double[] c0,
            double[] s0,
            double a0,
            double b0,
            double[] c1,
            double[] s1,
            double a1,
            double b1) {
        for (int t = 0; t < n; t++) {
            out[t] += (a0 * c0[t] + b0 * s0[t]) + (a1 * c1[t] + b1 * s1[t]);
        }
    }

    /** Modes that are driven or moved: sample after sample. */
    private void push(double[] out, int from, int n) {
        if (pushed) {
            java.util.Arrays.fill(push, 0, n, 0);
            contact.add(push, 0, n);
            feed.add(push, 0, n);
            if (filtered) {
                before.process(push, 0, n);
                lead -= n;
            }
        }
        for (int i = 0; i < modes; i++) {
            if (zr[i] == 0 && zi[i] == 0) {
                continue;
            }
            if (pushed) {
                drive(i, out, from, n);
            } else {
                one(i, out, from, n);
            }
        }
    }

    private void drive(int i, double[] out, int from, int n) {
        double r = re[i];
        double m = im[i];
        double a = zr[i];
        double b = zi[i];
        double g = gain[i];
        double step = slope[i];
        double cr = gr[i];
        double ci = gi[i];
        for (int t = 0; t < n; t++) {
            double next = a * r - b * m + cr * push[t];
            m = a * m + b * r + ci * push[t];
            r = next;
            out[from + t] += g * r;
            g += step;
        }
        re[i] = r;
        im[i] = m;
        gain[i] = g;
    }

    private void one(int i, double[] out, int from, int n) {
        double r = re[i];
        double m = im[i];
        double a = zr[i];
        double b = zi[i];
        double g = gain[i];
        double step = slope[i];
        for (int t = 0; t < n; t++) {
            double next = a * r - b * m;
            m = a * m + b * r;
            r = next;
            out[from + t] += g * r;
            g += step;
        }
        re[i] = r;
        im[i] = m;
        gain[i] = g;
    }

    @Override
    public boolean over() {
        return !pushed && loudest < SILENT && noise.level() <= SILENT;
    }

    private static double amplitude(double db) {
        return Math.pow(10, db / 20);
    }
}

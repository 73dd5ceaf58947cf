package nightreed.voice.string;

import nightreed.recipe.Bow;
import nightreed.recipe.SecondString;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.StringRecipe.Drive;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.ContactPulse;
import nightreed.voice.note.Loudness;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.note.Note;
import nightreed.voice.note.StrikeNoise;
import nightreed.voice.note.VoiceModel;

/**
 * One note of a string: what drives it, through the comb of the pluck point, into one loop or two that meet at a bridge; or
 * a bow that sticks and slips between two parts of the string.
 */
public final class StringSound implements VoiceModel<StringRecipe> {
    /** Below this everything is silence. */
    private static final double SILENT = 1e-7;

    /** Key-up: time in which damper and bow take effect [s]. */
    private static final double LET_GO_SECONDS = 0.012;

    private final double fs;
    private final LoopDesign design;
    private final LoopDesign otherDesign;
    private final StringLoop loop;
    private final StringLoop other;
    private final BowedString bowed;
    private final ContactPulse pulse;
    private final StrikeNoise noise;
    private final MovingFilter before;
    private final BowNoiseEnvelope strokes = new BowNoiseEnvelope();
    private final double[] drive = new double[Note.STEP];
    private final double[] part = new double[Note.STEP];
    private final double[] round = new double[Note.STEP];
    private final double[] otherRound = new double[Note.STEP];
    private final double[] comb;
    private final int combMask;
    private int combAt;
    private double combDelay; // samples, 0 for none
    private int quietComb; // samples since its line was last fed anything
    private double blocked; // state of what keeps 0 Hz out of the loop
    private double blockedIn;
    private double blockPole;
    private Drive kind = Drive.PULSE;
    private boolean two;
    private double coupling;
    private double otherLevel;
    private double level;
    private double tunedHz;
    private double extra = 1;
    private double extraStep;
    private double sign = 1;
    private double amplitude = 1;
    private double amplitudeStep;
    private final double[] hair = new double[Note.STEP]; // noise of the bow
    private double bowGain; // of the bow's noise, gliding
    private double bowGainStep;
    private double speed; // of the bow
    private double force;
    private final Loudness loudness;
    private boolean idle; // nothing goes into the loop, nor is on its way
    private boolean filtered;
    private boolean driven; // whether anything still goes into the loop
    private boolean ended;
    private double quiet; // how long nothing was heard [samples]

    public StringSound(double sampleRateHz) {
        this.fs = sampleRateHz;
        loudness = new Loudness(sampleRateHz);
        int longest = (int) (fs / 6); // half a semitone below key 0, bent down
        design = new LoopDesign(fs);
        otherDesign = new LoopDesign(fs);
        loop = new StringLoop(longest);
        other = new StringLoop(longest);
        bowed = new BowedString(longest, fs);
        pulse = new ContactPulse(fs);
        noise = new StrikeNoise(fs);
        before = new MovingFilter(fs);
        comb = new double[Integer.highestOneBit(longest + 8) << 1];
        combMask = comb.length - 1;
    }

    @Override
    public void start(StringRecipe r, Note note) {
        loop.clear();
        other.clear();
        before.reset();
        java.util.Arrays.fill(comb, 0);
        blocked = 0;
        blockedIn = 0;
        extra = 1;
        loudness.start();
        quiet = 0;
        quietComb = 0;
        ended = false;
        driven = true;
        double velocity = note.velocity();
        level = Math.pow(10, (r.levelDb() + r.velocity().levelDbAt(velocity)) / 20);
        follow(r, note);
        double follow = Math.pow(note.keyFactor(r), r.keyTracking().exciterShare());
        double bright = r.velocity().brightnessAt(velocity);
        Exciter e = r.exciter();
        double contactMs = e.contactMs() / bright / follow;
        double plucked = kind == Drive.PULSE
                ? 1
                : kind == Drive.ZIGZAG && r.bow() != null ? r.bow().pluck() : 0;
        pulse.start(contactMs, plucked * level / pulse.peak(contactMs));
        // a burst is what the string is filled with, and as loud as a pulse would be
        noise.start(e, follow, bright, level, note.seed());
        if (kind == Drive.ZIGZAG || kind == Drive.FRICTION) {
            noise.sustain(e.noiseLowHz() * follow, e.noiseHighHz() * follow * bright, 1, note.seed());
        }
        if (kind == Drive.FRICTION) {
            bowed.start(design, r.pluckPoint());
        }
        strokes.start(note.seed());
        bowGain = 0;
        speed = 0;
        force = 0;
        amplitude = r.amplitude() == null ? 1 : note.course(r.amplitude(), 1);
    }

    @Override
    public void follow(StringRecipe r, Note note) {
        kind = r.drive();
        sign = r.inverted() ? -1 : 1;
        double t60Factor = Math.pow(note.keyFactor(r), -r.keyTracking().decayPower());
        tunedHz = note.hz();
        design.solve(tunedHz, r.loss(), t60Factor, r.stiffness(), r.inverted());
        loop.take(design);
        SecondString s = r.second();
        two = s != null && kind != Drive.FRICTION;
        if (two) {
            coupling = 1 - Math.pow(10, -s.couplingDb() / 20);
            otherLevel = Math.pow(10, s.levelDb() / 20);
            otherDesign.solve(otherHz(r), r.loss(), t60Factor, r.stiffness(), r.inverted());
            other.take(otherDesign);
        }
        double period = fs / tunedHz;
        combDelay = r.pluckPoint() <= 0 ? 0 : Math.max(1, Math.min(r.pluckPoint() * period, comb.length - 6.0));
        blockPole = blockPole(tunedHz, fs);
        filtered = r.common().before() != null;
        if (kind == Drive.FRICTION) {
            bowed.take(design, r.pluckPoint());
        }
    }

    /** Of what keeps 0 Hz out of a loop. */
    static double blockPole(double tunedHz, double fs) {
        return Math.exp(-2 * Math.PI * 0.2 * tunedHz / fs);
    }

    private double otherHz(StringRecipe r) {
        return tunedHz * Math.pow(2, r.second().detuneCents() / 1200);
    }

    @Override
    public void release(StringRecipe r, Note note) {
        quiet = 0;
    }

    @Override
    public void step(StringRecipe r, Note note, int n) {
        loudness.step();
        quiet = loudness.rms() < SILENT ? quiet + n : 0;
        if (Math.abs(note.hz() / tunedHz - 1) > 1e-9) {
            tunedHz = note.hz();
            design.tune(tunedHz);
            loop.retune(design);
            if (two) {
                otherDesign.tune(otherHz(r));
                other.retune(otherDesign);
            }
            if (kind == Drive.FRICTION) {
                bowed.take(design, r.pluckPoint());
            }
            combDelay =
                    r.pluckPoint() <= 0 ? 0 : Math.max(1, Math.min(r.pluckPoint() * fs / tunedHz, comb.length - 6.0));
        }
        decay(r, note, n);
        double target = r.amplitude() == null ? 1 : note.course(r.amplitude(), 1);
        amplitudeStep = (target - amplitude) / n;
        ended = r.amplitude() != null && note.ended(r.amplitude(), 1);
        if (filtered) {
            before.step(r.common().before(), MovingFilter.cutoffHz(r.common().before(), r, note), n);
        }
        bow(r, note, n);
        boolean bowing = kind == Drive.ZIGZAG || kind == Drive.FRICTION;
        driven = !pulse.over() || speed > 0 || (bowing ? bowGain > 1e-9 || note.held() : !noise.over());
        idle = !driven && combQuiet();
        loop.flush();
        other.flush();
        bowed.flush();
    }

    /** What the damper and the envelope of the decay make of the loop's gain. */
    private void decay(StringRecipe r, Note note, int n) {
        double octaves = note.added(Target.DECAY)
                + (r.gainEnvelope() == null ? 0 : r.gainOctaves() * note.course(r.gainEnvelope(), 1));
        if (octaves == 0 && note.held() && extra == 1) {
            extraStep = 0;
            return;
        }
        double target = 1;
        if (octaves != 0 || !note.held()) {
            double t60 = design.reachedT60(1) * Math.pow(2, octaves);
            target = design.extraGain(note.held() ? t60 : Math.min(t60, r.damperT60Seconds()));
        }
        double near = Math.exp(-n / (LET_GO_SECONDS / 3 * fs));
        extraStep = (target + (extra - target) * near - extra) / n;
    }

    private void bow(StringRecipe r, Note note, int n) {
        if (kind != Drive.ZIGZAG && kind != Drive.FRICTION) {
            return;
        }
        Bow b = r.bow() == null ? Bow.USUAL : r.bow();
        double on = note.held() ? Math.min(1, note.time() / b.attackSeconds()) : 0;
        if (kind == Drive.ZIGZAG) {
            // noise in a loop of gain g grows by -10 log10(1 - g²) dB
            double g = design.reachedGain(1);
            double gain = on
                    * strokes.next(b, n / fs)
                    * level
                    * Math.pow(10, b.noiseDb() / 20)
                    * Math.sqrt(Math.max(1e-9, 1 - g * g))
                    * note.gain(Target.NOISE);
            double near = Math.exp(-n / (LET_GO_SECONDS / 3 * fs));
            bowGainStep = (gain + (bowGain - gain) * near - bowGain) / n;
        } else {
            double near = Math.exp(-n / (LET_GO_SECONDS * fs));
            double wanted = on * b.speed() * Math.pow(2, r.velocity().levelDbAt(note.velocity()) / 20);
            speed = wanted + (speed - wanted) * near;
            force = note.held() ? b.force() : force * near;
            if (!note.held() && speed < 1e-4) {
                speed = 0;
                force = 0;
            }
            // heard beside the string and not fed into it, so that how it slips is no matter of chance
            double hiss = Math.pow(10, b.noiseDb() / 20) * speed / Bow.USUAL.speed() * note.gain(Target.NOISE);
            bowGainStep = (hiss - bowGain) / n;
        }
    }

    @Override
    public void render(double[] left, double[] right, int from, int to) {
        int n = to - from;
        drive(n);
        int done = 0;
        while (done < n) { // what comes round within so many samples does not depend on what they become
            int some = Math.min(n - done, room());
            System.arraycopy(drive, done, part, 0, some);
            if (kind == Drive.FRICTION) {
                bowed.render(part, some, speed, force, sign, extra, extraStep);
                extra += some * extraStep;
                for (int i = 0; i < some; i++) {
                    part[i] = level * (part[i] + hair[done + i]);
                }
            } else if (two) {
                pair(some);
            } else {
                single(some);
            }
            loudness.add(part, 0, some);
            double a = amplitude;
            for (int i = 0; i < some; i++) {
                left[from + done + i] += part[i] * a;
                a += amplitudeStep;
            }
            amplitude = a;
            done += some;
        }
    }

    private int room() {
        if (kind == Drive.FRICTION) {
            return bowed.room();
        }
        return two ? Math.min(loop.room(), other.room()) : loop.room();
    }

    /** One loop; what goes in is replaced by what is heard. */
    private void single(int n) {
        loop.pull(round, n);
        double e = extra;
        for (int i = 0; i < n; i++) {
            part[i] += sign * e * round[i];
            e += extraStep;
        }
        extra = e;
        loop.push(part, n);
    }

    /** Two loops that lose together at the bridge. */
    private void pair(int n) {
        loop.pull(round, n);
        other.pull(otherRound, n);
        for (int i = 0; i < n; i++) {
            double a = sign * extra * round[i];
            double b = sign * extra * otherRound[i];
            double common = coupling * 0.5 * (a + b);
            double x = part[i];
            round[i] = a - common + x;
            otherRound[i] = b - common + otherLevel * x;
            part[i] = a + b + (1 + otherLevel) * x;
            extra += extraStep;
        }
        loop.push(round, n);
        other.push(otherRound, n);
    }

    /** Next samples of what goes into the loop. */
    private void drive(int n) {
        java.util.Arrays.fill(drive, 0, n, 0);
        if (kind == Drive.FRICTION) {
            hair(n);
            return;
        }
        if (idle) {
            return;
        }
        if (kind == Drive.PULSE || kind == Drive.ZIGZAG) {
            pulse.add(drive, 0, n);
        }
        if (kind == Drive.ZIGZAG) {
            hair(n);
            for (int i = 0; i < n; i++) {
                drive[i] += hair[i];
            }
        } else {
            noise.add(drive, 0, n, 1);
        }
        if (filtered) {
            before.process(drive, 0, n);
        }
        for (int i = 0; i < n; i++) {
            double x = drive[i];
            blocked = blockPole * (blocked + x - blockedIn);
            blockedIn = x;
            drive[i] = combDelay > 0 ? combed(blocked) : blocked;
        }
    }

    /** Next samples of the bow's noise. */
    private void hair(int n) {
        java.util.Arrays.fill(hair, 0, n, 0);
        if (bowGain == 0 && bowGainStep == 0) {
            return;
        }
        noise.add(hair, 0, n, 1);
        for (int i = 0; i < n; i++) {
            hair[i] *= bowGain;
            bowGain += bowGainStep;
        }
    }

    /** Whether nothing is left on its way through the comb. */
    private boolean combQuiet() {
        return Math.abs(blocked) < 1e-12 && (combDelay == 0 || quietComb > combDelay + 4);
    }

    /** 1 - z^(-βN), the fraction by Lagrange's polynomial of third order. */
    private double combed(double x) {
        comb[combAt] = x;
        quietComb = Math.abs(x) < 1e-12 ? quietComb + 1 : 0;
        int whole = (int) combDelay;
        double d = combDelay - whole;
        double m1 = comb[(combAt - whole + 1) & combMask];
        double p0 = comb[(combAt - whole) & combMask];
        double p1 = comb[(combAt - whole - 1) & combMask];
        double p2 = comb[(combAt - whole - 2) & combMask];
        combAt = (combAt + 1) & combMask;
        double back = -d * (d - 1) * (d - 2) / 6 * m1
                + (d + 1) * (d - 1) * (d - 2) / 2 * p0
                - (d + 1) * d * (d - 2) / 2 * p1
                + (d + 1) * d * (d - 1) / 6 * p2;
        return x - back;
    }

    @Override
    public boolean followsFinely() {
        return kind != Drive.FRICTION && kind != Drive.ZIGZAG; // a bow takes many periods to catch the string
    }

    @Override
    public boolean stereo() {
        return false;
    }

    @Override
    public double energy() {
        return loudness.meanSquare();
    }

    @Override
    public boolean over() {
        return ended || !driven && quiet > fs / Math.max(4, tunedHz) * 2 + 64;
    }
}

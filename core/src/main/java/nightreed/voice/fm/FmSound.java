package nightreed.voice.fm;

import nightreed.dsp.HalfBand;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.Loudness;
import nightreed.voice.note.Note;
import nightreed.voice.note.StrikeNoise;
import nightreed.voice.note.VoiceModel;
import nightreed.voice.wave.Sine;
import nightreed.voice.wave.WidePulse;

/**
 * One note of up to three pairs, computed at 1, 2, 4 or 8 times the rate: as often as the highest sideband that matters asks
 * for, chosen when the note begins. Where even that is not enough the index is held back.
 */
public final class FmSound implements VoiceModel<FmRecipe> {
    private static final int MOST_TIMES = 8;
    private static final double SILENT = 1e-7;

    private final double fs;
    private final Pair[] pairs = new Pair[FmRecipe.MOST_PAIRS];
    private final StrikeNoise noise;
    private final HalfBand[] downLeft = {HalfBand.steep(), HalfBand.wide(), HalfBand.wide()};
    private final HalfBand[] downRight = {HalfBand.steep(), HalfBand.wide(), HalfBand.wide()};
    private final double[] left = new double[Note.STEP * MOST_TIMES];
    private final double[] right = new double[Note.STEP * MOST_TIMES];
    private final Pair[] fedBack = new Pair[FmRecipe.MOST_PAIRS];
    private final Pair idle = new Pair();
    private int times = 1;
    private int count;
    private boolean stereo;
    private double noiseGain = 1;
    private double level;
    private double pace; // factor on the times of the envelopes
    private boolean over;
    private final Loudness loudness;

    public FmSound(double sampleRateHz) {
        fs = sampleRateHz;
        loudness = new Loudness(sampleRateHz);
        noise = new StrikeNoise(fs);
        for (int i = 0; i < pairs.length; i++) {
            pairs[i] = new Pair();
        }
    }

    /** What one pair needs from sample to sample. */
    private static final class Pair {
        private final WidePulse pulse = new WidePulse();
        private final double[] wave = new double[Note.STEP * MOST_TIMES];
        private double carrier; // cycles
        private double modulator;
        private double carrierAdvance;
        private double modulatorAdvance;
        private double carrierStep;
        private double modulatorStep;
        private double index; // cycles
        private double indexStep;
        private double amplitude;
        private double amplitudeStep;
        private double feedback; // cycles
        private double m1; // modulator's last two samples
        private double m2;
        private double chain; // how far it bends the pair before it, along its amplitude [cycles]; 0 if it is heard
        private double[] bentBy; // by the pair behind it, null for none
        private boolean isPulse;
        private double width;
        private double panLeft;
        private double panRight;

        /** What the modulator has left in {@link #wave} becomes the pair, and is added. */
        void render(double[] left, double[] right, int n, boolean stereo) {
            double c = carrier;
            double by = carrierAdvance;
            double now = index;
            double[] bent = bentBy;
            for (int i = 0; i < n; i++) {
                double at = bent == null ? c : c + bent[i];
                wave[i] = isPulse ? pulse.of(at, width + now * wave[i]) : at + now * wave[i];
                c += by;
                by += carrierStep;
                now += indexStep;
            }
            if (!isPulse) {
                Sine.all(wave, n);
            }
            carrier = c;
            carrierAdvance = by;
            index = now;
            double a = amplitude;
            if (chain > 0) {
                for (int i = 0; i < n; i++) {
                    wave[i] *= a;
                    a += amplitudeStep;
                }
                amplitude = a;
                return;
            }
            for (int i = 0; i < n; i++) {
                double y = a * wave[i];
                left[i] += stereo ? panLeft * y : y;
                if (stereo) {
                    right[i] += panRight * y;
                }
                a += amplitudeStep;
            }
            amplitude = a;
        }

        /** Where the modulator is from sample to sample [cycles]; its sine where it is not fed back. */
        private void turn(int n) {
            double m = modulator;
            double by = modulatorAdvance;
            for (int i = 0; i < n; i++) {
                wave[i] = m;
                m += by;
                by += modulatorStep;
            }
            modulator = m;
            modulatorAdvance = by;
            if (feedback == 0) {
                Sine.all(wave, n);
                remember(n);
            }
        }

        private void remember(int n) {
            if (n > 0) {
                m2 = n > 1 ? wave[n - 2] : m1;
                m1 = wave[n - 1];
            }
        }
    }

    /** What all modulators do: where they are not fed back no sample waits for the last, and where they are no pair for another. */
    private void modulate(int n) {
        int fed = 0;
        for (int i = 0; i < count; i++) {
            pairs[i].turn(n);
            if (pairs[i].feedback != 0) {
                fedBack[fed++] = pairs[i];
            }
        }
        if (fed == 1) {
            bend(fedBack[0], n);
        } else if (fed > 1) {
            bend(fedBack[0], fedBack[1], fed > 2 ? fedBack[2] : idle, n);
        }
    }

    private static void bend(Pair p, int n) {
        double[] wave = p.wave;
        double fed = 0.5 * p.feedback;
        double before = p.m1;
        double older = p.m2;
        for (int i = 0; i < n; i++) {
            double y = Sine.of(wave[i] + fed * (before + older));
            older = before;
            before = y;
            wave[i] = y;
        }
        p.remember(n);
    }

    /** Three at once take hardly longer than one, each sample of which waits for the one before. */
    private static void bend(Pair p, Pair q, Pair r, int n) {
        double fedP = 0.5 * p.feedback;
        double fedQ = 0.5 * q.feedback;
        double fedR = 0.5 * r.feedback;
        double p1 = p.m1;
        double p2 = p.m2;
        double q1 = q.m1;
        double q2 = q.m2;
        double r1 = r.m1;
        double r2 = r.m2;
        for (int i = 0; i < n; i++) {
            double x = Sine.of(p.wave[i] + fedP * (p1 + p2));
            double y = Sine.of(q.wave[i] + fedQ * (q1 + q2));
            double z = Sine.of(r.wave[i] + fedR * (r1 + r2));
            p2 = p1;
            q2 = q1;
            r2 = r1;
            p1 = x;
            q1 = y;
            r1 = z;
            p.wave[i] = x;
            q.wave[i] = y;
            r.wave[i] = z;
        }
        p.remember(n);
        q.remember(n);
        r.remember(n);
    }

    @Override
    public void start(FmRecipe r, Note note) {
        level = Math.pow(10, (r.levelDb() + r.velocity().levelDbAt(note.velocity())) / 20);
        pace = Math.pow(note.keyFactor(r), -r.decayPower());
        over = false;
        loudness.start();
        for (int i = 0; i < downLeft.length; i++) {
            downLeft[i].reset();
            downRight[i].reset();
        }
        double brighter = r.velocity().brightnessAt(note.velocity()) * note.factor(Target.INDEX);
        times = times(r, note.hz(), brighter, fs);
        follow(r, note);
        for (int i = 0; i < r.pairs().size(); i++) {
            FmPair p = r.pairs().get(i);
            Pair s = pairs[i];
            double chance = p.free() ? 0.5 + 0.5 * note.chance(10 + i) : 0;
            s.carrier = p.carrierPhaseRad() / (2 * Math.PI) + chance;
            s.modulator = p.modulatorPhaseRad() / (2 * Math.PI) + (p.free() ? 0.5 + 0.5 * note.chance(20 + i) : 0);
            s.m1 = 0;
            s.m2 = 0;
            s.pulse.start();
            aim(s, p, r, note, 1);
            s.carrierAdvance += s.carrierStep;
            s.modulatorAdvance += s.modulatorStep;
            s.index += s.indexStep;
            s.amplitude += s.amplitudeStep;
        }
        noise.silence();
        if (r.exciter() != null && note.age() == 0) {
            noise.start(r.exciter(), 1, r.velocity().brightnessAt(note.velocity()), level, note.seed());
        }
    }

    /**
     * How many times the sample rate a note is computed at: 1, 2, 4 or 8.
     *
     * @param hz       of the note
     * @param brighter factor on the indexes
     * @param fs       sample rate [Hz]
     */
    public static int times(FmRecipe r, double hz, double brighter, double fs) {
        double top = 0;
        double chained = 0; // top of the pair before
        for (int i = 0; i < r.pairs().size(); i++) { // an iterator would be garbage while notes sound
            FmPair p = r.pairs().get(i);
            double most = index(p, r, hz) * brighter * (p.kind() == FmPair.Kind.PULSE_WIDTH ? 4 : 1);
            double own = Sidebands.topHz(hz * p.carrierRatio(), hz * p.modulatorRatio(), most + p.feedback());
            if (i > 0 && p.chainRad() > 0) { // its sidebands are modulators of the pair before
                own = Sidebands.topHz(chained, own, p.chainRad() * brighter);
            }
            chained = own;
            top = Math.max(top, own);
            top = Math.max(top, p.feedback() > 0.3 || p.kind() == FmPair.Kind.PULSE_WIDTH ? 1.2 * fs : 0);
        }
        return top < 0.49 * fs ? 1 : top < 1.4 * fs ? 2 : top < 3.4 * fs ? 4 : MOST_TIMES;
    }

    /** Index on a key [rad]. */
    private static double index(FmPair p, FmRecipe r, double hz) {
        return p.index() * (p.tracking() ? 1 : r.f0Hz() / hz);
    }

    /** Index at the top of its envelope [rad]. */
    private static double index(FmPair p, FmRecipe r, Note note) {
        return index(p, r, note.hz()) * r.velocity().brightnessAt(note.velocity()) * note.factor(Target.INDEX);
    }

    @Override
    public void follow(FmRecipe r, Note note) {
        count = r.pairs().size();
        stereo = false;
        for (int i = 0; i < count; i++) {
            stereo |= r.pairs().get(i).pan() != 0;
            boolean bends = i > 0 && r.pairs().get(i).chainRad() > 0;
            pairs[i].chain = bends ? r.pairs().get(i).chainRad() / (2 * Math.PI) : 0;
            if (i > 0) {
                pairs[i - 1].bentBy = bends ? pairs[i].wave : null;
            }
            pairs[i].bentBy = null;
        }
    }

    @Override
    public void release(FmRecipe r, Note note) {
        over = false;
    }

    @Override
    public void step(FmRecipe r, Note note, int n) {
        loudness.step();
        for (int i = 0; i < downLeft.length; i++) {
            downLeft[i].flush();
            downRight[i].flush();
        }
        over = r.exciter() == null || noise.level() < SILENT;
        for (int i = 0; i < count; i++) {
            FmPair p = r.pairs().get(i);
            aim(pairs[i], p, r, note, n * times);
            over &= note.ended(p.amplitude(), pace) && pairs[i].amplitude < SILENT;
        }
        noiseGain = note.gain(Target.NOISE);
    }

    private void aim(Pair s, FmPair p, FmRecipe r, Note note, int n) {
        s.carrier -= Math.floor(s.carrier); // here, so that blocks of any size give the same samples
        s.modulator -= Math.floor(s.modulator);
        double rate = fs * times;
        double c = note.hz() * p.carrierRatio();
        double m = note.hz() * p.modulatorRatio() * Math.pow(2, note.added(Target.INTERVAL) / 1200);
        double wanted = index(p, r, note) * note.course(p.bend(), pace);
        double top = (times == 1 ? 0.49 : times - 0.55) * fs;
        s.isPulse = p.kind() == FmPair.Kind.PULSE_WIDTH;
        double held = s.isPulse ? Math.min(wanted, Math.PI) : Sidebands.heldIndex(c, m, wanted, top);
        s.carrierStep = (c / rate - s.carrierAdvance) / n;
        s.modulatorStep = (m / rate - s.modulatorAdvance) / n;
        s.indexStep = (held / (2 * Math.PI) - s.index) / n;
        s.feedback = p.feedback() / (2 * Math.PI);
        s.width = Math.max(0.02, Math.min(0.98, p.width() + note.added(Target.WIDTH)));
        if (s.isPulse) {
            s.pulse.limit(c, m, held, top, n);
        }
        boolean on = p.levelDb() > FmPair.OFF_DB && c < (s.isPulse ? 0.3 : 0.49) * fs * (times == 1 ? 1 : times - 0.5);
        double harder = r.velocity().brightnessAt(note.velocity()) * note.factor(Target.INDEX);
        double loud = s.chain > 0 ? s.chain * harder : level * Math.pow(10, p.levelDb() / 20);
        double target = on ? loud * note.course(p.amplitude(), pace) : 0;
        s.amplitudeStep = (target - s.amplitude) / n;
        double angle = (p.pan() + 1) * Math.PI / 4;
        s.panLeft = Math.sqrt(2) * Math.cos(angle);
        s.panRight = Math.sqrt(2) * Math.sin(angle);
    }

    @Override
    public void render(double[] outLeft, double[] outRight, int from, int to) {
        int n = to - from;
        int many = n * times;
        java.util.Arrays.fill(left, 0, many, 0);
        if (stereo) {
            java.util.Arrays.fill(right, 0, many, 0);
        }
        modulate(many);
        for (int i = count - 1; i >= 0; i--) { // the last of a chain bends the others
            pairs[i].render(left, right, many, stereo);
        }
        down(left, downLeft, n);
        for (int i = 0; i < n; i++) {
            outLeft[from + i] += left[i];
        }
        loudness.add(left, 0, n);
        if (stereo) {
            down(right, downRight, n);
            for (int i = 0; i < n; i++) {
                outRight[from + i] += right[i];
            }
        }
        if (!noise.over()) {
            java.util.Arrays.fill(left, 0, n, 0);
            noise.add(left, 0, n, noiseGain);
            for (int i = 0; i < n; i++) {
                outLeft[from + i] += left[i];
                if (stereo) {
                    outRight[from + i] += left[i];
                }
            }
        }
    }

    private void down(double[] x, HalfBand[] filters, int n) {
        for (int k = times; k > 1; k /= 2) {
            filters[k == 2 ? 0 : k == 4 ? 1 : 2].down(x, x, n * k / 2);
        }
    }

    @Override
    public boolean stereo() {
        return stereo;
    }

    @Override
    public boolean goesOn() {
        return true;
    }

    @Override
    public double energy() {
        return loudness.meanSquare();
    }

    @Override
    public boolean over() {
        return over;
    }
}

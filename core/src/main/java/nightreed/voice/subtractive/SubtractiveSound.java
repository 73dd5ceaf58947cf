package nightreed.voice.subtractive;

import nightreed.recipe.Breath;
import nightreed.recipe.SecondFilter;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.Unison;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.Loudness;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.note.Note;
import nightreed.voice.note.StrikeNoise;
import nightreed.voice.note.VoiceModel;
import nightreed.voice.wave.WaveOscillator;
import nightreed.voice.wave.WaveSet;

/** One note of up to nine oscillators, each of up to eight copies, with breath, through one filter or two. */
public final class SubtractiveSound implements VoiceModel<SubtractiveRecipe> {
    private static final double SILENT = 1e-7;
    private static final int MOST = SubtractiveRecipe.MOST_OSCILLATORS * Unison.MOST_COPIES;

    private final double fs;
    private final WaveOscillator[] copies = new WaveOscillator[MOST];
    private final double[] gainLeft = new double[MOST];
    private final double[] gainRight = new double[MOST];
    private final double[] gainStep = new double[MOST];
    private final double[] gain = new double[MOST];
    private final boolean[] used = new boolean[MOST];
    private final StrikeNoise strike;
    private final StrikeNoise breath;
    private final MovingFilter filterLeft;
    private final MovingFilter filterRight;
    private final MovingFilter secondLeft;
    private final MovingFilter secondRight;
    private final double[] besideLeft = new double[Note.STEP];
    private final double[] besideRight = new double[Note.STEP];
    private boolean twice; // whether there is a second filter
    private boolean beside;
    private final double[] wave = new double[Note.STEP];
    private final double[] mixLeft = new double[Note.STEP];
    private final double[] mixRight = new double[Note.STEP];
    private final double[] air = new double[Note.STEP];
    private double level;
    private double amplitude;
    private double amplitudeStep;
    private double breathGain;
    private double breathStep;
    private double strikeGain;
    private boolean breathing;
    private boolean filtered;
    private boolean stereo;
    private boolean over;
    private final Loudness loudness;
    private int count;

    /** @param cycle wave of the recording, null for none */
    public SubtractiveSound(double sampleRateHz, WaveSet cycle) {
        fs = sampleRateHz;
        loudness = new Loudness(sampleRateHz);
        for (int i = 0; i < MOST; i++) {
            copies[i] = new WaveOscillator(fs, cycle);
        }
        strike = new StrikeNoise(fs);
        breath = new StrikeNoise(fs);
        filterLeft = new MovingFilter(fs);
        filterRight = new MovingFilter(fs);
        secondLeft = new MovingFilter(fs);
        secondRight = new MovingFilter(fs);
    }

    @Override
    public void start(SubtractiveRecipe r, Note note) {
        level = Math.pow(10, (r.levelDb() + r.velocity().levelDbAt(note.velocity())) / 20);
        filterLeft.reset();
        filterRight.reset();
        secondLeft.reset();
        secondRight.reset();
        loudness.start();
        over = false;
        amplitude = note.course(r.amplitude(), 1);
        follow(r, note);
        for (int i = 0; i < count; i++) {
            Oscillator o = r.oscillators().get(i);
            for (int k = 0; k < Unison.MOST_COPIES; k++) {
                int at = i * Unison.MOST_COPIES + k;
                boolean free = o.free() || k > 0;
                copies[at].start(o.phaseRad() / (2 * Math.PI) + (free ? 0.5 + 0.5 * note.chance(100 + at) : 0));
                gain[at] = gain(o);
            }
        }
        strike.silence();
        if (r.exciter() != null && note.age() == 0) {
            strike.start(r.exciter(), 1, r.velocity().brightnessAt(note.velocity()), 1, note.seed());
        }
        Breath b = r.breath();
        if (b != null) {
            breath.sustain(b.lowHz(), b.highHz(), 1, note.seed() + 5);
            breathGain = breathGain(r, note);
        }
    }

    private static double gain(Oscillator o) {
        return o.silent() ? 0 : Math.pow(10, o.levelDb() / 20);
    }

    private static double breathGain(SubtractiveRecipe r, Note note) {
        Breath b = r.breath();
        // through the same level as the rest, so that a course of its own is over it
        double course = b.envelope() == null ? 1 : note.course(b.envelope(), 1);
        return Math.pow(10, b.levelDb() / 20) * course * note.gain(Target.NOISE);
    }

    @Override
    public void follow(SubtractiveRecipe r, Note note) {
        count = r.oscillators().size();
        Unison u = r.unison();
        int n = u == null ? 1 : u.copies();
        double even = 1 / Math.sqrt(n);
        stereo = u != null && u.width() > 0;
        for (int i = 0; i < count; i++) {
            stereo |= r.oscillators().get(i).pan() != 0;
        }
        for (int i = 0; i < MOST; i++) {
            int which = i / Unison.MOST_COPIES;
            int copy = i % Unison.MOST_COPIES;
            used[i] = which < count && copy < n;
            if (used[i]) {
                double spread = u == null || n == 1 ? 0 : u.width() * (2.0 * copy / (n - 1) - 1);
                double pan = Math.max(-1, Math.min(1, r.oscillators().get(which).pan() + spread));
                double angle = (pan + 1) * Math.PI / 4;
                gainLeft[i] = even * Math.sqrt(2) * Math.cos(angle);
                gainRight[i] = even * Math.sqrt(2) * Math.sin(angle);
            }
        }
        breathing = r.breath() != null;
        filtered = r.filter() != null;
        twice = r.second() != null;
        beside = twice && filtered && r.second().place() == SecondFilter.Place.BESIDE;
    }

    @Override
    public void release(SubtractiveRecipe r, Note note) {
        over = false;
    }

    @Override
    public void step(SubtractiveRecipe r, Note note, int n) {
        loudness.step();
        Unison u = r.unison();
        double interval = note.added(Target.INTERVAL);
        double width = note.added(Target.WIDTH);
        for (int i = 0; i < MOST; i++) {
            if (!used[i]) {
                continue;
            }
            int which = i / Unison.MOST_COPIES;
            Oscillator o = r.oscillators().get(which);
            double cents = (u == null ? 0 : u.cents(i % Unison.MOST_COPIES))
                    + (which == 0 ? 0 : interval)
                    + note.wander(o.driftCents(), i);
            double hz = note.hz() * o.frequencyRatio() * Math.pow(2, cents / 1200);
            copies[i].step(o.wave(), hz, 0.49 * fs, o.width() + width, o.imperfection(), n);
            gainStep[i] = (gain(o) - gain[i]) / n;
        }
        amplitudeStep = (note.course(r.amplitude(), 1) - amplitude) / n;
        if (breathing) {
            breathStep = (breathGain(r, note) - breathGain) / n;
        }
        strikeGain = note.gain(Target.NOISE);
        if (filtered) {
            double cutoff = MovingFilter.cutoffHz(r.filter(), r, note);
            filterLeft.step(r.filter(), cutoff, n);
            filterRight.step(r.filter(), cutoff, n);
        }
        if (twice) {
            Filter f = r.second().filter();
            double cutoff = MovingFilter.cutoffHz(f, r, note);
            secondLeft.step(f, cutoff, n);
            secondRight.step(f, cutoff, n);
        }
        over = note.ended(r.amplitude(), 1) && amplitude < SILENT;
    }

    /** Behind the first filter, or beside it and added. */
    private void second(int n) {
        double[] l = beside ? besideLeft : mixLeft;
        double[] r = beside ? besideRight : mixRight;
        secondLeft.process(l, 0, n);
        if (stereo) {
            secondRight.process(r, 0, n);
        }
        for (int i = 0; beside && i < n; i++) {
            mixLeft[i] += l[i];
            mixRight[i] += r[i];
        }
    }

    @Override
    public void render(double[] left, double[] right, int from, int to) {
        int n = to - from;
        java.util.Arrays.fill(mixLeft, 0, n, 0);
        java.util.Arrays.fill(mixRight, 0, n, 0);
        for (int k = 0; k < MOST; k++) {
            if (used[k]) {
                oscillate(k, n);
            }
        }
        java.util.Arrays.fill(air, 0, n, 0);
        if (breathing) {
            breath.add(air, 0, n, 1);
            for (int i = 0; i < n; i++) {
                air[i] *= breathGain;
                breathGain += breathStep;
            }
        }
        if (!strike.over()) {
            strike.add(air, 0, n, strikeGain);
        }
        for (int i = 0; i < n; i++) {
            mixLeft[i] += air[i];
            mixRight[i] += air[i];
        }
        if (beside) {
            System.arraycopy(mixLeft, 0, besideLeft, 0, n);
            System.arraycopy(mixRight, 0, besideRight, 0, n);
        }
        if (filtered) {
            filterLeft.process(mixLeft, 0, n);
            if (stereo) {
                filterRight.process(mixRight, 0, n);
            }
        }
        if (twice) {
            second(n);
        }
        double now = amplitude;
        for (int i = 0; i < n; i++) {
            double a = level * now;
            mixLeft[i] *= a;
            left[from + i] += mixLeft[i];
            if (stereo) {
                right[from + i] += a * mixRight[i];
            }
            now += amplitudeStep;
        }
        amplitude = now;
        loudness.add(mixLeft, 0, n);
    }

    private void oscillate(int k, int n) {
        WaveOscillator o = copies[k];
        double g = gain[k];
        double step = gainStep[k];
        double l = gainLeft[k];
        double r = gainRight[k];
        o.render(wave, n);
        for (int i = 0; i < n; i++) {
            double y = g * wave[i];
            mixLeft[i] += l * y;
            mixRight[i] += r * y;
            g += step;
        }
        gain[k] = g;
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

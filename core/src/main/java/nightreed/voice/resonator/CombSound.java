package nightreed.voice.resonator;

import nightreed.recipe.ExcitationSample;
import nightreed.recipe.Mode;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.ContactPulse;
import nightreed.voice.note.Loudness;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.note.Note;
import nightreed.voice.note.Rise;
import nightreed.voice.note.StrikeNoise;
import nightreed.voice.note.VoiceModel;
import nightreed.voice.string.LoopDesign;
import nightreed.voice.string.StringLoop;

/** One note of tuned combs side by side: a loop for each ratio, all of whose harmonics die at the same pace. */
public final class CombSound implements VoiceModel<ResonatorRecipe> {
    /** Combs at the most; further ratios of a recipe are not sounded. */
    public static final int MOST_COMBS = 16;

    private static final double SILENT = 1e-7;
    private final double fs;
    private final StringLoop[] loops;
    private final LoopDesign design;
    private final double[] level;
    private final double[] push = new double[Note.STEP];
    private final double[] round = new double[Note.STEP];
    private final double[] sum = new double[Note.STEP];
    private final ContactPulse contact;
    private final StrikeNoise noise;
    private final MovingFilter before;
    private final FeedPlayer feed;
    private final Rise rise;
    private final double[] tuned;
    private final boolean[] inverted;
    private double tunedDecay = 1;
    private boolean filtered;
    private double amplitude;
    private double noiseGain;
    private final Loudness loudness;
    private double quiet;
    private int combs;

    public CombSound(double sampleRateHz, int combs, ExcitationSample feed) {
        this.fs = sampleRateHz;
        loudness = new Loudness(sampleRateHz);
        int n = Math.min(MOST_COMBS, combs);
        loops = new StringLoop[n];
        for (int i = 0; i < n; i++) {
            loops[i] = new StringLoop((int) (fs / 6));
        }
        level = new double[n];
        tuned = new double[n];
        inverted = new boolean[n];
        design = new LoopDesign(fs);
        contact = new ContactPulse(fs);
        noise = new StrikeNoise(fs);
        before = new MovingFilter(fs);
        this.feed = new FeedPlayer(feed, fs);
        this.rise = new Rise(sampleRateHz);
    }

    @Override
    public void start(ResonatorRecipe r, Note note) {
        for (StringLoop l : loops) {
            l.clear();
        }
        before.reset();
        double velocity = note.velocity();
        double follow = Math.pow(note.keyFactor(r), -r.keyTracking().exciterShare());
        amplitude = Math.pow(10, (r.levelDb() + r.velocity().levelDbAt(velocity)) / 20);
        double ms = r.exciter().contactMs() * r.velocity().contactFactorAt(velocity) * follow;
        contact.start(ms, amplitude / contact.peak(ms));
        noise.start(r.exciter(), 1 / follow, 1, amplitude, note.seed());
        feed.start();
        rise.start(r.riseMs());
        quiet = 0;
        loudness.start();
        follow(r, note);
    }

    @Override
    public void follow(ResonatorRecipe r, Note note) {
        combs = Math.min(loops.length, r.modes().size());
        filtered = r.common().before() != null;
        tune(r, note);
    }

    private void tune(ResonatorRecipe r, Note note) {
        double factor = Math.pow(note.keyFactor(r), -r.keyTracking().decayPower()) * note.factor(Target.DECAY);
        tunedDecay = note.factor(Target.DECAY);
        for (int i = 0; i < combs; i++) {
            Mode m = r.modes().get(i);
            double hz = note.hz() * m.ratio();
            double t60 = Math.max(0.002, m.t60Seconds() * factor);
            t60 = note.held() ? t60 : Math.min(t60, r.damperT60Seconds());
            boolean heard = hz > 7 && hz < (r.isInverted(i) ? 0.1 : 0.2) * fs;
            level[i] = heard ? Math.pow(10, m.levelDb() / 20) : 0;
            if (heard) {
                inverted[i] = r.isInverted(i);
                design.solveFlat(inverted[i] ? 2 * hz : hz, t60); // turned over, it takes two rounds to be as it was
                loops[i].take(design);
            }
            tuned[i] = hz;
        }
    }

    @Override
    public void release(ResonatorRecipe r, Note note) {
        tune(r, note);
    }

    @Override
    public void step(ResonatorRecipe r, Note note, int n) {
        loudness.step();
        quiet = loudness.rms() < SILENT ? quiet + n : 0;
        boolean moved = combs > 0 && Math.abs(note.hz() * r.modes().get(0).ratio() / tuned[0] - 1) > 1e-9;
        if (moved || note.factor(Target.DECAY) != tunedDecay) {
            tune(r, note);
        }
        if (filtered) {
            before.step(r.common().before(), MovingFilter.cutoffHz(r.common().before(), r, note), n);
        }
        noiseGain = note.gain(Target.NOISE);
        for (StringLoop l : loops) {
            l.flush();
        }
    }

    @Override
    public void render(double[] left, double[] right, int from, int to) {
        int n = to - from;
        java.util.Arrays.fill(push, 0, n, 0);
        contact.add(push, 0, n);
        noise.add(push, 0, n, noiseGain);
        feed.add(push, 0, n);
        if (filtered) {
            before.process(push, 0, n);
        }
        java.util.Arrays.fill(sum, 0, n, 0);
        for (int c = 0; c < combs; c++) {
            if (level[c] == 0) {
                continue;
            }
            StringLoop l = loops[c];
            for (int done = 0; done < n; ) {
                int some = Math.min(n - done, l.room());
                l.pull(round, some);
                for (int i = 0; i < some; i++) {
                    sum[done + i] += level[c] * round[i];
                    round[i] = push[done + i] + (inverted[c] ? -round[i] : round[i]);
                }
                l.push(round, some);
                done += some;
            }
        }
        rise.fade(sum, n);
        for (int i = 0; i < n; i++) {
            left[from + i] += sum[i];
        }
        loudness.add(sum, 0, n);
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
        return loudness.meanSquare();
    }

    @Override
    public boolean over() {
        return contact.over() && noise.over() && feed.over() && quiet > fs / 6;
    }
}

package nightreed.voice.ring;

import nightreed.dsp.HalfBand;
import nightreed.recipe.RingRecipe;
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

/** One note: computed at twice the rate, as the product reaches twice as high as its factors. */
public final class RingSound implements VoiceModel<RingRecipe> {
    private static final int TIMES = 2;
    private static final double SILENT = 1e-7;

    private final double fs;
    private final WaveOscillator a;
    private final WaveOscillator b;
    private final MovingFilter filterA;
    private final MovingFilter filterB;
    private final HalfBand down = HalfBand.steep();
    private final StrikeNoise noise;
    private final double[] first = new double[TIMES * Note.STEP];
    private final double[] second = new double[TIMES * Note.STEP];
    private final MovingFilter productFilter;
    private final MovingFilter dryFilter;
    private final double[] product = new double[TIMES * Note.STEP];
    private boolean filteredProduct;
    private boolean filteredDry;
    private boolean filteredA;
    private boolean filteredB;
    private double level;
    private double amplitude;
    private double amplitudeStep;
    private double ring;
    private double ringStep;
    private double dry;
    private double dryStep;
    private double noiseGain;
    private final Loudness loudness;
    private boolean over;

    /** @param cycle wave of the recording, null for none */
    public RingSound(double sampleRateHz, WaveSet cycle) {
        fs = sampleRateHz;
        loudness = new Loudness(sampleRateHz);
        a = new WaveOscillator(TIMES * fs, cycle);
        b = new WaveOscillator(TIMES * fs, cycle);
        filterA = new MovingFilter(TIMES * fs);
        filterB = new MovingFilter(TIMES * fs);
        productFilter = new MovingFilter(TIMES * fs);
        dryFilter = new MovingFilter(TIMES * fs);
        noise = new StrikeNoise(fs);
    }

    @Override
    public void start(RingRecipe r, Note note) {
        level = Math.pow(10, (r.levelDb() + r.velocity().levelDbAt(note.velocity())) / 20);
        a.start(phase(r.a(), note, 31));
        b.start(phase(r.b(), note, 32));
        filterA.reset();
        filterB.reset();
        productFilter.reset();
        dryFilter.reset();
        down.reset();
        amplitude = level * note.course(r.amplitude(), 1);
        ring = gain(r.ringDb() + r.a().levelDb() + r.b().levelDb());
        dry = gain(r.dryDb() + r.a().levelDb());
        loudness.start();
        over = false;
        noise.silence();
        if (r.exciter() != null && note.age() == 0) {
            noise.start(r.exciter(), 1, r.velocity().brightnessAt(note.velocity()), level, note.seed());
        }
    }

    private static double phase(Oscillator o, Note note, int which) {
        return o.phaseRad() / (2 * Math.PI) + (o.free() ? 0.5 + 0.5 * note.chance(which) : 0);
    }

    private static double gain(double db) {
        return db <= RingRecipe.OFF_DB ? 0 : Math.pow(10, db / 20);
    }

    @Override
    public void follow(RingRecipe r, Note note) {
        // everything is looked at in each step
    }

    @Override
    public void release(RingRecipe r, Note note) {
        over = false;
    }

    @Override
    public void step(RingRecipe r, Note note, int n) {
        loudness.step();
        down.flush();
        int many = n * TIMES;
        double hz = note.hz() * r.a().frequencyRatio();
        double swing = Math.sin(2 * Math.PI * r.driftRateHz() * note.time());
        double drift = r.driftCents() * swing;
        double interval = r.interval(Math.max(note.velocity(), r.velocity().floor()))
                * Math.pow(2, (drift + note.added(Target.INTERVAL)) / 1200);
        double width = note.added(Target.WIDTH);
        double top = 0.49 * fs;
        a.step(
                r.a().wave(),
                hz * Math.pow(2, note.wander(r.a().driftCents(), 0) / 1200),
                top,
                r.a().width() + width,
                r.a().imperfection(),
                many);
        b.step(
                r.b().wave(),
                hz * interval * Math.pow(2, note.wander(r.b().driftCents(), 1) / 1200),
                top,
                r.b().width() + width,
                r.b().imperfection(),
                many);
        filteredA = filter(filterA, r.filterA(), r, note, 1, many);
        filteredB = filter(filterB, r.filterB(), r, note, Math.pow(2, r.driftOctaves() * swing), many);
        filteredProduct = filter(productFilter, r.productFilter(), r, note, 1, many);
        filteredDry = filter(dryFilter, r.dryFilter(), r, note, 1, many);
        double target = level * note.course(r.amplitude(), 1);
        amplitudeStep = (target - amplitude) / many;
        ringStep = (gain(r.ringDb() + r.a().levelDb() + r.b().levelDb()) - ring) / many;
        dryStep = (gain(r.dryDb() + r.a().levelDb()) - dry) / many;
        noiseGain = note.gain(Target.NOISE);
        over = note.ended(r.amplitude(), 1) && amplitude < SILENT && noise.level() < SILENT;
    }

    /** @param moved factor on the cutoff */
    private static boolean filter(MovingFilter f, Filter by, RingRecipe r, Note note, double moved, int n) {
        if (by != null) {
            f.step(by, moved * MovingFilter.cutoffHz(by, r, note), n);
        }
        return by != null;
    }

    @Override
    public void render(double[] left, double[] right, int from, int to) {
        int n = to - from;
        int many = n * TIMES;
        a.render(first, many);
        b.render(second, many);
        if (filteredA) {
            filterA.process(first, 0, many);
        }
        if (filteredB) {
            filterB.process(second, 0, many);
        }
        double wet = ring;
        double plain = dry;
        for (int i = 0; i < many; i++) {
            product[i] = wet * first[i] * second[i];
            first[i] *= plain;
            wet += ringStep;
            plain += dryStep;
        }
        ring = wet;
        dry = plain;
        if (filteredProduct) {
            productFilter.process(product, 0, many);
        }
        if (filteredDry) {
            dryFilter.process(first, 0, many);
        }
        double now = amplitude;
        for (int i = 0; i < many; i++) {
            first[i] = now * (first[i] + product[i]);
            now += amplitudeStep;
        }
        amplitude = now;
        down.down(first, first, n);
        for (int i = 0; i < n; i++) {
            left[from + i] += first[i];
        }
        loudness.add(first, 0, n);
        if (!noise.over()) {
            noise.add(left, from, to, noiseGain);
        }
    }

    @Override
    public boolean stereo() {
        return false;
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

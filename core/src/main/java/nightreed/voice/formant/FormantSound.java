package nightreed.voice.formant;

import nightreed.dsp.Noise;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Route.Target;
import nightreed.voice.note.Loudness;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.note.Note;
import nightreed.voice.note.Section;
import nightreed.voice.note.StrikeNoise;
import nightreed.voice.note.VoiceModel;
import nightreed.voice.wave.WaveOscillator;
import nightreed.voice.wave.WaveSet;

/** One note of a source and noise through a bank. */
public final class FormantSound implements VoiceModel<FormantRecipe> {
    private static final double SILENT = 1e-7;
    private final double fs;
    private final int bands;
    private final Bank kind;
    private final WaveOscillator source;
    private final Noise noise = new Noise(1);
    private final StrikeNoise strike;
    private final MovingFilter beforeTone;
    private final MovingFilter beforeNoise;
    private final SplitBank toneBank;
    private final SplitBank noiseBank;
    private final SplitBank.Sum bankLeft;
    private final SplitBank.Sum bankRight;
    private final SharedBandNoise field;
    private final Section[] formants;
    private final double[] tone = new double[Note.STEP];
    private final double[] hiss = new double[Note.STEP];
    private final double[] low = new double[Note.STEP];
    private final double[] lowHiss = new double[Note.STEP];
    private final double[] sumLeft = new double[Note.STEP];
    private final double[] sumRight = new double[Note.STEP];
    private final double[] gain;
    private final double[] gainStep;
    private final double[] share;
    private final double[] panLeft;
    private final double[] panRight;
    private final double[] followed;
    private final double[] led; // how loud each odd band is
    private final double[] leading = new double[Note.STEP]; // what the band before asks for, sample by sample
    private double followGain; // 0 where no band follows another
    private double followRise;
    private double followFall; // level of each follower
    private double sourceGain;
    private double noiseGain;
    private double level;
    private double shiftedBy = Double.NaN;
    private boolean stereo;
    private boolean hissing;
    private boolean common; // it hears the noise of the field
    private int set;
    private int ago;
    private boolean toned;
    private boolean filtered;
    private boolean over;
    private final Loudness loudness;

    /**
     * @param like  gives number and kind of the bands
     * @param cycle wave of the recording, null for none
     * @param field noise that all notes of a player hear
     */
    public FormantSound(double sampleRateHz, FormantRecipe like, WaveSet cycle, SharedBandNoise field) {
        fs = sampleRateHz;
        loudness = new Loudness(sampleRateHz);
        bands = like.bands().size();
        kind = like.bank();
        source = new WaveOscillator(fs, cycle);
        strike = new StrikeNoise(fs);
        beforeTone = new MovingFilter(fs);
        beforeNoise = new MovingFilter(fs);
        boolean side = kind == Bank.SIDE_BY_SIDE;
        toneBank = new SplitBank(side ? bands : 0, fs);
        noiseBank = new SplitBank(side ? bands : 0, fs);
        bankLeft = new SplitBank.Sum(side ? bands : 0);
        bankRight = new SplitBank.Sum(side ? bands : 0);
        this.field = field;
        formants = new Section[side ? 0 : bands];
        for (int i = 0; i < formants.length; i++) {
            formants[i] = new Section();
        }
        gain = new double[bands];
        gainStep = new double[bands];
        share = new double[bands];
        panLeft = new double[bands];
        panRight = new double[bands];
        followed = new double[bands];
        led = new double[bands];
    }

    @Override
    public void start(FormantRecipe r, Note note) {
        level = Math.pow(10, (r.levelDb() + r.velocity().levelDbAt(note.velocity())) / 20);
        toneBank.reset();
        noiseBank.reset();
        bankLeft.reset();
        bankRight.reset();
        for (Section s : formants) {
            s.reset();
        }
        beforeTone.reset();
        beforeNoise.reset();
        noise.reseed(note.seed());
        set = (int) note.seed();
        ago = SharedBandNoise.ago(note.chance(52));
        Oscillator o = r.source();
        source.start(o.phaseRad() / (2 * Math.PI) + (o.free() ? 0.5 + 0.5 * note.chance(51) : 0));
        strike.silence();
        if (r.exciter() != null && note.age() == 0) {
            strike.start(r.exciter(), 1, r.velocity().brightnessAt(note.velocity()), 1, note.seed() + 3);
        }
        loudness.start();
        over = false;
        shiftedBy = Double.NaN;
        java.util.Arrays.fill(followed, 0);
        java.util.Arrays.fill(led, 0);
        follow(r, note);
        if (common) {
            field.use(set);
        }
        for (int i = 0; i < bands; i++) {
            gain[i] = target(r, note, i, 1e-3);
        }
    }

    @Override
    public void follow(FormantRecipe r, Note note) {
        stereo = false;
        hissing = false;
        toned = !r.source().silent();
        for (int i = 0; i < bands; i++) {
            FormantBand b = r.bands().get(i);
            share[i] = b.noiseShare();
            double pan = Math.max(-1, Math.min(1, b.pan() + (isEven(i) ? r.apart() : -r.apart())));
            stereo |= pan != 0;
            hissing |= b.noiseShare() > 0;
            double angle = (pan + 1) * Math.PI / 4;
            panLeft[i] = Math.sqrt(2) * Math.cos(angle);
            panRight[i] = Math.sqrt(2) * Math.sin(angle);
        }
        hissing |= r.exciter() != null && r.exciter().noisy();
        sourceGain = toned ? Math.pow(10, r.source().levelDb() / 20) : 0;
        noiseGain = r.noiseDb() <= FormantRecipe.OFF_DB ? 0 : Math.pow(10, r.noiseDb() / 20);
        hissing &= noiseGain > 0 || r.exciter() != null;
        filtered = r.common().before() != null;
        followGain = r.followDb() <= FormantRecipe.OFF_DB ? 0 : Math.pow(10, r.followDb() / 20);
        followRise = 1 - Math.exp(-1000 / (r.followAttackMs() * fs));
        followFall = 1 - Math.exp(-1000 / (r.followDecayMs() * fs));
        common = SharedBandNoise.suits(r);
        place(r, r.shiftCents());
    }

    /** Puts the bands where the recipe has them, moved by so many cents. */
    private void place(FormantRecipe r, double cents) {
        shiftedBy = cents;
        double factor = Math.pow(2, cents / 1200);
        if (kind == Bank.SIDE_BY_SIDE) {
            for (int i = 0; i <= bands; i++) {
                toneBank.edge(i, BankResponse.edgeHz(r, i) * factor);
            }
            noiseBank.edgesOf(toneBank);
        } else {
            for (int i = 0; i < bands; i++) {
                FormantBand b = r.bands().get(i);
                formants[i].bandPass(b.centreHz() * factor, b.widthHz() * factor / r.qFactor(), fs);
            }
        }
    }

    @Override
    public void release(FormantRecipe r, Note note) {
        over = false;
    }

    @Override
    public void step(FormantRecipe r, Note note, int n) {
        loudness.step();
        double cents = r.shiftCents() + note.added(Target.SHIFT);
        if (cents != shiftedBy) {
            place(r, cents);
        }
        Oscillator o = r.source();
        source.step(
                o.wave(),
                note.hz() * o.frequencyRatio(),
                0.49 * fs,
                o.width() + note.added(Target.WIDTH),
                o.imperfection(),
                n);
        double loudest = 0;
        for (int i = 0; i < bands; i++) {
            double t = target(r, note, i, n / fs);
            gainStep[i] = (t - gain[i]) / n;
            loudest = Math.max(loudest, Math.max(t, gain[i]));
        }
        for (Section s : formants) {
            s.flush();
        }
        toneBank.flush();
        noiseBank.flush();
        bankLeft.flush();
        bankRight.flush();
        if (filtered) {
            double cutoff = MovingFilter.cutoffHz(r.common().before(), r, note);
            beforeTone.step(r.common().before(), cutoff, n);
            beforeNoise.step(r.common().before(), cutoff, n);
        }
        noiseGain =
                (r.noiseDb() <= FormantRecipe.OFF_DB ? 0 : Math.pow(10, r.noiseDb() / 20)) * note.gain(Target.NOISE);
        over = loudest < SILENT
                && loudness.meanSquare() < SILENT * SILENT
                && (!note.held() || note.ended(r.amplitude(), 1));
    }

    /** Amplitude that a band is on its way to. @param dt time of the step [s] */
    private double target(FormantRecipe r, Note note, int i, double dt) {
        FormantBand b = r.bands().get(i);
        if (b.levelDb() <= FormantRecipe.OFF_DB || isEven(i) && r.evenDb() <= FormantRecipe.OFF_DB) {
            return 0;
        }
        double course = b.drone() ? drone(r, note) : note.course(r.amplitude(), 1);
        course *= b.envelope() == null ? 1 : note.course(b.envelope(), 1);
        double tilt = r.tiltDbPerOctave() * Math.log(b.centreHz() / 1000) / Math.log(2);
        double wanted = course * Math.pow(10, (b.levelDb() + tilt + (isEven(i) ? r.evenDb() : 0)) / 20);
        int steps = b.pathDb().size();
        if (steps > 0) {
            double recorded = Math.pow(10, path(b, note.time() / r.stepSeconds()) / 20);
            double ms = recorded > followed[i] ? r.followAttackMs() : r.followDecayMs();
            followed[i] = recorded + (followed[i] - recorded) * Math.exp(-dt / (ms / 1000));
            wanted *= followed[i];
        }
        return level * wanted;
    }

    /** Whether people count a band as the second, the fourth and so on. @param i from 0 */
    private static boolean isEven(int i) {
        return i % 2 == 1;
    }

    /** Level that a band follows, a number of steps after the onset; behind its end it goes on falling as it fell [dB]. */
    private static double path(FormantBand b, double step) {
        int steps = b.pathDb().size();
        if (step < steps) {
            return b.pathDb().get((int) step);
        }
        int from = 2 * steps / 3;
        double slope =
                steps - 1 > from ? (b.pathDb().get(steps - 1) - b.pathDb().get(from)) / (steps - 1 - from) : 0;
        return b.pathDb().get(steps - 1) + Math.min(0, slope) * (step - steps + 1);
    }

    /** A drone stays as loud as the whole once was, until the key is let go. */
    private static double drone(FormantRecipe r, Note note) {
        double risen = Math.min(
                1,
                (note.time() - note.sinceLetGo()) / Math.max(1e-3, r.amplitude().attackSeconds()));
        return note.held() ? risen : r.amplitude().released(risen, note.sinceLetGo());
    }

    @Override
    public void render(double[] left, double[] right, int from, int to) {
        int n = to - from;
        if (toned) {
            source.render(tone, n);
        }
        for (int i = 0; i < n; i++) {
            tone[i] = toned ? sourceGain * tone[i] : 0;
        }
        if (hissing && !common) {
            for (int i = 0; i < n; i++) {
                hiss[i] = noiseGain * noise.white();
            }
        }
        if (!strike.over()) {
            strike.add(tone, 0, n, 1);
        }
        if (filtered) {
            beforeTone.process(tone, 0, n);
            beforeNoise.process(hiss, 0, n);
        }
        java.util.Arrays.fill(sumLeft, 0, n, 0);
        java.util.Arrays.fill(sumRight, 0, n, 0);
        if (kind == Bank.SIDE_BY_SIDE) {
            split(n);
        } else {
            resonate(n);
        }
        loudness.add(sumLeft, 0, n);
        for (int i = 0; i < n; i++) {
            left[from + i] += sumLeft[i];
            if (stereo) {
                right[from + i] += sumRight[i];
            }
        }
    }

    private void split(int n) {
        toneBank.split(0, tone, low, n); // what is under the lowest band is not heard
        if (hissing && !common) {
            noiseBank.split(0, hiss, lowHiss, n);
        }
        for (int b = 0; b < bands; b++) {
            toneBank.split(b + 1, tone, low, n);
            hiss(b, low, n);
            lead(b, low, n);
            double g = gain[b];
            double d = gainStep[b];
            bankLeft.add(toneBank, b, sumLeft, low, panLeft[b] * g, panLeft[b] * d, n);
            if (stereo) {
                bankRight.add(toneBank, b, sumRight, low, panRight[b] * g, panRight[b] * d, n);
            }
            gain[b] = g + n * d;
        }
    }

    /** An odd band tells the even one behind it how loud to be; an even one does as it was told. */
    private void lead(int b, double[] band, int n) {
        if (followGain == 0) {
            return;
        }
        if (!isEven(b)) {
            for (int i = 0; i < n; i++) {
                leading[i] = followed(b, band[i]);
            }
        } else {
            for (int i = 0; i < n; i++) {
                band[i] *= leading[i];
            }
        }
    }

    /** Level of an odd band as its follower has it. */
    private double followed(int b, double x) {
        double loud = Math.abs(x);
        led[b] += (loud - led[b]) * (loud > led[b] ? followRise : followFall);
        return followGain * led[b];
    }

    /** Mixes noise into a band. */
    private void hiss(int b, double[] band, int n) {
        double s = share[b];
        if (!hissing) {
            return;
        }
        if (!common) {
            noiseBank.split(b + 1, hiss, lowHiss, n);
            for (int i = 0; i < n; i++) {
                band[i] += s * (lowHiss[i] - band[i]);
            }
        } else if (s > 0) {
            field.mix(set, b, ago, band, s, noiseGain, n);
        }
    }

    private void resonate(int n) {
        for (int b = 0; b < bands; b++) {
            double g = gain[b];
            double s = share[b];
            Section f = formants[b];
            for (int i = 0; i < n; i++) {
                double x = hissing ? tone[i] + s * (hiss[i] - tone[i]) : tone[i];
                double z = f.next(x);
                if (followGain > 0) {
                    if (isEven(b)) {
                        z *= leading[i];
                    } else {
                        leading[i] = followed(b, z);
                    }
                }
                double y = g * z;
                sumLeft[i] += panLeft[b] * y;
                sumRight[i] += panRight[b] * y;
                g += gainStep[b];
            }
            gain[b] = g;
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

package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.AspectWeights;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.music.Bark;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;

/**
 * The residuals of a search. A full comparison takes half a second or more; this one looks at spectral frames only and takes
 * milliseconds. Each residual is in JND times the root of its weight and belongs to one aspect, so that the sum of squares is what a
 * listener minds, and a search sees which value moves which residual.
 *
 * <p>Of each sound it takes: level and frequency of the recording's partials over time, critical bands from frames that are
 * short at the onset and longer later, centroid and loudness of these frames, the rise at the start, and the strike as a
 * comparison hears it. Levels are compared at equal loudness over the common span, and only as far as they stand out of the recording's own masking and background.
 * Immutable; may be used by several threads.
 */
public final class PerceptualResiduals {
    /** Limits of the frames that tell the rise [s]. */
    private static final double[] RISE = {0, 0.001, 0.002, 0.004, 0.007, 0.012, 0.02, 0.035, 0.06, 0.1, 0.16, 0.25};

    /** Power under the strongest band that is as good as none, also where the ear would hear it. */
    private static final double LEAST = 1e-7;

    /** Each counts as much; movement is left to the full comparison, which measures it. */
    private static final double ASPECTS = Aspect.values().length;

    /** Bands are what every kind of sound has, and what most distances are made of. */
    private static final double BAND_ACCENT = 1.6;

    private final AnalysedSound recording;
    private final JndThresholds hearing;
    private final AspectWeights marks;
    private final double fs;
    private final double seconds;
    private final boolean held;
    private final int[] from; // frames, samples after the onset
    private final int[] to;
    private final double[] lasts; // what each stands for: up to the next [samples]
    private final int probe; // window of the partials [samples]
    private final int[] probeAt;
    private final double[] hz;
    private final double[] width; // half width of what is counted to a partial [Hz]
    private final double[] weight; // audibility of each partial
    private final double[] bandWeight; // K-weighting of each band
    private final Features own;
    private final FrameSpectra looks;
    private final double[][] floor; // [frame][band] power below which nothing is heard
    private final double[] background; // power per band and sample
    private final StrikeGroups strike; // null where nothing is known of it
    private final RenderStart start;
    private final List<Aspect> aspects; // of each difference

    /** What is taken of a sound. Power per sample. */
    private record Features(double[][] bands, double[] loud, double[][] partials, double[][] offsets, double[] rise) {}

    /** @param mostSeconds after the onset that are listened to at the most [s] */
    public PerceptualResiduals(AnalysedSound recording, double mostSeconds) {
        this.recording = recording;
        this.hearing = recording.listener().hearing();
        this.marks = recording.listener().marks();
        Measurement m = recording.measurement();
        this.fs = m.sampleRateHz();
        this.looks = new FrameSpectra(fs);
        this.held = m.held() != null;
        double[] x = recording.clip().mixed();
        int onset = Math.max(0, Math.min(x.length - 1, (int) Math.round(m.onsetSeconds() * fs)));
        double[] note = Arrays.copyOfRange(x, onset, x.length);
        this.background = looks.background(x, Math.max(0, onset - (int) (0.003 * fs)));
        this.seconds = Math.min(mostSeconds, audible(note));
        ListeningGrid grid = new ListeningGrid(m, hearing, seconds, fs);
        from = grid.from;
        to = grid.to;
        lasts = grid.lasts;
        probe = grid.probe;
        probeAt = grid.probeAt;
        hz = grid.hz;
        width = grid.width;
        weight = grid.weight;
        bandWeight = new double[Bark.BANDS];
        for (int b = 0; b < Bark.BANDS; b++) {
            bandWeight[b] = Loudness.weighting(Bark.centreHz(b), fs);
        }
        start = new RenderStart(note, fs, Arrays.stream(background).sum(), held || recording.comesInSlowly());
        aspects = layout();
        own = features(note);
        floor = floors();
        strike = recording.strike() == null
                ? null
                : new StrikeGroups(recording.strike(), own.bands, background, hearing);
    }

    /** Time after the onset that has to be rendered [s]. */
    public double seconds() {
        return Math.max(seconds, (probeAt[probeAt.length - 1] + probe) / fs);
    }

    /** Where the recording has fallen for good by what is still heard [s]. */
    private double audible(double[] note) {
        int hop = (int) (0.02 * fs);
        int n = Math.max(1, note.length / hop);
        double[] power = new double[n];
        double most = 0;
        for (int f = 0; f < n; f++) {
            for (int i = f * hop; i < Math.min(note.length, (f + 1) * hop); i++) {
                power[f] += note[i] * note[i] / hop;
            }
            most = Math.max(most, power[f]);
        }
        double noise = 0;
        for (double b : background) {
            noise += b;
        }
        int last = 0;
        for (int f = 0; f < n; f++) {
            if (power[f] > most * Math.pow(10, -JndThresholds.RANGE_DB / 10) && power[f] > 2 * noise) {
                last = f;
            }
        }
        return Math.max(0.12, Math.min(note.length / fs, (last + 1) * 0.02));
    }

    private Features features(double[] x) {
        double[][] bands = new double[from.length][];
        double[] loud = new double[from.length];
        for (int f = 0; f < from.length; f++) {
            bands[f] = looks.bands(x, from[f], to[f]);
            for (int b = 0; b < Bark.BANDS; b++) {
                loud[f] += bandWeight[b] * bands[f][b];
            }
        }
        double[][] partials = new double[probeAt.length][hz.length];
        double[][] offsets = new double[probeAt.length][hz.length];
        double scale = 2 / (0.375 * probe * (double) probe);
        for (int f = 0; f < probeAt.length && hz.length > 0; f++) {
            double[] s = looks.spectrum(x, probeAt[f], probe);
            for (int k = 0; k < hz.length; k++) {
                double sum = 0;
                double moment = 0;
                int low = (int) Math.max(1, Math.ceil((hz[k] - width[k]) * probe / fs));
                int high = (int) Math.min(probe / 2.0, Math.floor((hz[k] + width[k]) * probe / fs));
                for (int b = low; b <= high; b++) {
                    double p = s[2 * b] * s[2 * b] + s[2 * b + 1] * s[2 * b + 1];
                    sum += p;
                    moment += p * (b * fs / probe - hz[k]);
                }
                partials[f][k] = scale * sum;
                offsets[f][k] = sum > 0 ? moment / sum : 0;
            }
        }
        return new Features(bands, loud, partials, offsets, rise(x));
    }

    private double[] rise(double[] x) {
        double[] out = new double[RISE.length - 1];
        for (int r = 0; r < out.length; r++) {
            int a = (int) (RISE[r] * fs);
            int b = (int) (RISE[r + 1] * fs);
            for (int i = a; i < Math.min(b, x.length); i++) {
                out[r] += x[i] * x[i] / (b - a);
            }
        }
        return out;
    }

    /** What the recording itself, its background and silence mask [frame][band]. */
    private double[][] floors() {
        double top = 0;
        for (int f = 0; f < from.length; f++) {
            for (double v : own.bands[f]) {
                top = Math.max(top, v);
            }
        }
        double[][] out = new double[from.length][Bark.BANDS];
        for (int f = 0; f < from.length; f++) {
            for (int b = 0; b < Bark.BANDS; b++) {
                double least = Math.max(top * LEAST, 2 * background[b]);
                double quiet =
                        top * Math.pow(10, (JndThresholds.quietDb(Bark.centreHz(b)) - hearing.playbackDb()) / 10);
                double masked = 0;
                for (int o = 0; o < Bark.BANDS; o++) {
                    if (o != b && own.bands[f][o] > 0) {
                        double spl = hearing.playbackDb() + 10 * Math.log10(own.bands[f][o] / Math.max(1e-20, top));
                        masked += own.bands[f][o]
                                * Math.pow(
                                        10,
                                        (JndThresholds.spread(b - o, Bark.centreHz(o), spl)
                                                        - JndThresholds.BAND_MASKING_OFFSET_DB)
                                                / 10);
                    }
                }
                out[f][b] = Math.max(1e-14, least + quiet + masked);
            }
        }
        return out;
    }

    /** The recording against a render that begins at its onset. */
    public double[] differences(Clip render) {
        double[] x = render.mixed();
        return differences(own, features(RenderStart.shifted(x, start.late(x))));
    }

    /** Root mean square over the kinds of difference [JND]. */
    public static double total(double[] differences) {
        double sum = 0;
        for (double d : differences) {
            sum += d * d;
        }
        return Math.sqrt(sum);
    }

    /** What each difference is of; as many as an answer has. */
    private List<Aspect> layout() {
        List<Aspect> out = new ArrayList<>();
        for (int k = 0; k < hz.length; k++) {
            out.add(Aspect.PARTIALS);
            out.add(Aspect.PITCH);
            out.addAll(Collections.nCopies(probeAt.length, Aspect.DECAYS));
        }
        for (int f = 0; f < from.length; f++) {
            out.addAll(Collections.nCopies(Bark.BANDS, ofBands(f)));
            out.add(Aspect.BRIGHTNESS);
            out.add(Aspect.LOUDNESS);
        }
        out.addAll(Collections.nCopies(RISE.length - 1, Aspect.ATTACK));
        out.addAll(Collections.nCopies(StrikeGroups.SIZE, Aspect.NOISE));
        return List.copyOf(out);
    }

    /** Bands of the first frames are what is heard of the strike. */
    private static Aspect ofBands(int frame) {
        return ListeningGrid.isOfStrike(frame) ? Aspect.NOISE : Aspect.PARTIALS;
    }

    /** Each aspect of an answer, or of a change of one [JND]. */
    public Map<Aspect, Double> byAspect(double[] differences) {
        Map<Aspect, Double> out = new EnumMap<>(Aspect.class);
        for (Aspect a : Aspect.values()) {
            double squares = 0;
            for (int i = 0; i < differences.length; i++) {
                squares += aspects.get(i) == a ? differences[i] * differences[i] : 0;
            }
            double accent = a == Aspect.PARTIALS ? 1 + BAND_ACCENT : 1;
            out.put(a, Math.min(JndThresholds.MOST, Math.sqrt(ASPECTS * squares / accent)));
        }
        return out;
    }

    /** The largest aspect [JND]. */
    public double worst(double[] differences) {
        return Collections.max(byAspect(differences).values());
    }

    /**
     * Partials of the recording that an imitation has too little of, the most audible lack first [Hz].
     *
     * @param differences as {@link #differences(Clip)} tells them
     */
    public List<Double> lacking(double[] differences) {
        int each = differences.length == 0 ? 0 : 2 + probeAt.length; // a partial's level comes first
        return IntStream.range(0, hz.length)
                .filter(k -> differences[k * each] < 0)
                .boxed()
                .sorted(Comparator.comparingDouble(k -> differences[k * each]))
                .map(k -> hz[k])
                .toList();
    }

    /** Number of differences of one answer. */
    public int size() {
        return aspects.size();
    }

    private double[] differences(Features r, Features i) {
        double[] noise = background;
        double mine = 0;
        double other = 0;
        double loudest = 0;
        double quiet = 0;
        for (int b = 0; b < Bark.BANDS; b++) {
            quiet += bandWeight[b] * noise[b];
        }
        double[] clean = new double[from.length];
        for (int f = 0; f < from.length; f++) {
            clean[f] = Math.max(0, r.loud[f] - quiet);
            mine += clean[f] * (to[f] - from[f]);
            other += i.loud[f] * (to[f] - from[f]);
            loudest = Math.max(loudest, clean[f]);
        }
        double gain = mine > 0 && other > 0 ? mine / other : 1;
        double[] out = new double[size()];
        int at = partials(r, i, gain, out);
        at = bands(r, i, gain, noise, clean, loudest, out, at);
        at = rise(r, i, gain, quiet, out, at);
        if (strike != null) {
            strike.differences(i.bands, gain, marks.weight(Aspect.NOISE) / Math.sqrt(ASPECTS), out, at);
        }
        return out;
    }

    private int partials(Features r, Features i, double gain, double[] out) {
        int at = 0;
        double weights = 1e-9;
        double top = 1e-20;
        for (int k = 0; k < hz.length; k++) {
            weights += weight[k];
            for (int f = 0; f < probeAt.length; f++) {
                top = Math.max(top, r.partials[f][k]);
            }
        }
        double least = 1e-6 * top;
        double levels = marks.weight(Aspect.PARTIALS);
        double pitch = marks.weight(Aspect.PITCH);
        double decays = marks.weight(Aspect.DECAYS);
        for (int k = 0; k < hz.length; k++) {
            int best = 0;
            for (int f = 0; f < probeAt.length; f++) {
                best = r.partials[f][k] > r.partials[best][k] ? f : best;
            }
            double mine = held ? mean(r.partials, k) : r.partials[best][k];
            double theirs = held ? mean(i.partials, k) : i.partials[best][k];
            double silent =
                    Math.min(least, mine * Math.pow(10, -weight[k] * JndThresholds.FULLY_HEARD_DB / 10)) + 1e-20;
            double db = decibels(gain * theirs, mine, silent);
            out[at++] = levels * JndThresholds.limited(db / hearing.levelDb()) * scale(1, weight[k], weights);
            double there = Math.max(0, 1 - Math.abs(db) / 20);
            double off = (i.offsets[best][k] - r.offsets[best][k]) / hz[k] / hearing.partialFrequency();
            out[at++] = pitch * JndThresholds.limited(there * off) * scale(1, weight[k], weights);
            // how far the level has fallen since, on both sides; 60 dB would be its T60
            for (int f = 0; f < probeAt.length; f++) {
                double fallen = -decibels(r.partials[f][k], r.partials[best][k], least);
                double others = -decibels(i.partials[f][k], i.partials[best][k], least / gain);
                double seen = f == best ? 0 : Math.max(0, 1 - Math.abs(fallen) / JndThresholds.RANGE_DB);
                double room = Math.max(3, 0.3 * Math.abs(fallen)); // a T60 longer by 1.4 is short of 0.3 of the fall
                out[at++] = decays
                        * JndThresholds.limited((others - fallen) / room)
                        * scale(1, weight[k] * seen / probeAt.length, weights);
            }
        }
        return at;
    }

    private static double mean(double[][] frames, int k) {
        double sum = 0;
        for (double[] f : frames) {
            sum += f[k] / frames.length;
        }
        return sum;
    }

    private int bands(
            Features r,
            Features i,
            double gain,
            double[] noise,
            double[] clean,
            double loudest,
            double[] out,
            int start) {
        int at = start;
        double courses = 1e-9;
        double cells = 1e-9;
        double[] seen = new double[from.length];
        double[][] cell = new double[from.length][Bark.BANDS];
        for (int f = 0; f < from.length; f++) {
            seen[f] = clean[f] > 0 ? Math.max(0, 1 + 10 * Math.log10(clean[f] / loudest) / JndThresholds.RANGE_DB) : 0;
            courses += seen[f] * lasts[f];
            // early frames are short, but the ear makes much of what is in them
            for (int b = 0; b < Bark.BANDS; b++) {
                double most = Math.max(r.bands[f][b] - noise[b], gain * i.bands[f][b]);
                cell[f][b] = seen[f] * Math.max(0, Math.min(1, 10 * Math.log10(most / floor[f][b] + 1e-9) / 12));
                cells += cell[f][b];
            }
        }
        for (int f = 0; f < from.length; f++) {
            double early = marks.weight(ofBands(f));
            double mine = 0;
            double other = 0;
            double mineBark = 0;
            double otherBark = 0;
            double background = 0;
            for (int b = 0; b < Bark.BANDS; b++) {
                double a = Math.max(0, r.bands[f][b] - noise[b]);
                double c = gain * i.bands[f][b];
                double db = 10 * Math.log10((c + floor[f][b]) / (a + floor[f][b]));
                out[at++] =
                        early * JndThresholds.limited(db / hearing.noiseDb()) * scale(BAND_ACCENT, cell[f][b], cells);
                mine += a;
                other += c;
                mineBark += a * b;
                otherBark += c * b;
                background += noise[b];
            }
            boolean clear = mine > 10 * background && other > 0;
            double bark = clear ? otherBark / other - mineBark / mine : 0;
            double course = scale(1, seen[f] * lasts[f], courses);
            out[at++] =
                    marks.weight(Aspect.BRIGHTNESS) * JndThresholds.limited(bark / hearing.brightnessBark()) * course;
            double db = 10 * Math.log10((gain * i.loud[f] + 1e-5 * loudest) / (clean[f] + 1e-5 * loudest));
            out[at++] = marks.weight(Aspect.LOUDNESS) * JndThresholds.limited(db / hearing.loudnessDb()) * course;
        }
        return at;
    }

    private int rise(Features r, Features i, double gain, double quiet, double[] out, int start) {
        double top = 0;
        for (double v : r.rise) {
            top = Math.max(top, v);
        }
        double least = Math.max(1e-4 * top, 2 * quiet) + 1e-14;
        for (int k = 0; k < r.rise.length; k++) {
            double db = 10 * Math.log10((gain * i.rise[k] + least) / (r.rise[k] + least));
            out[start + k] = marks.weight(Aspect.ATTACK) * JndThresholds.limited(db / 2) * scale(1, 1, r.rise.length);
        }
        return start + r.rise.length;
    }

    private static double scale(double accent, double weight, double weights) {
        return Math.sqrt(accent * weight / weights / ASPECTS);
    }

    private static double decibels(double a, double b, double least) {
        return 10 * Math.log10((a + least) / (b + least));
    }

    public AnalysedSound recording() {
        return recording;
    }
}

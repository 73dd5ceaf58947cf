package nightreed.measure.partial;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import nightreed.dsp.RealFft;
import nightreed.dsp.Transforms;
import nightreed.work.Progress;

/**
 * Long partials that a body's thump covers at first. A box or a skin that is struck rumbles for some 50 ms; over the band that
 * it fills, a partial 20 dB below it stands out of nothing while it lasts, and plainly out of what is left afterwards. White
 * noise is what the least squares of {@link SpectralRefinement} are likeliest for, and the rumble is not as strong at the end as
 * at the beginning: what is louder at first counts for as little as nothing.
 */
public final class MaskedPartialSearch {
    /** How long a body thumps after its strike [s]. */
    private static final double THUMP_SECONDS = 0.05;

    /** Of these spans a note has to last at least three for anything to be told of what comes after the first. */
    private static final int LEAST_SPANS = 3;

    /** Part of the energy of the strongest partial after the thump (-50 dB) below which nothing is heard beside it. */
    private static final double AUDIBLE = 1e-5;

    /** Nepers that a partial may have fallen by meanwhile (10 dB) and still be told back to its beginning. */
    private static final double MOST_FALLEN = 1.15;

    /** Nepers after which nothing is left of a partial. */
    private static final double DEAD = 7;

    /** Nearer than this part of its frequency (a semitone) to a partial that still sounds, it is taken for a splinter of it. */
    private static final double APART = Math.log(2) / 12;

    /** Part of its energy (-20 dB) that a partial nearby has at the least if it still sounds. */
    private static final double STILL_SOUNDS = 0.01;

    private static final int ROUNDS = 3;

    /** Rumble over what is left after it (10 dB) from which it is a thump. */
    private static final double THUMPS = 10;

    /** Energy over that of the rumble in the same place (30 dB) from which a partial is as good as untouched by it. */
    private static final double UNTOUCHED = 1000;

    /** Surroundings of a partial that the rumble is told in, either side [Hz], and what of them is its own. */
    private static final double AROUND_HZ = 150;

    private static final double OWN_HZ = 30;

    /** Further than this no term moves as it is told again [Hz]. */
    private static final double SAME_HZ = 10;

    private final double[] x;
    private final double fs;
    private final int from;
    private final int end;
    private final int by;
    private final NoiseFloor floor;
    private final Transforms transforms;

    /**
     * @param from sample of {@code x} at which the terms begin
     * @param end  sample up to which they were looked for
     */
    public MaskedPartialSearch(double[] x, double fs, int from, int end, NoiseFloor floor, Transforms transforms) {
        this.x = x;
        this.fs = fs;
        this.from = from;
        this.end = end;
        this.by = (int) (THUMP_SECONDS * fs);
        this.floor = floor;
        this.transforms = transforms;
    }

    private boolean isLongEnough() {
        return end - from >= LEAST_SPANS * by;
    }

    private SpectralRefinement afterwards(double[] samples) {
        return new SpectralRefinement(samples, transforms);
    }

    private double[] samplesAfterwards() {
        return Arrays.copyOfRange(x, from + by, end);
    }

    /** The terms with those that are only found in what is left after the thump; they begin where the others do. */
    public List<DampedSinusoid> found(List<DampedSinusoid> terms) {
        if (!isLongEnough()) {
            return terms;
        }
        List<DampedSinusoid> later = later(terms);
        double[] left = afterwards(samplesAfterwards()).residual(later);
        int n = left.length;
        double loudest =
                later.stream().mapToDouble(t -> PartialSearch.power(t, n)).max().orElse(0);
        List<DampedSinusoid> all = new ArrayList<>(terms);
        PartialSearch search = new PartialSearch(n, fs, floor, transforms);
        for (DampedSinusoid t : DampedSinusoids.findMore(afterwards(left), search, List.of(), ROUNDS, Progress.NONE)) {
            double power = PartialSearch.power(t, n);
            boolean alone = later.stream()
                    .noneMatch(k -> Math.abs(Math.log(k.omega() / t.omega())) < APART
                            && PartialSearch.power(k, n) > STILL_SOUNDS * power);
            if (alone && power > AUDIBLE * loudest && t.alpha() * by < MOST_FALLEN) {
                all.add(t.movedBy(-by));
            }
        }
        return all;
    }

    /** The terms, of which those that a thump covers at first are told from what comes after it. */
    public List<DampedSinusoid> retold(List<DampedSinusoid> terms) {
        if (!isLongEnough()) {
            return terms;
        }
        List<DampedSinusoid> covered = covered(terms);
        if (covered.isEmpty()) {
            return terms;
        }
        SpectralRefinement rest = afterwards(samplesAfterwards());
        List<DampedSinusoid> again = rest.refine(
                later(terms).stream().filter(t -> t.alpha() * by < DEAD).toList(), ROUNDS);
        Map<DampedSinusoid, DampedSinusoid> became = became(terms, again);
        List<DampedSinusoid> out = new ArrayList<>();
        for (DampedSinusoid t : terms) {
            DampedSinusoid now = became.get(t);
            boolean told = now != null && now.alpha() * by < MOST_FALLEN;
            // one of a pair that could not be told apart any more: the other has become both
            boolean merged = now == null && again.stream().anyMatch(l -> apart(l, t) < SAME_HZ);
            if (!covered.contains(t)) {
                out.add(t);
            } else if (!merged) {
                out.add(told ? now.movedBy(-by) : t);
            }
        }
        return DampedSinusoids.prune(out, end - from, fs, floor);
    }

    private List<DampedSinusoid> later(List<DampedSinusoid> terms) {
        return terms.stream().map(t -> t.movedBy(by)).toList();
    }

    /** What terms have become, each by itself: those that moved least first. */
    private Map<DampedSinusoid, DampedSinusoid> became(List<DampedSinusoid> terms, List<DampedSinusoid> again) {
        record Step(DampedSinusoid from, DampedSinusoid to) {}
        List<Step> steps = new ArrayList<>();
        for (DampedSinusoid t : terms) {
            again.stream().filter(l -> apart(l, t) < SAME_HZ).forEach(l -> steps.add(new Step(t, l)));
        }
        steps.sort(Comparator.comparingDouble(s -> apart(s.from, s.to)));
        Map<DampedSinusoid, DampedSinusoid> out = new HashMap<>();
        Set<DampedSinusoid> taken = new HashSet<>();
        for (Step s : steps) {
            if (!out.containsKey(s.from) && taken.add(s.to)) {
                out.put(s.from, s.to);
            }
        }
        return out;
    }

    private double apart(DampedSinusoid a, DampedSinusoid b) {
        return Math.abs(a.omega() - b.omega()) * fs / (2 * Math.PI);
    }

    /** Long terms in whose surroundings there is more at first than afterwards, and not much less than of themselves. */
    private List<DampedSinusoid> covered(List<DampedSinusoid> terms) {
        double[] early = Arrays.copyOfRange(x, from, from + by);
        double[] left = samplesAfterwards();
        terms.forEach(t -> t.addTo(early, 0, -1));
        later(terms).forEach(t -> t.addTo(left, 0, -1));
        int length = RealFft.powerOfTwoFrom(by);
        RealFft fft = transforms.of(length);
        double[] first = spectrum(early, fft);
        double[] then = spectrum(left, fft);
        List<DampedSinusoid> out = new ArrayList<>();
        for (DampedSinusoid t : terms) {
            if (t.alpha() * by < MOST_FALLEN) {
                double rumble = around(first, t, length);
                double power = t.amplitude() * t.amplitude() / 4 * t.energySamples(by);
                if (rumble > THUMPS * around(then, t, length) && power < UNTOUCHED * rumble) {
                    out.add(t);
                }
            }
        }
        return out;
    }

    /** Power per bin of the first {@link #by} samples, faded out slowly, as variance per sample of white noise that has the same. */
    private double[] spectrum(double[] samples, RealFft fft) {
        double[] frame = new double[fft.length()];
        double norm = 0;
        for (int i = 0; i < by; i++) {
            double rise = Math.min(1, (i + 0.5) / (0.04 * by));
            double w = rise * Math.cos(Math.PI / 2 * i / by);
            frame[i] = w * samples[i];
            norm += w * w;
        }
        double[] power = RealFft.power(fft.forward(frame));
        for (int k = 0; k < power.length; k++) {
            power[k] /= norm;
        }
        return power;
    }

    /** Median of the spectrum around a term, without what is its own. */
    private double around(double[] power, DampedSinusoid t, int length) {
        double hz = t.omega() * fs / (2 * Math.PI);
        double[] near = new double[(int) Math.ceil(2 * AROUND_HZ / fs * length) + 2];
        int n = 0;
        int low = (int) Math.max(1, Math.ceil((hz - AROUND_HZ) / fs * length));
        for (int k = low; k < power.length && k * fs / length < hz + AROUND_HZ; k++) {
            if (Math.abs(k * fs / length - hz) > OWN_HZ) {
                near[n++] = power[k];
            }
        }
        double[] sorted = Arrays.copyOf(near, n);
        Arrays.sort(sorted);
        return n == 0 ? 0 : sorted[n / 2];
    }
}

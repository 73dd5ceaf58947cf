package nightreed.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.dsp.Transforms;
import nightreed.measure.law.FmLaw;
import nightreed.measure.law.FmLawFit;
import nightreed.measure.law.SidebandLattice;
import nightreed.measure.law.StiffString;
import nightreed.measure.law.TwinStrings;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.DampedSinusoids;
import nightreed.measure.partial.MaskedPartialSearch;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.Partial;
import nightreed.measure.partial.PartialAssembler;
import nightreed.measure.partial.PartialSearch;
import nightreed.measure.partial.SpectralRefinement;
import nightreed.work.Progress;

/**
 * What a struck or plucked note is made of: its damped sinusoids from the moment on at which the strike's own noise is over.
 *
 * @param start    sample at which the terms begin
 * @param terms    what was fitted, from {@code start} on
 * @param partials the terms as partials, from the onset on
 * @param string   law of a stiff string that they follow, null if they do not
 * @param fm       law of a frequency modulation that they follow, null if they do not
 */
record StruckNote(int start, List<DampedSinusoid> terms, List<Partial> partials, StiffString string, FmLaw fm) {
    /** Power over the background from which on a stretch belongs to the strike and not to the note. */
    private static final double STRIKE_RATIO = 3;

    /** Earliest beginning after the onset [s]: nothing that is struck is at full level before. */
    private static final double EARLIEST_SECONDS = 0.0016;

    private static final int MOST_SEARCHES = 3;

    /** Distance from whole numbers within which twice the ratio of carrier and modulator is one. */
    private static final double HARMONIC = 0.03;

    /** Decay of a partial that could have been missed a few milliseconds later, at the most [s]. */
    private static final double LONGEST_NEW_T60 = 0.5;

    /** Ratio of a partial over the noise at a place that was foretold: e^-11, at a few places, deceives hardly ever. */
    private static final double FORETOLD_RATIO = 11;

    /** A partial of a string that dies sooner than this is wide enough to be mistaken for its neighbours [s]. */
    private static final double FADING_T60 = 0.08;

    /**
     * @param late sample at which the strike is surely over
     * @param end  sample up to which the note is looked at
     */
    static StruckNote analyse(
            double[] x, double fs, int onset, int late, int end, NoiseFloor floor, Progress progress) {
        Transforms transforms = new Transforms();
        SpectralRefinement first = new SpectralRefinement(Arrays.copyOfRange(x, late, end), transforms);
        PartialSearch all = new PartialSearch(first.length(), fs, floor, transforms);
        List<DampedSinusoid> terms = DampedSinusoids.begin(first, all);
        FmLaw modulation = modulation(x, fs, onset, late, end, terms, floor);
        if (modulation != null) {
            return new StruckNote(late, terms, modulation.partials((end - onset) / fs, fs, floor), null, modulation);
        }
        terms = DampedSinusoids.finish(first, all, terms, progress.part(0, 0.6));
        terms = new MaskedPartialSearch(x, fs, late, end, floor, transforms).found(terms);
        int start = late;
        double background = background(x, fs, late, end, terms, floor);
        progress.report(0.6, "looking at the strike");
        StiffString string = StiffString.fit(new PartialAssembler(fs, end - late, late - onset).of(terms));
        int searches = 0;
        while (start - onset > EARLIEST_SECONDS * fs * 1.2) {
            int earlier = onset + (int) Math.max(EARLIEST_SECONDS * fs, (start - onset) * 0.7);
            List<DampedSinusoid> moved = moved(terms, earlier - start);
            if (power(residual(x, earlier, start, moved)) > STRIKE_RATIO * background) {
                if (searches++ == MOST_SEARCHES) {
                    break;
                }
                // it may be partials that die so soon that they were not seen yet
                double[] y = Arrays.copyOfRange(x, earlier, end);
                SpectralRefinement refinement = new SpectralRefinement(y, transforms);
                PartialSearch search = new PartialSearch(y.length, fs, floor, LONGEST_NEW_T60, transforms);
                moved = string == null
                        ? DampedSinusoids.findMore(refinement, search, moved, 2, Progress.NONE)
                        : foretold(refinement, fs, floor, moved, string);
                if (power(residual(x, earlier, start, moved)) > STRIKE_RATIO * background) {
                    break;
                }
                StiffString again = StiffString.fit(new PartialAssembler(fs, y.length, earlier - onset).of(moved));
                string = again == null ? string : again;
            }
            terms = moved;
            start = earlier;
        }
        double[] y = Arrays.copyOfRange(x, start, end);
        SpectralRefinement refinement = new SpectralRefinement(y, transforms);
        if (start != late) {
            PartialSearch search = new PartialSearch(y.length, fs, floor, LONGEST_NEW_T60, transforms);
            terms = DampedSinusoids.findMore(refinement, search, terms, 3, progress.part(0.7, 0.9));
        }
        MaskedPartialSearch thump = new MaskedPartialSearch(x, fs, start, end, floor, transforms);
        terms = thump.retold(terms);
        PartialAssembler account = new PartialAssembler(fs, y.length, start - onset);
        List<Partial> partials = account.of(terms);
        TwinStrings twins = TwinStrings.find(partials);
        string = StiffString.fit(twins == null ? partials : without(partials, twins.weaker()));
        boolean modulated = string == null && twins == null;
        SidebandLattice lattice = modulated ? SidebandLattice.find(terms, fs, y.length) : null;
        SidebandLattice likely = modulated ? SidebandLattice.likely(terms, fs, y.length) : null;
        FmLaw law = likely == null ? null : FmLawFit.fit(y, fs, start - onset, likely, terms, floor);
        if (law == null && lattice != null && !lattice.equals(likely)) {
            law = FmLawFit.fit(y, fs, start - onset, lattice, terms, floor);
        }
        if (law != null) {
            partials = law.partials(y.length / fs, fs, floor);
        } else if (lattice != null) {
            terms = new ArrayList<>(terms);
            terms.addAll(lattice.foretold(refinement.residual(terms), terms, fs, floor));
            partials = lattice.partials(terms, account, fs);
        }
        if (string != null && twins == null) {
            progress.report(0.9, "looking where a string's partials must be");
            for (int pass = 0; pass < 3; pass++) {
                List<DampedSinusoid> more = foretold(refinement, fs, floor, terms, string);
                boolean done = more.size() <= terms.size();
                terms = more;
                partials = account.of(terms);
                StiffString again = StiffString.fit(partials);
                string = again == null ? string : again;
                if (done) {
                    break;
                }
            }
            terms = thump.retold(terms);
            partials = string.weigh(account.of(terms));
        }
        return new StruckNote(start, terms, partials, string, law);
    }

    /**
     * The law of a modulation, if the strong partials lie on a lattice and it explains the samples: then nothing more has to
     * be looked for. A lattice whose carrier is a multiple of its modulator, or half-way between two, is first taken for a
     * harmonic series.
     */
    private static FmLaw modulation(
            double[] x, double fs, int onset, int late, int end, List<DampedSinusoid> strong, NoiseFloor floor) {
        int from = onset + (int) Math.ceil(FmLawFit.RISE_SECONDS * fs);
        SidebandLattice likely = SidebandLattice.likely(strong, fs, end - from);
        if (likely == null) {
            return null;
        }
        double halves = 2 * likely.carrierHz() / likely.modulatorHz();
        return Math.abs(halves - Math.rint(halves)) < HARMONIC
                ? null
                : FmLawFit.fit(
                        Arrays.copyOfRange(x, from, end), fs, from - onset, likely, moved(strong, from - late), floor);
    }

    /**
     * Looks for partials at the places that the string's law foretells. What dies soon and lies between the places was put
     * there for want of better, and gives way.
     */
    private static List<DampedSinusoid> foretold(
            SpectralRefinement refinement,
            double fs,
            NoiseFloor floor,
            List<DampedSinusoid> terms,
            StiffString string) {
        List<DampedSinusoid> kept = new ArrayList<>(terms);
        kept.removeIf(t -> {
            double hz = t.omega() * fs / (2 * Math.PI);
            double off = Math.abs(string.hz(string.number(hz)) - hz) * 2 * Math.PI / fs;
            return t.alpha() * FADING_T60 * fs > Math.log(1000) && off > 0.35 * t.alpha() + 0.5 * t.omegaSe();
        });
        double[] residual = refinement.residual(kept);
        List<DampedSinusoid> fresh = new ArrayList<>();
        for (int n = 1; n <= string.last() * 2 && string.hz(n) < 0.46 * fs; n++) {
            double omega = 2 * Math.PI * string.hz(n) / fs;
            double alpha = string.decayPerSecond(string.hz(n)) / fs;
            double zone = Math.max(alpha, 2 * Math.PI * 4 / fs);
            boolean taken = kept.stream().anyMatch(t -> Math.abs(t.omega() - omega) < zone && t.snr() > 32);
            if (!taken && alpha < 0.02) {
                double ratio = DampedSinusoid.matched(residual, omega, alpha, floor.at(string.hz(n)))
                        .snr();
                if (ratio > FORETOLD_RATIO) {
                    fresh.add(DampedSinusoid.candidate(omega, alpha, ratio));
                }
            }
        }
        if (fresh.isEmpty()) {
            return terms;
        }
        kept.removeIf(t -> t.snr() <= 32 && fresh.stream().anyMatch(f -> Math.abs(f.omega() - t.omega()) < 24 / fs));
        kept.addAll(fresh);
        return DampedSinusoids.prune(refinement.refine(kept, 4), residual.length, fs, floor);
    }

    private static List<Partial> without(List<Partial> partials, List<Partial> some) {
        List<Partial> out = new ArrayList<>(partials);
        out.removeAll(some);
        return out;
    }

    private static List<DampedSinusoid> moved(List<DampedSinusoid> terms, int by) {
        return terms.stream().map(t -> t.movedBy(by)).toList();
    }

    private static double[] residual(double[] x, int from, int to, List<DampedSinusoid> terms) {
        double[] r = Arrays.copyOfRange(x, from, to);
        for (DampedSinusoid t : terms) {
            t.addTo(r, 0, -1);
        }
        return r;
    }

    private static double power(double[] r) {
        double sum = 0;
        for (double v : r) {
            sum += v * v / r.length;
        }
        return sum;
    }

    /** What the terms leave over once the strike is surely over. */
    private static double background(
            double[] x, double fs, int late, int end, List<DampedSinusoid> terms, NoiseFloor floor) {
        // what is not yet found dies within the first moments and must not pass for background
        int from = (int) Math.min(end - 0.03 * fs, late + 0.05 * fs);
        double[] r = residual(x, late, (int) Math.min(end, Math.max(late, from) + 0.1 * fs), terms);
        int skipped = Math.max(0, from - late);
        return Math.max(floor.total(), power(Arrays.copyOfRange(r, skipped, r.length)));
    }
}

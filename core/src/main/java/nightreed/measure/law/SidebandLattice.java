package nightreed.measure.law;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.dsp.LineFit;
import nightreed.measure.partial.DampedSinusoid;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.Partial;
import nightreed.measure.partial.PartialAssembler;
import nightreed.measure.partial.PartialSearch;

/**
 * Lines at |c + k m|: what frequency modulation of one sine by another makes (J. Chowning, JAES 21(7), 1973). As the index
 * falls, their levels swing like Bessel functions and not like exponentials, and a fit of exponentials finds several terms
 * in one line. Where all lines lie on one such lattice, each place is one partial.
 *
 * @param carrierHz   c [Hz]
 * @param modulatorHz m [Hz], above 0
 * @param carrierVar  variance of c [Hz²]
 * @param covariance  covariance of c and m [Hz²]
 * @param modulatorVar variance of m [Hz²]
 */
public record SidebandLattice(
        double carrierHz, double modulatorHz, double carrierVar, double covariance, double modulatorVar) {
    private static final int HIGHEST_ORDER = 16;
    private static final int FEWEST = 6;
    private static final double LEAST_MODULATOR_HZ = 40;

    /** Share of the energy that has to lie on the lattice. */
    private static final double LEAST_SHARE = 0.985;

    /** The same where the samples themselves have the last word. */
    private static final double LIKELY_SHARE = 0.85;

    /** Share of the lines that have to lie on it: where others stand beside it, it is there by chance. */
    private static final double LEAST_LINES = 0.7;

    /** Decays that are looked for at places where the search found nothing [s]. */
    private static final double[] FORETOLD_T60 = {1.2, 0.4, 0.16, 0.066, 0.03};

    /** Ratio over the noise that a line needs at such a place, as {@link #partials} asks for. */
    private static final double FORETOLD_RATIO = 36;

    /** The same over what lies beside it. */
    private static final double FORETOLD_CONTRAST = 6;

    public double hz(int k) {
        return Math.abs(carrierHz + k * modulatorHz);
    }

    /** A line as the terms show it: the place of its surest term, how sure that is [Hz], the
     * half-width that its decay gives it [Hz], and its energy. */
    private record Line(double hz, double se, double width, double energy) {}

    /**
     * @param terms what was fitted
     * @param fs    rate of the samples [Hz]
     * @param n     samples that they were fitted to
     * @return null unless at least six lines, most of all lines and nearly all of the energy lie on one lattice
     */
    public static SidebandLattice find(List<DampedSinusoid> terms, double fs, int n) {
        List<Line> lines = lines(terms, fs, n);
        SidebandLattice best = best(lines, LEAST_SHARE);
        return best != null && best.held(lines) >= Math.max(FEWEST, LEAST_LINES * lines.size()) ? best : null;
    }

    /** A lattice that might be one, to be judged by something that knows better: much of the energy lies on it. */
    public static SidebandLattice likely(List<DampedSinusoid> terms, double fs, int n) {
        return best(lines(terms, fs, n), LIKELY_SHARE);
    }

    /** Whether most of the lines that the terms make lie on this lattice, however weak they are. */
    public boolean holds(List<DampedSinusoid> terms, double fs, int n) {
        List<Line> lines = lines(terms, fs, n);
        return held(lines) >= LEAST_LINES * lines.size();
    }

    private static SidebandLattice best(List<Line> lines, double leastShare) {
        if (lines.size() < FEWEST) {
            return null;
        }
        List<Line> loud = lines.subList(0, Math.min(10, lines.size()));
        SidebandLattice best = null;
        double most = 0;
        for (Line a : loud) {
            for (Line b : loud) {
                for (int k = 1; k <= 3; k++) {
                    for (int fold = -1; fold <= 1; fold += 2) {
                        double m = Math.abs(b.hz + fold * a.hz) / k;
                        if (a == b || m < LEAST_MODULATOR_HZ) {
                            continue;
                        }
                        SidebandLattice l = new SidebandLattice(a.hz, m, 0, 0, 0).settled(lines);
                        double share = l.share(lines);
                        // of two lattices that hold the same lines, the wider one says more
                        double score = share + 1e-5 * l.modulatorHz;
                        if (share > leastShare && score > most) {
                            best = l;
                            most = score;
                        }
                    }
                }
            }
        }
        return best;
    }

    private static List<Line> lines(List<DampedSinusoid> terms, double fs, int n) {
        List<DampedSinusoid> sorted = new ArrayList<>(terms);
        sorted.sort(Comparator.comparingDouble(t -> -PartialSearch.power(t, n)));
        List<Line> out = new ArrayList<>();
        boolean[] taken = new boolean[sorted.size()];
        for (int i = 0; i < sorted.size(); i++) {
            DampedSinusoid t = sorted.get(i);
            if (taken[i] || t.snr() < 32) {
                continue;
            }
            double energy = 0;
            DampedSinusoid surest = t;
            for (int j = i; j < sorted.size(); j++) {
                DampedSinusoid o = sorted.get(j);
                double zone = 3 * Math.max(t.alpha(), o.alpha()) + 2 * Math.PI * 3 / fs;
                if (!taken[j] && Math.abs(o.omega() - t.omega()) < zone) {
                    taken[j] = true;
                    energy += PartialSearch.power(o, n);
                    surest = o.omegaSe() < surest.omegaSe() ? o : surest;
                }
            }
            double toHz = fs / (2 * Math.PI);
            out.add(new Line(surest.omega() * toHz, surest.omegaSe() * toHz, surest.alpha() * toHz, energy));
        }
        return out;
    }

    private int order(double hz) {
        int best = 0;
        for (int k = -HIGHEST_ORDER; k <= HIGHEST_ORDER; k++) {
            if (Math.abs(hz(k) - hz) < Math.abs(hz(best) - hz)) {
                best = k;
            }
        }
        return best;
    }

    /** Distance within which a line may lie on its place [Hz]: one that dies soon is pulled about by what it is not. */
    private double reach(Line l) {
        return Math.min(modulatorHz / 25, 0.5 + 3 * l.se + 0.7 * l.width);
    }

    private double share(List<Line> lines) {
        double all = 0;
        double on = 0;
        for (Line l : lines) {
            all += l.energy;
            on += Math.abs(hz(order(l.hz)) - l.hz) < reach(l) ? l.energy : 0;
        }
        return on / all;
    }

    private int held(List<Line> lines) {
        return (int) lines.stream()
                .filter(l -> Math.abs(hz(order(l.hz)) - l.hz) < reach(l))
                .mapToInt(l -> order(l.hz))
                .distinct()
                .count();
    }

    /** Mean square distance of the lines from their places in their own errors, at least 1. */
    private double misfit(List<Line> lines, double c, double m) {
        double sum = 0;
        int count = 0;
        for (Line l : lines) {
            int k = order(l.hz);
            if (Math.abs(hz(k) - l.hz) < reach(l)) {
                double off = Math.abs(c + k * m) - l.hz;
                sum += off * off * weight(l);
                count++;
            }
        }
        return count > 2 ? Math.max(1, sum / (count - 2)) : 1;
    }

    private static double weight(Line l) {
        return 1 / (l.se * l.se + 0.01 * l.width * l.width + 0.01 * 0.01);
    }

    /** Standard error of the place of order {@code k} [Hz]. */
    private double seHz(int k) {
        return Math.sqrt(Math.max(0, carrierVar + 2 * k * covariance + (double) k * k * modulatorVar));
    }

    /** Least squares of c and m over the lines that lie on the lattice. */
    private SidebandLattice settled(List<Line> lines) {
        SidebandLattice at = this;
        for (int pass = 0; pass < 3; pass++) {
            LineFit line = new LineFit();
            for (Line l : lines) {
                int k = at.order(l.hz);
                double signed = Math.copySign(l.hz, at.carrierHz + k * at.modulatorHz);
                if (Math.abs(at.hz(k) - l.hz) < at.reach(l)) {
                    line.add(k, signed, weight(l));
                }
            }
            double m = line.slope();
            if (!line.settled() || !(m > LEAST_MODULATOR_HZ)) {
                return at;
            }
            double c = line.intercept();
            double misfit = at.misfit(lines, c, m);
            at = new SidebandLattice(
                    c, m, misfit * line.interceptVariance(), misfit * line.covariance(), misfit * line.slopeVariance());
        }
        return at;
    }

    /**
     * Terms at places of the lattice that the search did not come to: it spends itself on what swings in the strong lines.
     * What stands out of the noise at such a place, and out of what is left a fifth of the way to the next places, is a line.
     *
     * @param residual what all terms leave over
     */
    public List<DampedSinusoid> foretold(double[] residual, List<DampedSinusoid> terms, double fs, NoiseFloor floor) {
        List<DampedSinusoid> out = new ArrayList<>();
        for (int k = -HIGHEST_ORDER; k <= HIGHEST_ORDER; k++) {
            double hz = hz(k);
            boolean taken = terms.stream().anyMatch(t -> Math.abs(t.omega() * fs / (2 * Math.PI) - hz) < 6);
            if (taken || hz < 30 || hz > 0.46 * fs) {
                continue;
            }
            DampedSinusoid best = null;
            double stands = 0;
            for (double t60 : FORETOLD_T60) {
                double alpha = Math.log(1000) / (t60 * fs);
                DampedSinusoid here = at(residual, hz, alpha, fs, floor);
                double beside = Math.max(
                        at(residual, hz - 0.2 * modulatorHz, alpha, fs, floor).snr(),
                        at(residual, hz + 0.2 * modulatorHz, alpha, fs, floor).snr());
                if (here.snr() > FORETOLD_RATIO && here.snr() > FORETOLD_CONTRAST * beside && here.snr() > stands) {
                    stands = here.snr();
                    best = here;
                }
            }
            if (best != null) {
                out.add(best);
            }
        }
        return out;
    }

    private static DampedSinusoid at(double[] residual, double hz, double alpha, double fs, NoiseFloor floor) {
        return DampedSinusoid.matched(residual, 2 * Math.PI * hz / fs, alpha, floor.at(hz));
    }

    /**
     * One partial for every place of the lattice that sounds, in place of the terms there.
     *
     * @param account makes partials of terms
     */
    public List<Partial> partials(List<DampedSinusoid> terms, PartialAssembler account, double fs) {
        double[] re = new double[2 * HIGHEST_ORDER + 1];
        double[] im = new double[re.length];
        double[] snr = new double[re.length];
        List<DampedSinusoid> rest = new ArrayList<>();
        for (DampedSinusoid t : terms) {
            double hz = t.omega() * fs / (2 * Math.PI);
            int k = order(hz);
            double zone = 3 + Math.min(modulatorHz / 4, 4 * t.alpha() * fs / (2 * Math.PI));
            if (Math.abs(hz(k) - hz) < zone) {
                int i = k + HIGHEST_ORDER;
                DampedSinusoid begun = account.atOnset(t);
                re[i] += begun.cRe();
                im[i] += begun.cIm();
                snr[i] += t.snr();
            } else {
                rest.add(t);
            }
        }
        double strongest = 1e-12;
        for (int i = 0; i < re.length; i++) {
            strongest = Math.max(strongest, Math.hypot(re[i], im[i]));
        }
        List<Partial> out = new ArrayList<>();
        for (int i = 0; i < re.length; i++) {
            double amplitude = Math.hypot(re[i], im[i]);
            if (snr[i] > 32 && amplitude > 0) {
                out.add(new Partial(
                        hz(i - HIGHEST_ORDER),
                        1,
                        20 * Math.log10(amplitude / strongest),
                        amplitude,
                        Math.atan2(im[i], re[i]),
                        null,
                        null,
                        null,
                        null,
                        seHz(i - HIGHEST_ORDER),
                        null,
                        10 * Math.log10(snr[i]),
                        true));
            }
        }
        for (Partial p : account.of(rest)) {
            double db = 20 * Math.log10(p.amplitude() / strongest);
            out.add(p.relevelled(db, p.reliable() && db > -30));
        }
        return out;
    }
}

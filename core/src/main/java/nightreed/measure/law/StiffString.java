package nightreed.measure.law;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.dsp.LineFit;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;

/**
 * Law of a stiff string: f_n = n f0 √(1 + B n²) (H. Fletcher, "Normal vibration frequencies of a stiff piano string", JASA
 * 36, 1964), and decays 1/τ = a + b f² (Valette; see A. Chaigne, V. Doutaut, JASA 101, 1997).
 *
 * @param f0Hz         fundamental without stiffness [Hz]
 * @param b            stiffness B
 * @param bSe          its standard error
 * @param spreadCents  root mean square distance of the partials from the law beyond their own errors [cents]
 * @param decayA       a [1/s]
 * @param decayB       b [s]
 * @param decaySpread  relative distance of the decays from their law beyond their own errors
 * @param doubt        how sure the places of the law are
 * @param matched      partials that follow it
 * @param last         highest number among them
 */
public record StiffString(
        double f0Hz,
        double b,
        double bSe,
        double spreadCents,
        double decayA,
        double decayB,
        double decaySpread,
        Doubt doubt,
        int matched,
        int last) {
    /** Distance from the law beyond which a partial is none of the string's [cents]. */
    private static final double STRAY_CENTS = 8;

    private static final int FEWEST = 5;
    private static final double LEAST_SPREAD_CENTS = 0.003;
    private static final double LEAST_DECAY_SPREAD = 0.004;

    /** Whether the stiffness can be told from none. */
    public boolean isStiff() {
        return b > 3 * bSe && b > 1e-7;
    }

    /** Frequency of partial {@code n} [Hz]. */
    public double hz(int n) {
        return n * f0Hz * Math.sqrt(1 + b * n * n);
    }

    /** Decay that the law foretells at a frequency [1/s]. */
    public double decayPerSecond(double hz) {
        return Math.max(0.2, decayA + decayB * hz * hz);
    }

    /**
     * Variance of the squared place of partial n over that of the fundamental: v0 + v1 n² + v2 n⁴, from the covariance of
     * the line through (f/n)² over n².
     */
    public record Doubt(double v0, double v1, double v2) {
        static final Doubt NONE = new Doubt(0, 0, 0);

        /** Standard error of the place of partial {@code n} [cents]. */
        double cents(int n) {
            double x = (double) n * n;
            return 1200 / Math.log(2) * Math.sqrt(Math.max(0, v0 + v1 * x + v2 * x * x)) / 2;
        }
    }

    private record Member(Partial p, int n) {
        /** 1/τ of its early stage [1/s]: the late one belongs to the coupling. */
        double decay() {
            return Math.log(1000)
                    / (p.stages() == null ? p.t60Seconds() : p.stages().earlyT60Seconds());
        }
    }

    /**
     * @param partials as measured
     * @return null if fewer than five partials, or less than most of them, follow the law
     */
    public static StiffString fit(List<Partial> partials) {
        List<Partial> sure = partials.stream()
                .filter(p -> p.reliable() && p.t60Seconds() != null && p.levelDb() > -60)
                .sorted(Comparator.comparingDouble(Partial::frequencyHz))
                .toList();
        if (sure.size() < FEWEST) {
            return null;
        }
        Grown best = null;
        double most = 0;
        List<Partial> loud = sure.stream()
                .sorted(Comparator.comparingDouble((Partial p) -> -p.levelDb()))
                .limit(5)
                .toList();
        for (Partial anchor : loud) {
            for (int k = 1; k <= 4; k++) {
                Grown g = grow(anchor.frequencyHz() / k, sure);
                if (g != null) {
                    // every number that a fundamental asks for and that is not there counts against it
                    double score = g.string.matched - 0.3 * (g.string.last - g.string.matched);
                    if (best == null || score > most) {
                        best = g;
                        most = score;
                    }
                }
            }
        }
        double energy = 0;
        double explained = 0;
        for (Partial p : sure) {
            double e = p.amplitude() * p.amplitude();
            energy += e;
            if (best != null && Math.abs(best.string.centsOff(p)) < STRAY_CENTS) {
                explained += e;
            }
        }
        if (best == null || explained <= 0.9 * energy) {
            return null;
        }
        StiffString s = best.string;
        return s.matched >= 0.7 * sure.size() && s.matched >= 0.5 * s.last ? decays(s, best.members) : null;
    }

    private double centsOff(Partial p) {
        return Pitch.cents(hz(number(p.frequencyHz())), p.frequencyHz());
    }

    /** Number of the partial whose place is the nearest to a frequency. */
    public int number(double hz) {
        int n = (int) Math.max(1, Math.round(hz / f0Hz));
        while (n > 1 && Math.abs(hz(n - 1) - hz) < Math.abs(hz(n) - hz)) {
            n--;
        }
        return n;
    }

    /** A law whose decays are not looked at yet, and what follows it. */
    private record Grown(StiffString string, List<Member> members) {}

    /** From the fundamental up: each partial that lies where the law of those below it wants it joins them. */
    private static Grown grow(double f0, List<Partial> sure) {
        StiffString s = new StiffString(f0, 0, 1, 0, 1, 0, 1, Doubt.NONE, 0, 0);
        List<Member> members = new ArrayList<>();
        for (Partial p : sure) {
            int n = s.number(p.frequencyHz());
            double reach = members.size() < 3 ? 25 : STRAY_CENTS + 20.0 / members.size();
            if (Math.abs(s.centsOff(p)) < reach && (members.isEmpty() || n > members.get(members.size() - 1).n)) {
                members.add(new Member(p, n));
                s = solve(members, f0);
                if (s == null) {
                    return null;
                }
            }
        }
        return members.size() < FEWEST ? null : new Grown(s, members);
    }

    /** Weighted least squares of (f/n)² = f0² + f0² B n², straight in n². */
    private static StiffString solve(List<Member> members, double firstHz) {
        if (members.size() < 3) {
            double sum = 0;
            for (Member m : members) {
                sum += m.p.frequencyHz() / m.n / members.size();
            }
            return new StiffString(
                    sum, 0, 1, 0, 1, 0, 1, Doubt.NONE, members.size(), members.get(members.size() - 1).n);
        }
        double extra = LEAST_SPREAD_CENTS;
        StiffString s = null;
        for (int pass = 0; pass < 3; pass++) { // the spread beyond the errors is part of the weights
            LineFit line = new LineFit();
            for (Member m : members) {
                double se = Math.hypot(cents(m.p), extra) * Math.log(2) / 1200;
                double y = m.p.frequencyHz() * m.p.frequencyHz() / ((double) m.n * m.n) / (firstHz * firstHz);
                line.add((double) m.n * m.n, y, 1 / (4 * y * y * se * se));
            }
            double level = line.intercept();
            if (!(level > 0) || !line.settled()) {
                return null;
            }
            double b = Math.max(0, line.slope() / level);
            double bSe = Math.sqrt(line.slopeVariance()) / level;
            Doubt doubt = new Doubt(line.interceptVariance(), 2 * line.covariance(), line.slopeVariance());
            if (b == 0) {
                level = line.mean();
                doubt = new Doubt(1 / line.weight(), 0, 0);
            }
            s = new StiffString(
                    firstHz * Math.sqrt(level),
                    b,
                    bSe,
                    extra,
                    1,
                    0,
                    1,
                    doubt,
                    members.size(),
                    members.get(members.size() - 1).n);
            extra = Math.max(LEAST_SPREAD_CENTS, spread(s, members));
        }
        return s;
    }

    private static double cents(Partial p) {
        return 1200 / Math.log(2) * p.frequencySeHz() / p.frequencyHz();
    }

    /** Robust spread of the distances beyond what their errors explain [cents]. */
    private static double spread(StiffString s, List<Member> members) {
        double[] excess = members.stream()
                .mapToDouble(m -> {
                    double d = Pitch.cents(s.hz(m.n), m.p.frequencyHz());
                    return d * d - cents(m.p) * cents(m.p);
                })
                .sorted()
                .toArray();
        return Math.sqrt(Math.max(0, excess[(int) (0.68 * (excess.length - 1))]));
    }

    /** a and b of 1/τ = a + b f², by least squares in relative errors, and how far the decays lie from it. */
    private static StiffString decays(StiffString s, List<Member> members) {
        double extra = 0.1;
        double a = 1;
        double b = 0;
        for (int pass = 0; pass < 4; pass++) {
            LineFit line = new LineFit();
            for (Member m : members) {
                double y = m.decay();
                double x = m.p.frequencyHz() * m.p.frequencyHz();
                double expected = pass == 0 ? y : Math.max(0.1 * y, a + b * x);
                double se = expected * Math.hypot(m.p.t60SeSeconds() / m.p.t60Seconds(), extra);
                line.add(x, y, 1 / (se * se));
            }
            b = Math.max(0, line.slope());
            a = Math.max(0, b == 0 ? line.mean() : line.intercept());
            double a2 = a;
            double b2 = b;
            double[] excess = members.stream()
                    .mapToDouble(m -> {
                        double rel = m.p.t60SeSeconds() / m.p.t60Seconds();
                        double d = Math.log(m.decay() / (a2 + b2 * m.p.frequencyHz() * m.p.frequencyHz() + 1e-9));
                        return d * d - rel * rel;
                    })
                    .sorted()
                    .toArray();
            extra = Math.sqrt(
                    Math.max(LEAST_DECAY_SPREAD * LEAST_DECAY_SPREAD, excess[(int) (0.75 * (excess.length - 1))]));
        }
        return new StiffString(s.f0Hz, s.b, s.bSe, s.spreadCents, a, b, extra, s.doubt, s.matched, s.last);
    }

    /**
     * Partials with what the law says of them: a member's frequency and decay are weighed against the law by their errors
     * and by how closely the members keep to it (empirical Bayes; B. Efron, C. Morris, 1975).
     */
    public List<Partial> weigh(List<Partial> partials) {
        List<Partial> out = new ArrayList<>();
        for (Partial p : partials) {
            int n = number(p.frequencyHz());
            double own = Math.max(1e-9, cents(p));
            boolean member = p.t60Seconds() != null
                    && Math.abs(Pitch.cents(hz(n), p.frequencyHz())) < STRAY_CENTS + 3 * own
                    && p.beatHz() == null;
            if (!member) {
                out.add(p);
                continue;
            }
            double law = spreadCents * spreadCents;
            double trust = law / (law + own * own); // in the partial itself
            double hz = Math.exp(trust * Math.log(p.frequencyHz()) + (1 - trust) * Math.log(hz(n)));
            double rel = p.t60SeSeconds() / p.t60Seconds();
            double decayLaw = decaySpread * decaySpread;
            double decayTrust = p.stages() != null ? 1 : decayLaw / (decayLaw + rel * rel);
            double t60 = Math.exp(decayTrust * Math.log(p.t60Seconds())
                    + (1 - decayTrust) * Math.log(Math.log(1000) / decayPerSecond(hz)));
            out.add(p.weighed(
                    hz,
                    hz * Math.log(2) / 1200 * Math.hypot(own * Math.sqrt(trust), (1 - trust) * doubt.cents(n)),
                    t60,
                    p.t60SeSeconds() * Math.sqrt(decayTrust),
                    p.reliable() || p.snrDb() > 12));
        }
        return out;
    }
}

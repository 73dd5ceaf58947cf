package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.SidebandGrid;
import nightreed.match.start.StartContext.Line;
import nightreed.match.start.fm.ViterbiIndexPath.Like;
import nightreed.voice.fm.Sidebands;

/**
 * Carriers and modulators whose sidebands lie where the recording's partials do, with index and level frame by frame (after A.
 * Horner, J. Beauchamp, L. Haken, "Machine Tongues XVI", 1993). Candidates for the modulator are sums and differences of partials
 * ({@link nightreed.match.start.SidebandGrid}).
 */
final class FrameIndexSearch {
    /** Indexes that are tried in each frame. */
    private static final double[] INDEXES = {
        0, 0.12, 0.25, 0.4, 0.55, 0.75, 0.95, 1.2, 1.45, 1.75, 2.05, 2.4, 2.8, 3.2, 3.7, 4.3, 5, 5.8, 6.7, 7.8, 9, 10.5,
        12.5
    };

    private static final int ORDERS = 26;

    /** Combs that are looked at closely, and pairs after a rough look. */
    private static final int COMBS = 60;

    private static final int LIKELIEST = 48;

    /** A partial lies on a line within this [Hz], or share of its frequency. */
    private static final double NEAR_HZ = 0.4;

    private final NonuniformStft frames;
    private final double[][] bessel; // J_k(I) squared [index][order]
    private final double[][] seen; // roots of the amplitudes [frame][bin]
    private final double[] norm;

    FrameIndexSearch(NonuniformStft frames) {
        this.frames = frames;
        bessel = new double[INDEXES.length][];
        for (int i = 0; i < INDEXES.length; i++) {
            double[] j = Sidebands.bessel(INDEXES[i], ORDERS);
            bessel[i] = new double[ORDERS + 1];
            for (int k = 0; k <= ORDERS; k++) {
                bessel[i][k] = j[k] * j[k];
            }
        }
        seen = new double[frames.count()][];
        norm = new double[frames.count()];
        for (int f = 0; f < seen.length; f++) {
            double[] p = frames.power(f);
            seen[f] = new double[p.length];
            for (int k = 0; k < p.length; k++) {
                seen[f][k] = root(p[k]);
                norm[f] += seen[f][k] * seen[f][k];
            }
        }
    }

    /** A root of the amplitude, so that weak lines count beside strong ones. */
    private static double root(double power) {
        return Math.sqrt(Math.sqrt(power));
    }

    /**
     * One pair through all frames.
     *
     * @param likeness 1 where its lines are all there is, 0 where none of them is there
     * @param spectral the same of the frames alone, without asking whether the lines lie exactly on partials
     * @param index    per frame [rad]
     * @param level    amplitude of the carrier that it would take, per frame
     */
    record Course(
            double carrierHz, double modulatorHz, double likeness, double spectral, double[] index, double[] level) {}

    /**
     * @param lines of the spectrum, the strongest first; at least one
     * @param f0    of the sound [Hz]
     * @param most  results
     * @return pairs that differ, the likeliest first; never empty
     */
    List<Course> pairs(List<Line> lines, double f0, int most) {
        List<Comb> all = candidates(lines, f0);
        int[] few = few();
        all.parallelStream().forEach(c -> c.likeness = c.roughly(few));
        all.sort(Comparator.comparingDouble(c -> -c.likeness));
        List<Course> out = all.subList(0, Math.min(LIKELIEST, all.size())).parallelStream()
                .map(c -> tuned(c.carrier, c.modulator, lines))
                .map(t -> new Comb(t[0], t[1]).course(lines, INDEXES.length))
                .sorted(Comparator.comparingDouble(c -> -c.likeness))
                .toList();
        List<Course> differing = new ArrayList<>();
        for (Course c : out) {
            boolean known = differing.stream()
                    .anyMatch(o -> near(o.carrierHz, c.carrierHz) && near(o.modulatorHz, c.modulatorHz));
            if (!known && differing.size() < most) {
                differing.add(c);
            }
        }
        return differing;
    }

    /** A sine at a line. */
    Course plain(Line line, double modulatorHz) {
        return new Comb(line.hz(), modulatorHz).course(List.of(line), 1);
    }

    private static boolean near(double a, double b) {
        return Math.abs(a / b - 1) < 0.0008;
    }

    /** The first frame, one in the middle and one near the end of what counts. */
    private int[] few() {
        int last = 0;
        for (int f = 0; f < frames.count(); f++) {
            last = frames.weight(f) > 0.3 ? f : last;
        }
        return new int[] {0, last / 2, last};
    }

    private List<Comb> candidates(List<Line> lines, double f0) {
        double top = 0.9 * frames.bins() * frames.binHz();
        List<Comb> out = new ArrayList<>();
        for (SidebandGrid l : SidebandGrid.of(lines, f0, frames, COMBS)) {
            List<Double> carriers = new ArrayList<>();
            for (int k = -4; k <= 4; k++) {
                double c = Math.abs(l.offset() + k * l.modulator());
                if (c > 2 * frames.binHz() && c < top) {
                    add(carriers, c);
                }
            }
            carriers.forEach(c -> out.add(new Comb(c, l.modulator())));
        }
        if (out.isEmpty()) {
            out.add(new Comb(lines.get(0).hz(), lines.get(0).hz()));
        }
        return out;
    }

    private static void add(List<Double> to, double hz) {
        if (to.stream().noneMatch(o -> near(o, hz))) {
            to.add(hz);
        }
    }

    /** Lines of one carrier and modulator, and the bins that each reaches. */
    private final class Comb {
        private final double carrier;
        private final double modulator;
        private final int[] bin; // by rising number; several lines may reach one
        private final int[] order;
        private final double[] lobe;
        private double likeness;

        Comb(double carrier, double modulator) {
            this.carrier = carrier;
            this.modulator = modulator;
            List<double[]> reached = new ArrayList<>();
            for (int k = -ORDERS; k <= ORDERS; k++) {
                double at = Math.abs(carrier + k * modulator) / frames.binHz();
                for (int b = (int) Math.max(1, Math.ceil(at - 1.6)); b <= at + 1.6 && b < frames.bins() - 1; b++) {
                    reached.add(new double[] {b, Math.abs(k), NonuniformStft.lobe(b - at)});
                }
            }
            reached.sort(Comparator.comparingDouble(r -> r[0]));
            bin = reached.stream().mapToInt(r -> (int) r[0]).toArray();
            order = reached.stream().mapToInt(r -> (int) r[1]).toArray();
            lobe = reached.stream().mapToDouble(r -> r[2]).toArray();
        }

        /** Likeness of its spectrum with an index to a frame, and the level that it would need. */
        private Like like(int frame, int index) {
            double[] j = bessel[index];
            double dot = 0;
            double own = 0;
            for (int t = 0; t < bin.length; ) {
                int b = bin[t];
                double p = 0;
                for (; t < bin.length && bin[t] == b; t++) {
                    p += j[order[t]] * lobe[t];
                }
                if (p > 1e-7) {
                    double r = root(p);
                    dot += r * seen[frame][b];
                    own += r * r;
                }
            }
            double gain = own > 0 ? dot / own : 0;
            return new Like(own > 0 && norm[frame] > 0 ? dot / Math.sqrt(own * norm[frame]) : 0, gain * gain);
        }

        double roughly(int[] few) {
            double sum = 0;
            double weights = 1e-9;
            for (int f : few) {
                double best = 0;
                for (int i = 0; i < INDEXES.length; i += 2) {
                    best = Math.max(best, like(f, i).likeness());
                }
                sum += frames.weight(f) * best;
                weights += frames.weight(f);
            }
            return sum / weights;
        }

        /** With the likeliest of the first so many indexes through all frames. */
        Course course(List<Line> lines, int indexes) {
            Like[][] like = new Like[frames.count()][indexes];
            for (int f = 0; f < like.length; f++) {
                for (int i = 0; i < indexes; i++) {
                    like[f][i] = like(f, i);
                }
            }
            ViterbiIndexPath path = ViterbiIndexPath.through(like, frames, INDEXES);
            double likeness = path.likeness() * (1 + SidebandGrid.share(lines, carrier, modulator)) / 2;
            return new Course(carrier, modulator, likeness, path.likeness(), path.index(), path.level());
        }
    }

    /** Carrier and modulator moved to where the partials near their lines lie, by least squares [Hz], [Hz]. */
    static double[] tuned(double carrierHz, double modulatorHz, List<Line> lines) {
        double[] roughly = tuned(carrierHz, modulatorHz, lines, 3, 0.002);
        double[] nearer = tuned(roughly[0], roughly[1], lines, 5, 0.001);
        return tuned(nearer[0], nearer[1], lines, 9, 0.0005);
    }

    private static double[] tuned(double carrier, double modulator, List<Line> lines, int orders, double share) {
        double a = 1e-12;
        double b = 0;
        double d = 1e-12;
        double p = 0;
        double q = 0;
        for (int k = -orders; k <= orders; k++) {
            double signed = carrier + k * modulator;
            double sign = Math.signum(signed);
            Line near = null;
            for (Line l : lines) {
                double off = Math.abs(l.hz() - Math.abs(signed));
                boolean closer = near == null || off < Math.abs(near.hz() - Math.abs(signed));
                near = off < NEAR_HZ + share * l.hz() && closer ? l : near;
            }
            if (near != null) {
                double w = near.amplitude() / (1 + Math.abs(k));
                double miss = sign * near.hz() - signed;
                a += w;
                b += w * k;
                d += w * k * k;
                p += w * miss;
                q += w * k * miss;
            }
        }
        double det = a * d - b * b;
        double c = carrier + (p * d - q * b) / det;
        double m = modulator + (a * q - b * p) / det;
        boolean told = det >= 1e-9 * a * d && c > 0 && m > 0;
        return told ? new double[] {c, m} : new double[] {carrier, modulator};
    }
}

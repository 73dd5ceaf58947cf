package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import nightreed.dsp.RealFft;
import nightreed.match.compare.PartialDifference;
import nightreed.match.compare.PartialMatching;
import nightreed.match.hearing.JndThresholds;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;

/**
 * Where in time and frequency the residuals of a search are taken: frames that are short at the onset and longer later, and windows
 * in which the recording's partials are followed.
 */
final class ListeningGrid {
    /** Partials that are followed. */
    private static final int MOST_PARTIALS = 28;

    /** In less, weak partials drown in what the strong ones spread over the spectrum [s]. */
    private static final double LEAST_PROBE_SECONDS = 0.04;

    /** Limits of the first frames [s]. */
    private static final double[] FIRST = {0, 0.006, 0.02, 0.06};

    final int[] from; // frames, samples after the onset
    final int[] to;
    final double[] lasts; // what each stands for: up to the next [samples]
    final int probe; // window of the partials [samples]
    final int[] probeAt;
    final double[] hz; // of the partials
    final double[] width; // half width of what is counted to a partial [Hz]
    final double[] weight; // audibility of each partial

    /** @param seconds after the onset that are listened to @param fs sample rate [Hz] */
    ListeningGrid(Measurement m, JndThresholds hearing, double seconds, double fs) {
        boolean held = m.held() != null;
        List<int[]> spans = new ArrayList<>();
        for (int i = 0; i + 1 < FIRST.length; i++) {
            spans.add(new int[] {(int) (FIRST[i] * fs), (int) (FIRST[i + 1] * fs)});
        }
        double t = FIRST[FIRST.length - 1];
        while (t + 0.045 < seconds) {
            spans.add(new int[] {(int) (t * fs), (int) ((t + 0.0427) * fs)});
            t += held ? Math.max(0.05, Math.min(0.15, 0.3 * t)) : Math.max(0.0427, 0.22 * t);
        }
        from = spans.stream().mapToInt(s -> s[0]).toArray();
        to = spans.stream().mapToInt(s -> s[1]).toArray();
        lasts = new double[from.length];
        for (int f = 0; f < lasts.length; f++) {
            lasts[f] = f + 1 < lasts.length ? from[f + 1] - from[f] : Math.max(to[f], seconds * fs) - from[f];
        }
        List<PartialDifference> heard = new ArrayList<>(new PartialMatching(hearing).missing(m.reliablePartials()));
        heard.removeIf(d -> d.weight() <= 0.01 || d.recording().frequencyHz() > 0.45 * fs);
        heard.sort((a, b) -> Double.compare(b.weight(), a.weight()));
        heard = heard.subList(0, Math.min(MOST_PARTIALS, heard.size()));
        hz = heard.stream().mapToDouble(d -> d.recording().frequencyHz()).toArray();
        weight = heard.stream().mapToDouble(PartialDifference::weight).toArray();
        double spacing = spacing(m.reliablePartials());
        probe = Math.min(RealFft.powerOfTwoFrom((int) (0.17 * fs)), RealFft.powerOfTwoFrom((int)
                (fs * Math.max(LEAST_PROBE_SECONDS, 3.2 / Math.max(spacing, 20)))));
        width = new double[hz.length];
        for (int i = 0; i < hz.length; i++) {
            width[i] = Math.max(2.5 * fs / probe, Math.min(0.02 * hz[i], 0.45 * spacing));
        }
        List<Integer> at = new ArrayList<>();
        double p = held ? 0.25 * probe : 0;
        while (p + probe <= seconds * fs || at.isEmpty()) {
            at.add((int) p);
            p += Math.max(0.5 * probe, held ? 0.4 * p : 0.5 * p);
        }
        probeAt = at.stream().mapToInt(i -> i).toArray();
    }

    /** Whether a frame is one of the first, in which the strike is heard. */
    static boolean isOfStrike(int frame) {
        return frame < FIRST.length - 1;
    }

    /** Distance between neighbouring partials that matter [Hz]; pairs that beat count as one. */
    private static double spacing(List<Partial> partials) {
        double least = 400;
        for (int i = 1; i < partials.size(); i++) {
            double d = partials.get(i).frequencyHz() - partials.get(i - 1).frequencyHz();
            double cents = 1200
                    * Math.log(
                            partials.get(i).frequencyHz() / partials.get(i - 1).frequencyHz())
                    / Math.log(2);
            if (cents > 60
                    && partials.get(i).levelDb() > -40
                    && partials.get(i - 1).levelDb() > -40) {
                least = Math.min(least, d);
            }
        }
        return least;
    }
}

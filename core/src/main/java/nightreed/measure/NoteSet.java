package nightreed.measure;

import java.util.Comparator;
import java.util.List;
import nightreed.measure.traits.DecayLaw;

/**
 * Several notes of one instrument, on other keys or of other strength, kept together: how decay follows the key and
 * brightness the strength.
 *
 * @param notes                   notes that have a pitch, in the order of the recording
 * @param decay                   T60 of the strongest partial against the pitch, null where the notes do not tell: fewer than
 *                                four, or less than an octave
 * @param brightnessOctavesPer10Db by how much the centroid at the strike rises over the pitch when the note is 10 dB stronger
 *                                [octaves], null where the notes are alike in strength or fewer than three
 * @param brightnessSe            standard error of it, null as it is
 * @param commonCents             offset from concert pitch that all notes share, as a tape that runs too fast or another
 *                                tuning gives it [cents]; null if they do not share one
 */
public record NoteSet(
        List<Measurement> notes,
        DecayLaw decay,
        Double brightnessOctavesPer10Db,
        Double brightnessSe,
        Double commonCents) {
    /** Notes whose levels all lie within this say nothing of strength [dB]. */
    private static final double LEAST_RANGE_DB = 6;

    private static final int FEWEST = 3;

    private static final double ALIKE_CENTS = 6;

    public NoteSet {
        notes = List.copyOf(notes);
    }

    public static NoteSet of(List<Measurement> measured) {
        List<Measurement> notes = measured.stream()
                .filter(m -> m.f0Hz() != null && m.strongest() != null)
                .toList();
        List<Measurement> dying = notes.stream()
                .filter(m -> m.strongest().t60Seconds() != null)
                .sorted(Comparator.comparingDouble(Measurement::f0Hz))
                .toList();
        DecayLaw decay = DecayLaw.fit(
                dying.stream().mapToDouble(Measurement::f0Hz).toArray(),
                dying.stream().mapToDouble(m -> m.strongest().t60Seconds()).toArray(),
                dying.stream()
                        .mapToDouble(m -> m.strongest().t60SeSeconds() == null
                                ? 0.1
                                : m.strongest().t60SeSeconds() / m.strongest().t60Seconds())
                        .toArray());
        double[] slope =
                brightness(notes.stream().filter(m -> m.brightness() != null).toList());
        return new NoteSet(
                notes,
                decay,
                slope == null ? null : (Double) slope[0],
                slope == null ? null : (Double) slope[1],
                common(notes));
    }

    /** Median offset, if the notes lie within a few cents of it and it is not nothing. */
    private static Double common(List<Measurement> notes) {
        double[] cents = notes.stream()
                .mapToDouble(Measurement::centsFromConcert)
                .sorted()
                .toArray();
        if (cents.length < FEWEST) {
            return null;
        }
        double median = cents[cents.length / 2];
        boolean shared = cents[cents.length - 1] - median < ALIKE_CENTS && median - cents[0] < ALIKE_CENTS;
        return shared && Math.abs(median) > ALIKE_CENTS ? median : null;
    }

    /** Level of a note: its strongest partial at the onset [dB full scale]. */
    public static double levelDb(Measurement m) {
        return 20 * Math.log10(m.strongest().amplitude());
    }

    /** Centroid at the strike over the pitch [octaves]. */
    public static double brightnessOctaves(Measurement m) {
        return Math.log(m.brightness().startHz() / m.f0Hz()) / Math.log(2);
    }

    /**
     * Least squares of brightness over level and pitch together, as other keys of an instrument are bright in other ways.
     *
     * @return slope per 10 dB and its standard error, or null
     */
    private static double[] brightness(List<Measurement> notes) {
        int n = notes.size();
        double low = notes.stream().mapToDouble(NoteSet::levelDb).min().orElse(0);
        double high = notes.stream().mapToDouble(NoteSet::levelDb).max().orElse(0);
        if (n < FEWEST || high - low < LEAST_RANGE_DB) {
            return null;
        }
        double[] level = centred(notes.stream().mapToDouble(NoteSet::levelDb).toArray());
        double[] key =
                centred(notes.stream().mapToDouble(m -> Math.log(m.f0Hz())).toArray());
        double[] bright =
                centred(notes.stream().mapToDouble(NoteSet::brightnessOctaves).toArray());
        double kk = dot(key, key);
        boolean keys = kk > 1e-3 * n && n > FEWEST;
        double share = keys ? dot(key, level) / kk : 0;
        double shareBright = keys ? dot(key, bright) / kk : 0;
        double ll = 0;
        double lb = 0;
        for (int i = 0; i < n; i++) {
            double l = level[i] - share * key[i];
            ll += l * l;
            lb += l * (bright[i] - shareBright * key[i]);
        }
        if (ll < LEAST_RANGE_DB) {
            return null; // strength goes with the key: the two cannot be told apart
        }
        double slope = lb / ll;
        double square = 0;
        for (int i = 0; i < n; i++) {
            double e = bright[i] - shareBright * key[i] - slope * (level[i] - share * key[i]);
            square += e * e;
        }
        double se = Math.sqrt(square / Math.max(1, n - (keys ? 3 : 2)) / ll);
        return new double[] {10 * slope, 10 * se};
    }

    private static double[] centred(double[] v) {
        double mean = 0;
        for (double x : v) {
            mean += x / v.length;
        }
        double[] out = new double[v.length];
        for (int i = 0; i < v.length; i++) {
            out[i] = v[i] - mean;
        }
        return out;
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }
}

package nightreed.project;

import java.util.List;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.PartialDifference;
import nightreed.measure.partial.Partial;

/**
 * What a take looked like: a small picture of recording and imitation, as numbers.
 *
 * @param strokes partials by rising frequency
 */
public record TakePicture(List<Stroke> strokes) {
    /** More would not be seen in a picture of this size. */
    private static final int MOST = 32;

    public TakePicture {
        strokes = List.copyOf(strokes);
    }

    /**
     * One partial.
     *
     * @param hz          frequency [Hz]
     * @param recordingDb level in the recording [dB re its strongest], null if it has none there
     * @param imitationDb level in the imitation at equal loudness [dB re the recording's strongest], null likewise
     * @param jnd         how far apart the two are heard [JND]
     */
    public record Stroke(double hz, Double recordingDb, Double imitationDb, double jnd) {}

    /** Picture of a comparison: its strongest partials. */
    public static TakePicture of(Comparison c) {
        double top = c.partials().stream()
                .filter(d -> d.recording() != null)
                .mapToDouble(d -> d.recording().amplitude())
                .max()
                .orElse(1);
        return new TakePicture(c.partials().stream()
                .sorted((a, b) ->
                        Double.compare(b.either().levelDb(), a.either().levelDb()))
                .limit(MOST)
                .sorted((a, b) ->
                        Double.compare(a.either().frequencyHz(), b.either().frequencyHz()))
                .map(d -> stroke(d, c.gainDb(), top))
                .toList());
    }

    private static Stroke stroke(PartialDifference d, double gainDb, double top) {
        return new Stroke(
                d.either().frequencyHz(),
                level(d.recording(), 0, top),
                level(d.imitation(), gainDb, top),
                d.heardJnd());
    }

    private static Double level(Partial p, double gainDb, double top) {
        return p == null ? null : (Double) (20 * Math.log10(p.amplitude() / top) + gainDb);
    }
}

package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import nightreed.measure.law.SeriesFit;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.law.StrikeNotes;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The pitch of struck bodies, from partials whose levels say little. */
class StruckPitchTest {
    private static final int BODIES = 100;

    /**
     * Bodies of random pitch: ratios to what is heard, of which the lower ones may be weak or strong.
     *
     * @param weak   number of lowest partials that are 12 dB weaker than others, or -1 for none
     * @param least  of these bodies whose pitch must be right [%]
     */
    @ParameterizedTest
    @CsvSource({
        "1 2.756 5.404 8.933 13.344, -1, 100, 98",
        "1 2.74 5.3 7.95 12.8, 1, 100, 93",
        "1 4 9.8 17, -1, 100, 98",
        "1 3 6 11, -1, 100, 98",
        "0.22 0.63 1.24 2 2.93 3.96 4.93 5.1, 2, 260, 96",
        "0.5 1 1.2 1.5 2 2.5 2.67 3 4 5.33, -1, 150, 98",
        "1 2.08 3.41 3.89 5 5.95 6.82 8.28, -1, 100, 98"
    })
    void struckBodiesAreHeardAtTheirPitch(String ratios, int weak, double lowestHz, double least) {
        Random chance = new Random(11);
        int right = 0;
        double stated = 0;
        for (int i = 0; i < BODIES; i++) {
            double pitch = lowestHz * Math.pow(8, chance.nextDouble());
            List<Partial> partials = struck(ratios.split(" "), weak, pitch, -30 - 30 * chance.nextDouble(), chance);
            List<StrikeNote> found = StrikeNotes.rank(partials, SeriesFit.rank(partials));
            right += Math.abs(Pitch.cents(pitch, found.get(0).frequencyHz())) < 50 ? 1 : 0;
            stated += found.get(0).certainty();
        }
        assertThat(100.0 * right / BODIES).isGreaterThanOrEqualTo(least);
        assertThat(stated / BODIES).isBetween(right / (double) BODIES - 0.1, right / (double) BODIES + 0.05);
    }

    private static List<Partial> struck(String[] ratios, int weak, double pitch, double noiseDb, Random chance) {
        List<Partial> out = new ArrayList<>();
        double[] levels = new double[ratios.length];
        for (int k = 0; k < ratios.length; k++) {
            boolean first = weak < 0 && ratios[k].equals("1");
            boolean carries = weak == 2 && k >= 3 && k <= 5; // what a tube is heard by
            levels[k] = (first ? -10 : carries ? -8 : -25) * chance.nextDouble() - (k < weak ? 12 : 0);
        }
        double top = Arrays.stream(levels).max().orElse(0);
        for (int k = 0; k < ratios.length; k++) {
            double ratio = Double.parseDouble(ratios[k]);
            double hz = pitch * ratio * Math.pow(2, 12 * chance.nextGaussian() / 1200);
            double db = levels[k] - top;
            double t60 = 2 * Math.pow(Math.max(0.3, ratio), -0.7) * Math.pow(2, 0.5 * chance.nextGaussian());
            if (db > noiseDb + 6 && hz < 19_000) {
                out.add(new Partial(
                        hz, 1, db, Math.pow(10, db / 20), 0, t60, null, null, 0.0, 0.05, 0.01, db - noiseDb, true));
            }
        }
        out.sort(Comparator.comparingDouble(Partial::frequencyHz));
        return out;
    }
}

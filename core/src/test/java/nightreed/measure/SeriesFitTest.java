package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nightreed.measure.law.SeriesFit;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.law.StrikeNotes;
import nightreed.measure.partial.Partial;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SeriesFitTest {
    private static Partial partial(double hz, double db) {
        return new Partial(hz, 1, db, Math.pow(10, db / 20), 0, 1.0, null, null, null, 0.01, 0.01, 60, true);
    }

    @ParameterizedTest
    @CsvSource({
        "uniform free bar, 220, 1|2.756|5.404|8.933",
        "arched bar tuned 1:4, 440, 1|4|9.8",
        "clamped tongue, 196, 1|6.267|17.55",
        "tuned bell, 300, 0.5|1|1.2|1.5|2|2.5|3|4",
        "harmonic, 110, 1|2|3|4|5|6|7|8",
        "closed pipe, 130, 1|3|5|7|9",
        "ideal membrane, 90, 1|1.593|2.136|2.295|2.653|2.917"
    })
    void eachBodyIsRecognisedThoughUneven(String name, double f0, String ratios) {
        Random r = new Random(name.hashCode());
        List<Partial> partials = new ArrayList<>();
        String[] all = ratios.split("\\|");
        for (int i = 0; i < all.length; i++) {
            double stray = Math.pow(2, 8 * r.nextGaussian() / 1200); // 8 cents
            partials.add(partial(f0 * Double.parseDouble(all[i]) * stray, -3 * i));
        }
        List<SeriesFit> ranked = SeriesFit.rank(partials);
        assertThat(ranked.get(0).series().name()).isEqualTo(name);
        assertThat(ranked.get(0).fundamentalHz()).isCloseTo(f0, within(0.01 * f0));
        assertThat(ranked.get(0).deviationCents()).isLessThan(20);
        StrikeNote note = StrikeNotes.rank(partials, ranked).get(0);
        assertThat(note.frequencyHz()).isCloseTo(f0, within(0.02 * f0));
        assertThat(note.why()).contains(name);
    }

    @Test
    void candidatesShareAtMostOneCertainty() {
        List<Partial> partials = List.of(partial(300, 0), partial(620, -3), partial(1111, -6));
        List<StrikeNote> notes = StrikeNotes.rank(partials, SeriesFit.rank(partials));
        assertThat(notes.stream().mapToDouble(StrikeNote::certainty).sum()).isLessThanOrEqualTo(1);
        assertThat(notes).isSortedAccordingTo((a, b) -> Double.compare(b.certainty(), a.certainty()));
    }

    @Test
    void splintersOfOnePartialCountOnce() {
        List<Partial> partials = List.of(
                partial(220, 0), partial(606.3, -5), partial(606.9, -20), partial(607.8, -22), partial(1188.9, -8));
        assertThat(SeriesFit.rank(partials).get(0).matched()).isEqualTo(3);
    }

    @Test
    void onePartialIsNoSeriesButAPitch() {
        List<Partial> one = List.of(partial(523, 0));
        assertThat(SeriesFit.rank(one)).isEmpty();
        assertThat(StrikeNotes.rank(one, List.of()).get(0).note()).isEqualTo("C5");
    }

    @Test
    void namesAreGivenNearTheirPlaceOnly() {
        SeriesFit f = SeriesFit.rank(List.of(partial(200, 0), partial(551.2, -3), partial(1080.8, -6)))
                .get(0);
        assertThat(f.nameOf(552)).isEqualTo("mode 2");
        assertThat(f.nameOf(700)).isNull();
        assertThat(f.centsFrom(551.2 * Math.pow(2, 20 / 1200.0))).isCloseTo(20, within(6.0));
    }
}

package nightreed.sheet;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.StringReader;
import java.util.List;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.hearing.Aspect;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeTest;
import nightreed.recipe.ResonatorRecipe;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

class SheetTest {
    private static ResonatorRecipe recipe;
    private static AnalysedSound side;
    private static Comparison comparison;
    private static String html;
    private static Recipe horn;

    @BeforeAll
    static void write() throws Exception {
        ResonatorRecipe fitted = RecipeTest.bar();
        recipe = fitted.with("mode.2.t60", 1.9);
        side = ImitationRenderer.side(Renderer.asFitted(fitted, 0.2, 2, 48_000), Progress.NONE);
        comparison = ImitationRenderer.predict(side, recipe);
        horn = Starts.of("subtractive", side).recipe();
        html = PatchSheet.html(
                "The Salt Lantern",
                "Slate bar <low>",
                side.measurement(),
                Patch.of(recipe).with(Layer.of(horn)),
                fitted,
                Tolerances.of(side, recipe, Progress.NONE),
                comparison,
                "for the \"harbour\" & more");
    }

    @Test
    void theSheetHoldsEveryValueWithItsUnitAndRoom() {
        for (var s : recipe.settings()) {
            assertThat(html)
                    .contains(s.parameter().name())
                    .contains(s.parameter().format(s.value()));
        }
        assertThat(html).contains("may move from").contains("A3").contains("uniform free bar");
        assertThat(html).contains("set by hand (fitted: 0.800)").contains("usual value, one note cannot tell");
    }

    @Test
    void whatSoundsUnderItIsOnTheSheetWithAllItsValues() {
        String under = html.substring(html.indexOf("Layer 2: subtractive"), html.indexOf("Partials of the recording"));
        for (var s : horn.settings()) {
            assertThat(under)
                    .contains(s.parameter().name())
                    .contains(s.parameter().format(s.value()));
        }
    }

    @Test
    void textFromPeopleIsEscapedAndThePageNeedsNothingElse() {
        assertThat(html).contains("Slate bar &lt;low&gt;").contains("&quot;harbour&quot; &amp; more");
        assertThat(html)
                .doesNotContain("<low>")
                .doesNotContain("http://")
                .doesNotContain("https://")
                .doesNotContain("src=");
        assertThat(html).contains("rest your ears").contains("rules on noise exposure where you are");
    }

    @Test
    void csvHoldsOnePartialALine() throws Exception {
        List<CSVRecord> rows = CSVFormat.RFC4180
                .builder()
                .setHeader()
                .setSkipHeaderRecord(true)
                .get()
                .parse(new StringReader(PartialCsv.text(side.measurement())))
                .getRecords();
        assertThat(rows).hasSameSizeAs(side.measurement().partials());
        assertThat(Double.parseDouble(rows.get(0).get("frequency_hz")))
                .isEqualTo(side.measurement().partials().get(0).frequencyHz());
        assertThat(rows.get(0).get("name")).isEqualTo("mode 1");
        assertThat(rows.get(0).get("t60_late_s")).isEmpty();
    }

    @Test
    void theDistanceIsWrittenPerAspect() {
        var o = ReportJson.distance(comparison);
        assertThat(o.path("totalJnd").asDouble()).isEqualTo(comparison.totalJnd());
        assertThat(o.path("worstAspect").asText()).isEqualTo(comparison.worst().id());
        for (Aspect a : Aspect.values()) {
            assertThat(o.path(a.id()).asDouble()).isEqualTo(comparison.jnd(a));
        }
    }
}

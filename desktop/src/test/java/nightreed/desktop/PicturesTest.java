package nightreed.desktop;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.lang.reflect.RecordComponent;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javafx.beans.property.SimpleObjectProperty;
import javafx.scene.Scene;
import javafx.scene.image.WritableImage;
import javafx.scene.layout.StackPane;
import javafx.scene.paint.Color;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.Reedbed;
import nightreed.desktop.reedbed.Strip;
import nightreed.desktop.ruler.Ruler;
import nightreed.match.Matcher;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.partial.Partial;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.room.RecordingRoom;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** What the drawings show, and what a ruler answers. */
class PicturesTest {
    private static AnalysedSound side;
    private static ResonatorRecipe recipe;
    private static Comparison bent;

    @BeforeAll
    static void playABar() throws Exception {
        FxToolkit.registerPrimaryStage();
        side = ImitationRenderer.side(
                RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 57, 0.9, 3), Progress.NONE);
        recipe = Matcher.startingValues(side);
        bent = ImitationRenderer.predict(side, recipe.with("mode.2.t60", 2 * recipe.value("mode.2.t60")));
    }

    @ParameterizedTest
    @EnumSource(Axis.Kind.class)
    void aBedHoldsEveryReedAndRipplesWhereADifferenceIsHeard(Axis.Kind kind) {
        BedModel m = BedModel.of(side.measurement(), bent, kind);
        assertThat(m.reeds()).hasSameSizeAs(side.measurement().reliablePartials());
        assertThat(m.axis().kind()).isEqualTo(kind);
        double second = recipe.modes().get(1).ratio() * recipe.f0Hz();
        assertThat(m.ripples()).isNotEmpty();
        assertThat(m.ripples()).anyMatch(r -> Math.abs(r.hz() - second) < 2 && r.jnd() > 1.5);
        for (BedModel.Reed r : m.reeds()) {
            double hz = r.partial().frequencyHz();
            assertThat(hz).isBetween(m.axis().lowHz(), m.axis().highHz());
        }
        assertThat(m.seriesText()).startsWith("uniform free bar");
    }

    @Test
    void aPerfectMatchIsAPerfectMirror() {
        BedModel m = BedModel.of(side.measurement(), ImitationRenderer.predict(side, recipe), Axis.Kind.RATIO);
        for (BedModel.Reed r : m.mirror()) {
            assertThat(m.reeds())
                    .anyMatch(o -> Math.abs(o.levelDb() - r.levelDb()) < 1.5
                            && Math.abs(o.partial().frequencyHz() - r.partial().frequencyHz()) < 0.5);
        }
    }

    @Test
    void theBedIsDrawnQuicklyInTheRightColoursAndWalkedWithKeys() {
        SimpleObjectProperty<Partial> selected = new SimpleObjectProperty<>();
        List<Axis> axes = new ArrayList<>();
        Reedbed bed = onStage(() -> {
            Reedbed b = new Reedbed(selected);
            b.setOnAxis(axes::add);
            b.setModel(BedModel.of(side.measurement(), bent, Axis.Kind.RATIO));
            return b;
        });
        WritableImage image = WaitForAsyncUtils.waitForAsyncFx(5000, () -> bed.snapshot(null, null));
        assertThat(count(image, Palette.NIGHT.recording())).isGreaterThan(200);
        assertThat(count(image, Palette.NIGHT.imitation())).isGreaterThan(100);
        assertThat(count(image, Palette.NIGHT.audible())).isGreaterThan(10);

        FxRobot robot = new FxRobot();
        WaitForAsyncUtils.waitForAsyncFx(5000, () -> {
            bed.requestFocus();
            return null;
        });
        robot.type(javafx.scene.input.KeyCode.RIGHT, javafx.scene.input.KeyCode.RIGHT);
        assertThat(selected.get())
                .isEqualTo(side.measurement().reliablePartials().get(1));
        robot.type(javafx.scene.input.KeyCode.LEFT);
        assertThat(selected.get())
                .isEqualTo(side.measurement().reliablePartials().get(0));

        Axis whole = axes.get(axes.size() - 1);
        robot.moveTo(bed).scroll(3);
        WaitForAsyncUtils.waitForFxEvents();
        Axis zoomed = axes.get(axes.size() - 1);
        if (!zoomed.equals(whole)) { // a virtual mouse may have no wheel
            robot.type(javafx.scene.input.KeyCode.ESCAPE);
            assertThat(axes.get(axes.size() - 1)).isEqualTo(whole);
        }
    }

    @ParameterizedTest
    @EnumSource(Strip.Shows.class)
    void theStripShowsRecordingAndImitationInEachOfItsPictures(Strip.Shows what) {
        AnalysedSound other = ImitationRenderer.predictedSide(
                side, recipe.with("noise.level", 14).with("mode.3.level", -40));
        Axis[] axis = new Axis[1];
        Reedbed bed = onStage(() -> {
            Reedbed b = new Reedbed(new SimpleObjectProperty<>());
            b.setOnAxis(a -> axis[0] = a);
            b.setModel(BedModel.of(side.measurement(), bent, Axis.Kind.RATIO));
            return b;
        });
        WaitForAsyncUtils.waitForAsyncFx(5000, () -> bed.snapshot(null, null));
        assertThat(axis[0]).isNotNull();
        Strip strip = onStage(() -> {
            Strip s = new Strip(new SimpleObjectProperty<>());
            s.setAxis(axis[0]);
            s.show(what);
            s.setSounds(side, other, nightreed.match.compare.PerceptualComparator.compare(side, other));
            return s;
        });
        WritableImage image = WaitForAsyncUtils.waitForAsyncFx(5000, () -> strip.snapshot(null, null));
        boolean heat = what == Strip.Shows.FIRST; // drawn in shades, not in the plain colours
        assertThat(heat ? colours(image) : count(image, Palette.NIGHT.recording()))
                .as(what.name())
                .isGreaterThan(heat ? 200 : 15);
        int theirs = count(image, Palette.NIGHT.imitation()) + count(image, Palette.NIGHT.audible());
        assertThat(heat ? 99 : theirs).as(what.name()).isGreaterThan(10);
        assertThat(strip.getAccessibleText()).isEqualTo(what.help());
    }

    private static int colours(WritableImage image) {
        java.util.Set<Integer> seen = new java.util.HashSet<>();
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                seen.add(image.getPixelReader().getArgb(x, y));
            }
        }
        return seen.size();
    }

    private static <T extends javafx.scene.Parent> T onStage(java.util.concurrent.Callable<T> make) {
        return WaitForAsyncUtils.waitForAsyncFx(10_000, () -> {
            T node = make.call();
            javafx.stage.Stage stage = FxToolkit.registerStage(javafx.stage.Stage::new);
            stage.setScene(new Scene(new StackPane(node), 900, 340));
            stage.show();
            return node;
        });
    }

    private static int count(WritableImage image, Color ink) {
        int n = 0;
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                Color c = image.getPixelReader().getColor(x, y);
                double off = Math.abs(c.getRed() - ink.getRed())
                        + Math.abs(c.getGreen() - ink.getGreen())
                        + Math.abs(c.getBlue() - ink.getBlue());
                n += off < 0.12 ? 1 : 0;
            }
        }
        return n;
    }

    @Test
    void aRulerAnswersHandKeysAndNumbers() {
        Parameter p = recipe.setting("mode.1.t60").parameter();
        List<Double> values = new ArrayList<>();
        AtomicInteger settled = new AtomicInteger();
        Ruler ruler = onStage(() -> {
            Ruler r = new Ruler(p);
            r.show(1.0, 1.2, new Tolerances.Span(0.8, 1.4, 0.5));
            r.valueProperty().addListener((o, was, v) -> {
                values.add(r.getValue());
                settled.addAndGet(r.isValueChanging() ? 0 : 1);
            });
            return r;
        });
        FxRobot robot = new FxRobot();
        javafx.scene.Node line = robot.lookup((javafx.scene.Node n) -> "line-mode.1.t60".equals(n.getId()))
                .query();
        WaitForAsyncUtils.waitForAsyncFx(5000, () -> {
            line.requestFocus();
            return null;
        });
        robot.type(javafx.scene.input.KeyCode.RIGHT);
        double one = values.get(values.size() - 1);
        assertThat(p.position(one) - p.position(1.0)).isCloseTo(0.01, within(1e-6));
        robot.press(javafx.scene.input.KeyCode.SHIFT)
                .type(javafx.scene.input.KeyCode.LEFT)
                .release(javafx.scene.input.KeyCode.SHIFT);
        assertThat(p.position(one) - p.position(values.get(values.size() - 1))).isCloseTo(0.001, within(1e-6));
        robot.type(javafx.scene.input.KeyCode.HOME); // back to the fitted value
        assertThat(values.get(values.size() - 1)).isEqualTo(1.2);
        assertThat(settled.get()).isEqualTo(3);

        javafx.scene.control.TextField number = (javafx.scene.control.TextField)
                robot.lookup((javafx.scene.Node n) -> "number-mode.1.t60".equals(n.getId()))
                        .query();
        for (String text : new String[] {"0,75", "tea", "99999"}) { // a comma is a point; nonsense changes nothing
            WaitForAsyncUtils.waitForAsyncFx(5000, () -> {
                number.setText(text);
                number.getOnAction().handle(null);
                return null;
            });
            double expected = text.equals("99999") ? 30 : 0.75;
            assertThat(ruler.getValue()).isEqualTo(expected);
            assertThat(number.getText()).isEqualTo(p.format(expected));
        }
    }

    static Stream<Palette> looks() {
        return Stream.of(Palette.NIGHT, Palette.DAY);
    }

    @ParameterizedTest
    @MethodSource("looks")
    void textStandsOutFromItsGround(Palette ink) { // WCAG 2 contrast
        for (Color ground : new Color[] {ink.ground(), ink.panel(), ink.raised(), ink.water()}) {
            for (Color text :
                    new Color[] {ink.text(), ink.quiet(), ink.recording(), ink.imitation(), ink.audible(), ink.within()
                    }) {
                assertThat(contrast(text, ground)).isGreaterThan(4.5);
            }
            assertThat(contrast(ink.scale(), ground)).isGreaterThan(3);
        }
    }

    /** The style sheets say the colours once more for controls; they must be the same. */
    @ParameterizedTest
    @ValueSource(strings = {"night", "day"})
    void sheetsAndInkAgree(String look) throws Exception {
        String css;
        try (var in = Workbench.class.getResourceAsStream(look + ".css")) {
            css = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        Palette ink = look.equals("night") ? Palette.NIGHT : Palette.DAY;
        for (RecordComponent c : Palette.class.getRecordComponents()) {
            java.util.regex.Matcher m = Pattern.compile("-nr-" + c.getName() + ": (#[0-9A-Fa-f]{6});")
                    .matcher(css);
            assertThat(m.find()).as(c.getName()).isTrue();
            assertThat(Color.web(m.group(1))).isEqualTo(c.getAccessor().invoke(ink));
        }
        java.util.regex.Matcher m =
                Pattern.compile("-nr-on-accent: (#[0-9A-Fa-f]{6});").matcher(css);
        assertThat(m.find()).isTrue();
        assertThat(contrast(Color.web(m.group(1)), ink.recording())).isGreaterThan(4.5);
        assertThat(contrast(Color.web(m.group(1)), ink.imitation())).isGreaterThan(4.5);
        for (String bar : new String[] {"message", "info"}) {
            m = Pattern.compile("-nr-" + bar + ": (#[0-9A-Fa-f]{6});").matcher(css);
            assertThat(m.find()).isTrue();
            assertThat(contrast(ink.text(), Color.web(m.group(1)))).isGreaterThan(4.5);
        }
    }

    private static double contrast(Color a, Color b) {
        double x = luminance(a);
        double y = luminance(b);
        return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05);
    }

    private static double luminance(Color c) {
        return 0.2126 * linear(c.getRed()) + 0.7152 * linear(c.getGreen()) + 0.0722 * linear(c.getBlue());
    }

    private static double linear(double v) {
        return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
    }
}

package nightreed.desktop.stage.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import javafx.beans.property.SimpleObjectProperty;
import javafx.event.EventType;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.paint.Color;
import nightreed.desktop.OnStage;
import nightreed.desktop.drawing.Drawing;
import nightreed.desktop.drawing.Palette;
import nightreed.desktop.reedbed.Axis;
import nightreed.desktop.reedbed.BedModel;
import nightreed.desktop.reedbed.RecordingStrip;
import nightreed.desktop.stage.keep.TakePictureView;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.measure.NoiseBands;
import nightreed.measure.NoteSet;
import nightreed.measure.partial.Partial;
import nightreed.project.TakePicture;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.work.Progress;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** What the small drawings of the stages show, read back from their pixels. */
class DrawingsTest {
    private static AnalysedSound side;

    @BeforeAll
    static void play() throws Exception {
        side = ImitationRenderer.side(
                RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 60, 0.9, 3), Progress.NONE);
    }

    private static WritableImage picture(Drawing d) {
        return OnStage.fx(() -> d.snapshot(null, null));
    }

    private static boolean like(Color a, Color b) {
        return Math.abs(a.getRed() - b.getRed())
                        + Math.abs(a.getGreen() - b.getGreen())
                        + Math.abs(a.getBlue() - b.getBlue())
                < 0.08;
    }

    /** Height of the column of an ink at a place, in pixels. */
    private static int column(WritableImage image, int x, Color ink) {
        PixelReader r = image.getPixelReader();
        int n = 0;
        for (int y = 0; y < image.getHeight(); y++) {
            n += like(r.getColor(x, y), ink) ? 1 : 0;
        }
        return n;
    }

    private static int count(WritableImage image, Color ink) {
        int n = 0;
        for (int x = 0; x < image.getWidth(); x++) {
            n += column(image, x, ink);
        }
        return n;
    }

    @Test
    void theWaveformIsTallAfterTheOnsetAndDies() throws Exception {
        Waveform w = OnStage.show(() -> new Waveform(n -> {}, () -> {}));
        OnStage.fx(() -> {
            w.show(side);
            return null;
        });
        WritableImage image = picture(w);
        Color ink = Palette.NIGHT.recording().deriveColor(0, 1, 0.72, 1);
        double length = side.clip().seconds();
        int onset = (int) (10 + (image.getWidth() - 20) * side.measurement().onsetSeconds() / length);
        assertThat(column(image, onset - 15, ink)).isLessThan(6); // the room's air
        assertThat(column(image, onset + 6, ink)).isGreaterThan((int) image.getHeight() / 4);
        assertThat(column(image, (int) image.getWidth() - 20, ink)).isLessThan(8);
    }

    @Test
    void theDecayFallsFromTheUpperLeftAndSaysItsT60() throws Exception {
        DecayPlot d = OnStage.show(DecayPlot::new);
        Partial strongest = side.measurement().strongest();
        OnStage.fx(() -> {
            d.show(side, strongest, "mode 1");
            return null;
        });
        WritableImage image = picture(d);
        int left = highest(image, 150);
        int right = highest(image, (int) image.getWidth() - 60);
        assertThat(left).isPositive();
        assertThat(right).isGreaterThan(left + 80);
        OnStage.fx(() -> {
            d.show(side, null, null);
            return null;
        });
        assertThat(count(picture(d), Palette.NIGHT.recording())).isZero(); // nothing chosen, nothing drawn
    }

    /** Uppermost pixel in the recording's ink near a column, -1 if there is none. */
    private static int highest(WritableImage image, int x) {
        for (int y = 0; y < image.getHeight(); y++) {
            for (int dx = -4; dx <= 4; dx++) {
                if (like(image.getPixelReader().getColor(x + dx, y), Palette.NIGHT.recording())) {
                    return y;
                }
            }
        }
        return -1;
    }

    @Test
    void theLookReachesEveryDrawing() throws Exception {
        Waveform w = OnStage.show(() -> new Waveform(n -> {}, () -> {}));
        OnStage.fx(() -> {
            w.show(side);
            return null;
        });
        assertThat(like(picture(w).getPixelReader().getColor(450, 20), Palette.NIGHT.panel()))
                .isTrue();
        OnStage.fx(() -> {
            Palette.DAY.fill(w.getScene().getRoot());
            Drawing.redrawAll(w.getScene().getRoot());
            return null;
        });
        assertThat(like(picture(w).getPixelReader().getColor(450, 20), Palette.DAY.panel()))
                .isTrue();
    }

    @Test
    void aTakesPictureHasBothSidesAndRingsWhereADifferenceWasHeard() throws Exception {
        TakePicture same = new TakePicture(
                List.of(new TakePicture.Stroke(220, 0.0, 0.0, 0.1), new TakePicture.Stroke(606, -12.0, -12.0, 0.2)));
        TakePicture other = new TakePicture(
                List.of(new TakePicture.Stroke(220, 0.0, 0.0, 0.1), new TakePicture.Stroke(606, -12.0, null, 5.0)));
        TakePictureView a = OnStage.show(() -> new TakePictureView(same));
        TakePictureView b = OnStage.show(() -> new TakePictureView(other));
        assertThat(count(picture(a), Palette.NIGHT.recording())).isGreaterThan(20);
        assertThat(count(picture(a), Palette.NIGHT.imitation()))
                .isGreaterThan(count(picture(b), Palette.NIGHT.imitation()));
        assertThat(count(picture(a), Palette.NIGHT.audible())).isZero();
        assertThat(count(picture(b), Palette.NIGHT.audible())).isGreaterThan(3);
        assertThat(b.getAccessibleText()).isEqualTo("2 partials, 1 of them heard to differ");
    }

    @Test
    void anEmptyTakeIsDrawnAsWater() throws Exception {
        TakePictureView v = OnStage.show(() -> new TakePictureView(new TakePicture(List.of())));
        assertThat(count(picture(v), Palette.NIGHT.water())).isGreaterThan(500);
    }

    @Test
    void theWheelZoomsTheWaveformAndADragChoosesASpan() throws Exception {
        int[] told = new int[1];
        Waveform w = OnStage.show(() -> new Waveform(n -> {}, () -> told[0]++));
        OnStage.fx(() -> {
            w.show(side);
            return null;
        });
        int before = told[0];
        mouse(w, MouseEvent.MOUSE_PRESSED, 200);
        mouse(w, MouseEvent.MOUSE_DRAGGED, 420);
        mouse(w, MouseEvent.MOUSE_RELEASED, 420);
        double length = side.clip().seconds();
        double perPixel = length / (w.getWidth() - 20);
        assertThat(told[0]).isGreaterThan(before);
        assertThat(w.span()[0]).isCloseTo(190 * perPixel, within(2 * perPixel));
        assertThat(w.span()[1]).isCloseTo(410 * perPixel, within(2 * perPixel));
        mouse(w, MouseEvent.MOUSE_PRESSED, 420); // its edge
        mouse(w, MouseEvent.MOUSE_DRAGGED, 300);
        mouse(w, MouseEvent.MOUSE_RELEASED, 300);
        assertThat(w.span()[1]).isCloseTo(290 * perPixel, within(2 * perPixel));
        Color chosen = picture(w).getPixelReader().getColor(250, 10);
        assertThat(like(chosen, Palette.NIGHT.panel())).as("the span is shaded").isFalse();
        double onset = 10 + side.measurement().onsetSeconds() / perPixel;
        mouse(w, MouseEvent.MOUSE_PRESSED, onset);
        mouse(w, MouseEvent.MOUSE_DRAGGED, onset + 50);
        mouse(w, MouseEvent.MOUSE_RELEASED, onset + 50);
        assertThat(w.span()[1])
                .as("from where the onset was dragged to the end")
                .isCloseTo(length, within(1e-6));
        assertThat(w.span()[0]).isCloseTo(side.measurement().onsetSeconds() + 50 * perPixel, within(2 * perPixel));
        key(w, KeyCode.UP);
        key(w, KeyCode.ESCAPE);
        assertThat(w.span()).isNull();
        key(w, KeyCode.RIGHT);
        assertThat(w.span()[1] - w.span()[0])
                .as("a fifth of what is seen, zoomed once")
                .isCloseTo(0.7 * length / 5, within(0.02 * length));
    }

    private static void mouse(Waveform w, EventType<MouseEvent> type, double x) {
        OnStage.fx(() -> {
            w.fireEvent(new MouseEvent(
                    type,
                    x,
                    30,
                    x,
                    30,
                    MouseButton.PRIMARY,
                    1,
                    false,
                    false,
                    false,
                    false,
                    true,
                    false,
                    false,
                    false,
                    false,
                    false,
                    null));
            return null;
        });
    }

    private static void key(Waveform w, KeyCode code) {
        OnStage.fx(() -> {
            w.fireEvent(new KeyEvent(KeyEvent.KEY_PRESSED, "", "", code, false, false, false, false));
            return null;
        });
    }

    @Test
    void noiseIsDrawnWhereThereIsSome() throws Exception {
        NoisePlot p = OnStage.show(NoisePlot::new);
        double[][] level = new double[24][60];
        double[] start = new double[24];
        double[] t60 = new double[24];
        for (int b = 0; b < 24; b++) {
            for (int f = 0; f < 60; f++) {
                level[b][f] = b < 12 ? Double.NaN : -20 - f;
            }
            start[b] = b < 12 ? Double.NaN : -20;
            t60[b] = b < 12 ? Double.NaN : 0.6;
        }
        OnStage.fx(() -> {
            p.show(new NoiseBands(0.01, level, start, t60, -3), "");
            return null;
        });
        WritableImage image = picture(p);
        int h = (int) image.getHeight();
        Color loud = image.getPixelReader().getColor(70, 60); // high bands at the strike
        Color low = image.getPixelReader().getColor(70, h - 60);
        assertThat(like(loud, Palette.NIGHT.recording())).isTrue();
        assertThat(like(low, Palette.NIGHT.panel())).isTrue();
        assertThat(p.getAccessibleText()).contains("-3 dB/oct").contains("0.60 s");
    }

    @Test
    void theStripMarksEachDecayOfARecordingByItself() throws Exception {
        RecordingStrip strip = OnStage.show(() -> new RecordingStrip(new SimpleObjectProperty<>()));
        OnStage.fx(() -> {
            strip.setAxis(BedModel.of(side.measurement(), null, Axis.Kind.HZ).axis());
            strip.setRecording(side);
            return null;
        });
        int marks = count(picture(strip), Palette.NIGHT.recording());
        assertThat(marks)
                .isGreaterThan(25 * side.measurement().reliablePartials().size());
        OnStage.fx(() -> {
            strip.setRecording(null);
            return null;
        });
        assertThat(count(picture(strip), Palette.NIGHT.recording())).isZero();
    }

    @Test
    void theStripShowsLevelFirstMomentsBrightnessAndNoiseOnTheAxisOfTheBed() throws Exception {
        RecordingStrip strip = OnStage.show(() -> new RecordingStrip(new SimpleObjectProperty<>()));
        Axis axis = BedModel.of(side.measurement(), null, Axis.Kind.HZ).axis();
        NoiseBands noise = NoiseBands.of(side.clip(), side.measurement());
        for (RecordingStrip.Shows what : RecordingStrip.Shows.values()) {
            OnStage.fx(() -> {
                strip.setAxis(axis);
                strip.setRecording(side);
                strip.setNoise(noise, "");
                strip.show(what);
                return null;
            });
            assertThat(count(picture(strip), Palette.NIGHT.recording()))
                    .as("%s", what)
                    .isGreaterThan(30);
            assertThat(strip.getAccessibleText()).isEqualTo(what.help());
        }
        OnStage.fx(() -> {
            strip.setNoise(null, "Taking the partials out ...");
            return null;
        });
        assertThat(count(picture(strip), Palette.NIGHT.recording())).isZero();
    }

    private static Measurement held() throws Exception {
        double[] x = new double[96_000];
        for (int n = 1; n <= 14; n++) {
            for (int i = 9_600; i < x.length; i++) {
                double t = (i - 9_600) / 48_000.0;
                x[i] += 0.2 / n * Math.min(1, t / 0.03) * Math.sin(2 * Math.PI * n * 180 * t + n * n);
            }
        }
        return Measurer.measure(Clip.mono(x, 48_000));
    }

    @Test
    void harmonicsStandAsTallAsTheyAreLoudUnderTheirFormants() throws Exception {
        FormantPlot p = OnStage.show(FormantPlot::new);
        Measurement m = held();
        OnStage.fx(() -> {
            p.show(m);
            return null;
        });
        WritableImage image = picture(p);
        double low = m.f0Hz() / 1.3;
        double high = 1.15 * 14 * 180;
        int[] tall = new int[2];
        for (int k = 0; k < 2; k++) {
            double hz = (k == 0 ? 1 : 8) * 180;
            int at = (int) (56 + (image.getWidth() - 70) * Math.log(hz / low) / Math.log(high / low));
            for (int dx = -2; dx <= 2; dx++) {
                tall[k] = Math.max(tall[k], column(image, at + dx, Palette.NIGHT.recording()));
            }
        }
        assertThat(tall[0]).isGreaterThan(tall[1] + 20);
        assertThat(tall[1]).isGreaterThan(40);
        assertThat(p.getAccessibleText()).contains("dB off").contains("dB/oct");
    }

    @Test
    void whereAllPartialsWereLeftOutThereIsNothingToDraw() throws Exception {
        FormantPlot p = OnStage.show(FormantPlot::new);
        Measurement m = held();
        ManualCorrections none = ManualCorrections.NONE;
        for (Partial q : m.reliablePartials()) {
            none = none.leaveOut(q.frequencyHz());
        }
        Measurement empty = none.over(m, Clip.mono(new double[96_000], 48_000));
        assertThat(empty.reliablePartials()).isEmpty();
        assertThat(empty.traits().slopeDbPerOctave()).isNotNull();
        OnStage.fx(() -> {
            p.show(empty);
            return null;
        });
        assertThat(count(picture(p), Palette.NIGHT.recording())).isZero();
    }

    @Test
    void everyNoteOfASetIsADotOnBothPictures() throws Exception {
        NotesPlot p = OnStage.show(NotesPlot::new);
        List<Measurement> notes = new java.util.ArrayList<>();
        for (double hz : new double[] {224, 336, 449}) { // all some thirty cents sharp
            double[] x = new double[48_000];
            for (int i = 4_800; i < x.length; i++) {
                double t = (i - 4_800) / 48_000.0;
                x[i] = 0.3 * Math.pow(10, -3 * t * hz / 224) * Math.sin(2 * Math.PI * hz * t);
            }
            notes.add(Measurer.measure(Clip.mono(x, 48_000)));
        }
        NoteSet set = NoteSet.of(notes);
        assertThat(set.commonCents()).isBetween(28.0, 36.0);
        OnStage.fx(() -> {
            p.show(set);
            return null;
        });
        int dots = count(picture(p), Palette.NIGHT.recording());
        assertThat(dots).isBetween(6 * 25, 6 * 45);
        assertThat(p.getAccessibleText()).contains("times the speed");
        OnStage.fx(() -> {
            p.say("This recording holds one note.");
            return null;
        });
        assertThat(count(picture(p), Palette.NIGHT.recording())).isZero();
    }
}

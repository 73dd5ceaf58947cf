package nightreed.match.sound;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import nightreed.recipe.part.Envelope;
import org.junit.jupiter.api.Test;

/** Levels of a held note in bands, and where its key was let go. */
class NoteOffDetectorTest {
    private static final int FRAMES = 320;
    private static final double[] STILL = new double[FRAMES];
    private static final double NEVER = Double.POSITIVE_INFINITY;

    /** Bands that swing alike, each with some unrest of its own. */
    private static double[][] bands(double[] swingDb, DoubleUnaryOperator... amplitudes) {
        Random chance = new Random(5);
        double[][] out = new double[amplitudes.length][FRAMES];
        for (int b = 0; b < out.length; b++) {
            for (int f = 0; f < FRAMES; f++) {
                double a = amplitudes[b].applyAsDouble((f + 0.5) * LoudnessTracks.HOP) * Math.pow(10, swingDb[f] / 20);
                out[b][f] = Math.pow(a * (1 + 0.01 * chance.nextGaussian()), 2);
            }
        }
        return out;
    }

    private static DoubleUnaryOperator letGo(double level, double key, double release, double curve) {
        Envelope e = new Envelope(0, 0, 0, 0, 0, curve, 1, release);
        return t -> level * (t < key ? 1 : e.released(1, t - key));
    }

    /** Steps of up to 9 dB either way, 12 a second. */
    private static double[] steps() {
        double[] out = new double[FRAMES];
        Arrays.setAll(out, f -> 9 * Math.sin(37.7 * (f / 8) * (f / 8)));
        return out;
    }

    @Test
    void aFallHiddenInKnownStepsIsPlacedBetweenThem() {
        double[] steps = steps();
        double[][] bands = bands(steps, letGo(1, 2.47, 0.7, 0.7), letGo(0.1, 2.47, 0.5, 0.7));
        assertThat(NoteOffDetector.refined(bands, steps, 2.57, 0.1)).isCloseTo(2.47, within(0.015));
    }

    @Test
    void aFallTooSlowToBeSeenAtOnceIsFoundFromALevelThatWasSteady() {
        double[][] bands = bands(STILL, letGo(1, 2.6, 1.6, 0.2), letGo(0.3, 2.6, 1.6, 0.2), letGo(0.1, 2.6, 1.2, 0.2));
        assertThat(NoteOffDetector.refined(bands, STILL, NEVER, 0.1)).isCloseTo(2.6, within(0.03));
    }

    /** The loud band says little of the moment: 30 dB under it another is gone at once. */
    @Test
    void aSoftBandThatEndsTellsTheMomentWhereTheLoudOneFadesSlowly() {
        double[][] bands = bands(STILL, letGo(1, 2.4, 3, 0), letGo(0.03, 2.4, 0.05, 0), letGo(0.03, 2.4, 0.05, 0));
        assertThat(NoteOffDetector.refined(bands, STILL, 2.6, 0.1)).isCloseTo(2.4, within(0.01));
    }

    @Test
    void aLevelThatOnlySwaysOrSlowlyFadesIsNotLetGo() {
        DoubleUnaryOperator sways = t -> 1 + 0.15 * Math.sin(9 * t);
        DoubleUnaryOperator fades = t -> 1 - 0.2 * t;
        assertThat(NoteOffDetector.refined(bands(STILL, sways, sways), STILL, NEVER, 0.1))
                .isInfinite();
        assertThat(NoteOffDetector.refined(bands(STILL, fades, fades, fades), STILL, NEVER, 0.1))
                .isInfinite();
    }

    @Test
    void nothingIsToldOfASilentOrAShortSound() {
        assertThat(NoteOffDetector.refined(new double[3][FRAMES], STILL, NEVER, 0.1))
                .isInfinite();
        assertThat(NoteOffDetector.refined(new double[3][FRAMES], STILL, 2.5, 0.1))
                .isEqualTo(2.5);
        assertThat(NoteOffDetector.refined(new double[3][8], new double[8], 0.05, 0.1))
                .isEqualTo(0.05);
    }
}

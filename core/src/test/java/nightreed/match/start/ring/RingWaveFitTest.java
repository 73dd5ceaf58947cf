package nightreed.match.start.ring;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.StartContext;
import nightreed.music.Pitch;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Feet;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How the harmonics of a held note swing tells what a sine beside its wave does. */
class RingWaveFitTest {
    private static final int FS = 48_000;
    private static final int KEY = 55;
    private static final List<Wave> WAVES = List.of(Wave.SAW, Wave.PULSE, Wave.TRIANGLE);

    private static AnalysedSound sound(Oscillator wave, double cents, double ringDb, Filter filter, Envelope level)
            throws UnusableSound {
        RingRecipe r = new RingRecipe(
                KEY,
                0,
                -9,
                wave,
                Oscillator.of(Wave.SINE, Math.pow(2, cents / 1200)),
                null,
                filter,
                null,
                ringDb,
                -3,
                1,
                0,
                0,
                level,
                null,
                VelocityMap.USUAL,
                Common.NONE);
        return ImitationRenderer.rendered(Renderer.asFitted(r, 0.1, 2.6, 3, FS));
    }

    @ParameterizedTest
    @CsvSource({
        "SAW, 0.5, 18, -7, 3000, 0.5",
        "SAW, 0.5, -31, 6, 700, 1.2",
        "PULSE, 0.2, 42, 0, 1500, 0.8",
    })
    void balanceFilterAndIntervalComeOut(Wave wave, double width, double cents, double ringDb, double hz, double q)
            throws Exception {
        Oscillator o = new Oscillator(wave, Feet.FEET_8, 1, 0, 0, width, 0, false, 0, 0, 0);
        StartContext g = new StartContext(sound(o, cents, ringDb, Filter.lowPass(hz, q), Envelope.held(0.05, 0.1)));
        RingWaveFit got = RingWaveFit.of(HarmonicSwings.of(g), g.f0(), WAVES).get(0);
        double off = Pitch.hz(KEY) * (Math.pow(2, cents / 1200) - 1);
        assertThat(got.wave()).isEqualTo(wave);
        assertThat(Math.abs(got.hz())).isCloseTo(Math.abs(off), within(0.03));
        assertThat(got.ringDb()).isCloseTo(ringDb + 3, within(0.7));
        assertThat(got.cutoffHz() / hz).isCloseTo(1, within(0.15));
        assertThat(got.q() / q).isCloseTo(1, within(0.15));
        if (wave == Wave.PULSE) {
            assertThat(got.width()).isCloseTo(width, within(0.01));
        }
        assertThat(got.rms()).isLessThan(0.2);
    }

    @Test
    void whatDoesNotSwingIsInUnison() throws Exception {
        Oscillator saw = Oscillator.of(Wave.SAW, 1);
        StartContext g = new StartContext(sound(saw, 0, 2, Filter.lowPass(1200, 0.7), Envelope.held(0.05, 0.1)));
        assertThat(HarmonicSwings.of(g).likely(3)).isEmpty();
        RingWaveFit got = RingWaveFit.of(HarmonicSwings.of(g), g.f0(), WAVES).get(0);
        assertThat(got.hz()).isZero();
        assertThat(got.rms()).isLessThan(0.2);
    }

    /** Lines that beat rise and fall by themselves: no course of the level has to. */
    @Test
    void theCourseOfTheLevelLeavesTheBeatsAlone() throws Exception {
        AnalysedSound side =
                sound(Oscillator.of(Wave.SAW, 1), 30, 4, Filter.lowPass(900, 0.7), Envelope.held(0.15, 0.1));
        RingRecipe start = (RingRecipe) Starts.several("ring", side, false, Progress.NONE).stream()
                .filter(r -> ((RingRecipe) r).a().wave() == Wave.SAW && Math.abs(r.value("b.detune") - 30) < 2)
                .findFirst()
                .orElseThrow();
        assertThat(start.amplitude().sustain()).isGreaterThan(0.9);
        assertThat(start.amplitude().attackSeconds()).isCloseTo(0.15, within(0.04));
        assertThat(start.interval(start.velocity().reference())).isCloseTo(Math.pow(2, 30 / 1200.0), within(2e-4));
    }
}

package nightreed.match.start.subtractive;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.StartContext;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.voice.Renderer;
import nightreed.work.Progress;
import org.junit.jupiter.api.Test;

class FilterCourseTest {
    private static final SubtractiveRecipe SAWS = (SubtractiveRecipe) FirstRecipe.of("subtractive");

    private static AnalysedSound heard(SubtractiveRecipe r) throws Exception {
        return ImitationRenderer.side(Renderer.asFitted(r, 0.1, 1.6, 2.4, 44_100), Progress.NONE);
    }

    @Test
    void twoWavesAndTheFilterThatTheyGoThroughAreFoundBack() throws Exception {
        AnalysedSound side = heard(SAWS);
        StartContext g = new StartContext(side);
        FilterCourse.Source s = FilterCourse.of(g).get(0);
        assertThat(s.wave()).isEqualTo(Wave.SAW);
        double cents = 1200 * Math.log(1 + s.beatHz() / g.f0()) / Math.log(2);
        assertThat(cents).as("7 cents apart").isCloseTo(7, within(0.5));
        assertThat(s.filter().slope()).isEqualTo(SAWS.filter().slope());
        for (double t : new double[] {0.1, 0.4, 1.2}) {
            double found = s.filter().cutoffHz()
                    * Math.pow(
                            2,
                            s.filter().envelopeOctaves() * s.filter().envelope().at(t, 1));
            double made = SAWS.filter().cutoffHz()
                    * Math.pow(
                            2,
                            SAWS.filter().envelopeOctaves()
                                    * SAWS.filter().envelope().at(t, 1));
            assertThat(Math.log(found / made) / Math.log(2))
                    .as("octaves off at " + t)
                    .isBetween(-0.5, 0.5);
        }
    }

    @Test
    void aWaveAloneThroughAStillFilterNeedsNeitherSecondWaveNorEnvelope() throws Exception {
        SubtractiveRecipe one = SAWS.with(b -> b.oscillators(
                        List.of(SAWS.oscillators().get(0).withWave(Wave.PULSE).withWidth(0.22)))
                .filter(nightreed.recipe.part.Filter.lowPass(1500, 1.4)));
        FilterCourse.Source s = FilterCourse.of(new StartContext(heard(one))).get(0);
        assertThat(s.wave()).isEqualTo(Wave.PULSE);
        assertThat(s.width()).isCloseTo(0.22, within(0.03));
        assertThat(s.beatHz()).isZero();
        assertThat(s.filter().envelope()).isNull();
        assertThat(s.filter().cutoffHz()).isCloseTo(1500, within(300.0));
    }

    @Test
    void aStartFromItIsNear() throws Exception {
        AnalysedSound side = heard(SAWS);
        SubtractiveRecipe start =
                SubtractiveStart.several(new StartContext(side)).get(1);
        AnalysedSound imitation = ImitationRenderer.imitation(side, ImitationRenderer.asLoud(start, side));
        assertThat(PerceptualComparator.compare(side, imitation).totalJnd()).isLessThan(2);
    }
}

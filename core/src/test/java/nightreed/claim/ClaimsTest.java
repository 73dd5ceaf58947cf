package nightreed.claim;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nightreed.claim.Claim.Moving;
import nightreed.claim.Verdict.Answer;
import nightreed.measure.Measurer;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.Movement;
import nightreed.measure.traits.SourceWave;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Filter.Kind;
import nightreed.recipe.part.Filter.Slope;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.Route;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

class ClaimsTest {
    private static final SubtractiveRecipe PLAIN = (SubtractiveRecipe) FirstRecipe.of("subtractive");

    /** With noise 40 dB under it. */
    private static ClaimJudge heard(SubtractiveRecipe r) throws Exception {
        float[] x = Renderer.asFitted(r, 0.2, 3, 3.4, 44_100).channel(0).clone();
        double rms = 0;
        for (float v : x) {
            rms += v * v / x.length;
        }
        Random random = new Random(5);
        for (int i = 0; i < x.length; i++) {
            x[i] += (float) (0.01 * Math.sqrt(rms) * random.nextGaussian());
        }
        Clip clip = Clip.mono(x, 44_100);
        return new ClaimJudge(Measurer.measure(clip), clip);
    }

    private static SubtractiveRecipe waves(Wave wave, double width, double... cents) {
        List<Oscillator> all = new ArrayList<>();
        for (double c : cents) {
            all.add(Oscillator.of(wave, 1).withWidth(width).withDetuneCents(c));
        }
        return PLAIN.with(b -> b.key(50).oscillators(all).amplitude(Envelope.held(0.08, 0.1)))
                .withFilter(new Filter(Kind.LOW, Slope.DB_24, 900, 0.8, 0, 0, 0, 0, null));
    }

    private static void says(ClaimJudge t, Answer answer, Claim claim) {
        Verdict v = t.of(claim);
        assertThat(v.answer()).as(claim.words() + ": " + v.why()).isEqualTo(answer);
        if (answer != Answer.OPEN) {
            assertThat(v.odds()).isBetween(0.95, 1.0);
        }
        assertThat(v.why()).isNotBlank();
    }

    @Test
    void waveSlopeAttackAndTuningOfAPlainNote() throws Exception {
        ClaimJudge t = heard(waves(Wave.PULSE, 0.23, 0).with(b -> b.tuningCents(-18)));
        says(t, Answer.SUPPORTED, new Claim.Source(SourceWave.Wave.PULSE));
        says(t, Answer.REFUTED, new Claim.Source(SourceWave.Wave.SAW));
        says(t, Answer.SUPPORTED, new Claim.Slope(24));
        says(t, Answer.REFUTED, new Claim.Slope(12));
        says(t, Answer.SUPPORTED, new Claim.Attack(AttackBy.Verdict.AMPLITUDE));
        says(t, Answer.REFUTED, new Claim.Attack(AttackBy.Verdict.FILTER));
        says(t, Answer.SUPPORTED, new Claim.Tuning(-18));
        says(t, Answer.REFUTED, new Claim.Tuning(0));
        says(t, Answer.OPEN, new Claim.Tuning(-16)); // near, and not it
        says(t, Answer.REFUTED, new Claim.Tuning(-13));
        says(t, Answer.SUPPORTED, new Claim.Still(Moving.PITCH));
        says(t, Answer.REFUTED, new Claim.Moves(Moving.PITCH, null, 5.0));
        says(t, Answer.OPEN, new Claim.Moves(Moving.PITCH, null, 0.3)); // too slow for what is looked for
        says(t, Answer.OPEN, new Claim.Echoes(0.27)); // held over it
        says(t, Answer.SUPPORTED, new Claim.Voices(1));
        says(t, Answer.REFUTED, new Claim.Voices(2));
    }

    @Test
    void aFilterThatOpensIsToldFromALevelThatRises() throws Exception {
        SubtractiveRecipe opening = waves(Wave.SAW, 0.5, 0)
                .with(b -> b.amplitude(Envelope.held(0.003, 0.1)))
                .withFilter(new Filter(
                        Kind.LOW, Slope.DB_24, 150, 0.8, 0, 3.5, 0, 0, new Envelope(0, 0.15, 0, 0, 1, 1, 1, 0.2)));
        ClaimJudge t = heard(opening);
        says(t, Answer.SUPPORTED, new Claim.Attack(AttackBy.Verdict.FILTER));
        says(t, Answer.REFUTED, new Claim.Attack(AttackBy.Verdict.AMPLITUDE));
    }

    @Test
    void vibratoByRateAndShapeAndDetunedVoicesByTheirLines() throws Exception {
        Lfo lfo = new Lfo(Lfo.Shape.SINE, 5.2, Lfo.Per.SECOND, 0, 0, 0, 0.5, 0, false, false, List.of());
        Common swing =
                Common.NONE.withFirst(lfo).withRoutes(List.of(new Route(Route.Source.LFO_1, Route.Target.PITCH, 18)));
        ClaimJudge vibrato = heard(waves(Wave.SAW, 0.5, 0).withCommon(swing));
        says(vibrato, Answer.SUPPORTED, new Claim.Moves(Moving.PITCH, Movement.Shape.SINE, 5.2));
        says(vibrato, Answer.REFUTED, new Claim.Moves(Moving.PITCH, Movement.Shape.SQUARE, 5.2));
        says(vibrato, Answer.REFUTED, new Claim.Moves(Moving.PITCH, null, 6.5));
        says(vibrato, Answer.REFUTED, new Claim.Still(Moving.PITCH));
        says(vibrato, Answer.OPEN, new Claim.Voices(1)); // it hides them
        ClaimJudge three = heard(waves(Wave.SAW, 0.5, -10, 0, 12));
        says(three, Answer.SUPPORTED, new Claim.Voices(3));
        says(three, Answer.REFUTED, new Claim.Voices(1));
    }

    @Test
    void whatIsStruckLeavesOpenWhatOnlyAHeldNoteTells() throws Exception {
        Clip bar = RecordingRoom.record(RecordingRoom.instrument("slate-bars"), 62, 0.8, 21);
        ClaimJudge t = new ClaimJudge(Measurer.measure(bar), bar);
        says(t, Answer.OPEN, new Claim.Source(SourceWave.Wave.SAW));
        says(t, Answer.OPEN, new Claim.Moves(Moving.LEVEL, null, 5.0));
        says(t, Answer.OPEN, new Claim.Attack(AttackBy.Verdict.FILTER));
        says(t, Answer.OPEN, new Claim.Echoes(0.3)); // repeats of a tone that rings hide in it
    }

    @Test
    void claimsAreReadAndWrittenAsTheyAreAndWhatIsWrongIsNamed() {
        String json = "[{\"kind\":\"movement\",\"of\":\"pitch\",\"shape\":\"sine\",\"rateHz\":5.0},"
                + "{\"kind\":\"movement\",\"of\":\"cutoff\",\"absent\":true},{\"kind\":\"source\",\"wave\":\"saw\"},"
                + "{\"kind\":\"slope\",\"dbPerOctave\":12.0},{\"kind\":\"attack\",\"by\":\"filter\"},"
                + "{\"kind\":\"tuning\",\"cents\":-18.0},{\"kind\":\"echo\",\"seconds\":0.27},{\"kind\":\"voices\",\"count\":3}]";
        List<Claim> all = ClaimJson.parse(json);
        StringBuilder again = new StringBuilder();
        all.forEach(c -> again.append(again.length() == 0 ? "[" : ",").append(ClaimJson.tree(c)));
        assertThat(again.append("]")).hasToString(json);
        assertThat(all).allSatisfy(c -> assertThat(c.words()).isNotBlank());
        for (String wrong : List.of(
                "{}",
                "nonsense",
                "[{\"kind\":\"colour\"}]",
                "[{\"kind\":\"source\",\"wave\":\"cube\"}]",
                "[{\"kind\":\"movement\",\"of\":\"pitch\",\"rateHz\":-1}]",
                "[{\"kind\":\"tuning\"}]",
                "[3]")) {
            assertThatThrownBy(() -> ClaimJson.parse(wrong)).as(wrong).isInstanceOf(IllegalArgumentException.class);
        }
    }
}

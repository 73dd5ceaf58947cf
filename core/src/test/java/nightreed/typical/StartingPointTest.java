package nightreed.typical;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Set;
import nightreed.recipe.Patch;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;
import nightreed.sound.TruePeak;
import nightreed.voice.PlayingLevel;
import nightreed.voice.Renderer;
import org.junit.jupiter.api.Test;

class StartingPointTest {
    @Test
    void eachSoundsAtAPlayingLevelAndSaysWhatToDo() {
        Set<String> families = new HashSet<>();
        for (StartingPoint p : StartingPoint.all()) {
            assertThat(p.first()).as(p.id()).hasSize(3);
            for (String id : p.first()) {
                assertThat(p.patch().first().settings())
                        .as(p.id() + " " + id)
                        .anyMatch(s -> s.parameter().id().equals(id));
            }
            assertThat(p.note()).contains(p.why()).contains("Move first: ").contains(p.wrong());
            assertThat(p.families()).allSatisfy(f -> assertThat(Families.of(f)).isNotNull());
            families.addAll(p.families());
            Clip sound = PlayingLevel.safe(played(p.patch())).clip();
            assertThat(TruePeak.db(sound)).as(p.id()).isBetween(-40.0, -0.9);
            assertThat(Loudness.integrated(sound)).as(p.id()).isBetween(-45.0, -8.0);
        }
        assertThat(StartingPoint.all()).hasSize(16);
        assertThat(families).hasSizeGreaterThan(15);
    }

    @Test
    void thoseThatLeadToAFamilyComeFirst() {
        assertThat(StartingPoint.to(Families.of("brass")).get(0).families()).contains("brass");
        assertThat(StartingPoint.to(Families.of("brass"))).hasSize(16);
    }

    private static Clip played(Patch patch) {
        Clip raw = Renderer.asFitted(patch, 0, 1.5, 3, 44_100);
        return raw.scaled(Math.pow(10, PlayingLevel.gainDb(patch) / 20));
    }
}

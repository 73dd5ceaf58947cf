package nightreed.voice;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.Tones;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.Recipes;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;
import nightreed.sound.TruePeak;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** One level for all that is played, whatever the level of the recording was. */
class PlayingLevelTest {
    private static final int FS = 48_000;

    static List<Recipe> all() {
        return Recipes.all();
    }

    private static Clip live(Patch patch, double velocity, double seconds) {
        Instrument played = new Instrument(patch, FS);
        float[][] y = new float[2][(int) (seconds * FS)];
        played.noteOn(patch.first().key(), velocity);
        played.render(y[0], y[1], 0, y[0].length);
        return new Clip(y, FS);
    }

    @ParameterizedTest
    @MethodSource("all")
    void everyRecipeIsPlayedAtOneLevelWithRoomAbove(Recipe r) {
        Patch patch = PlayingLevel.kept(Patch.of(r));
        double loudness = Loudness.loudest(live(patch, 0.7, 1.5));
        double peak = TruePeak.db(live(patch, 1, 0.6));
        assertThat(loudness).isLessThan(PlayingLevel.NOMINAL_LUFS + 0.2);
        assertThat(peak).isLessThan(PlayingLevel.HARDEST_DBTP + 0.2);
        assertThat(loudness > PlayingLevel.NOMINAL_LUFS - 0.2 || peak > PlayingLevel.HARDEST_DBTP - 0.5)
                .as("%.1f LUFS, %.1f dBTP", loudness, peak)
                .isTrue();
    }

    @ParameterizedTest
    @MethodSource("all")
    void aFileIsAsLoudAsTheSamePlayedLive(Recipe r) {
        Patch patch = PlayingLevel.kept(Patch.of(r));
        double live = Tones.rmsDb(live(patch, 0.7, 1).channel(0), 0, FS);
        Clip file =
                Renderer.played(patch, r.key(), 0.7, 1, 1, FS).scaled(Math.pow(10, PlayingLevel.gainDb(patch) / 20));
        assertThat(Tones.rmsDb(file.channel(0), 0, FS) - live).isCloseTo(0, within(0.1));
    }

    @Test
    void whatWouldBeCutOffIsHeldBackAndTold() {
        Clip loud = Clip.mono(Tones.sine(FS, 440, 3, 0.5), FS);
        PlayingLevel.Safe safe = PlayingLevel.safe(loud);
        assertThat(safe.clip().length()).isEqualTo(loud.length());
        assertThat(safe.words()).contains("held back by up to 10.");
        assertThat(safe.clip().peak()).isBetween(0.85, 0.9);
        Clip low = Clip.mono(Tones.sine(FS, 440, 0.5, 0.5), FS);
        assertThat(PlayingLevel.safe(low).clip()).isSameAs(low);
        assertThat(PlayingLevel.safe(low).words()).isEmpty();
    }
}

package nightreed.desktop.workspace;

import nightreed.recipe.Patch;
import nightreed.sound.Clip;
import nightreed.voice.PlayingLevel;
import nightreed.voice.Renderer;

/** What a patch sounds like where no recording says how long and how loud. */
final class ByItself {
    private static final int SAMPLE_RATE_HZ = 48_000;

    /** How long the key is held, and how long the sound is [s]. Chosen: a bar of slow time, and a rest to hear the end in. */
    private static final double HELD_SECONDS = 2.5;

    private static final double SECONDS = 4;

    /** As much is measured for the picture, so that it follows a hand [s]. */
    private static final double MEASURED_SECONDS = 1.5;

    private ByItself() {}

    /** What the picture is made of. */
    static Clip beginning(Clip sound) {
        return sound.span(0, (int) Math.min(sound.length(), MEASURED_SECONDS * SAMPLE_RATE_HZ));
    }

    /** Its own key, as loud as it is played. */
    static Clip sound(Patch patch) {
        Clip raw = Renderer.asFitted(patch, 0, HELD_SECONDS, SECONDS, SAMPLE_RATE_HZ);
        return PlayingLevel.safe(raw.scaled(Math.pow(10, PlayingLevel.gainDb(patch) / 20)))
                .clip();
    }
}

package nightreed.match.fit;

import nightreed.music.Pitch;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.Recipe;
import nightreed.recipe.StringRecipe;
import nightreed.voice.fm.FmSound;

/**
 * What renders and listening take, so that a search by a slow method makes fewer of them. The unit is what a second of the
 * plainest sound takes, about 2.5 ms on the machine that the shares were measured on.
 */
final class RenderCost {
    /** Of listening: of any sound, and of each second of it. */
    private static final double LISTENING = 0.2;

    private static final double LISTENING_PER_SECOND = 0.35;

    private RenderCost() {}

    /**
     * Of one render that is listened to.
     *
     * @param seconds that are rendered
     * @param fs      sample rate [Hz]
     */
    static double of(Recipe recipe, double seconds, double fs) {
        return LISTENING + seconds * (LISTENING_PER_SECOND + perSecond(recipe, fs));
    }

    private static double perSecond(Recipe recipe, double fs) {
        return switch (recipe.method()) {
            case "formant" -> 7.5;
            case "ring" -> 2.5;
            case "resonators" -> 2.2;
            case "string" -> ((StringRecipe) recipe).bow() != null ? 3.4 : 1.9;
            case "fm" -> modulated((FmRecipe) recipe, fs);
            default -> 1.7;
        };
    }

    private static double modulated(FmRecipe recipe, double fs) {
        int sounding = 0;
        for (FmPair p : recipe.pairs()) {
            sounding += p.levelDb() > FmPair.OFF_DB ? 1 : 0;
        }
        return 0.3 + 0.82 * sounding * FmSound.times(recipe, Pitch.hz(recipe.key()), 1, fs);
    }
}

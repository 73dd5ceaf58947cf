package nightreed.voice;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.PatchCheck.Finding;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;

/** What only listening finds: silence, a dead or an inverted side, a click, a sound that grows, one that is too loud. */
public final class SoundCheck {
    private static final int FS = 48_000;
    private static final double HELD_SECONDS = 1.2;
    private static final double SECONDS = 1.8;

    /** Under it nothing is heard of a sound that is played at its level [dB re full scale]. */
    private static final double SILENT_DB = -90;

    /** One side so far under the other is as good as dead [dB]. */
    private static final double DEAD_DB = 40;

    /** Correlation of the sides under which a sum of both loses more than 10 dB. */
    private static final double INVERTED = -0.82;

    /** A first sample over this share of the peak is a step that is heard as a click: -26 dB. Chosen. */
    private static final double STEP = 0.05;

    /** What a limiter holds back that nobody hears [dB]. */
    private static final double HEARD_DB = 0.5;

    private SoundCheck() {}

    /** Whether something is struck or plucked in it, which begins with a step by nature. */
    private static boolean isStruck(Patch patch) {
        return patch.layers().stream()
                .map(Layer::recipe)
                .anyMatch(r -> r instanceof ResonatorRecipe
                        || r instanceof StringRecipe
                        || r.settings().stream()
                                .anyMatch(s -> s.parameter().id().equals("noise.level")));
    }

    /** @param layer that is shaped, from 0: mends are of its recipe */
    public static List<Finding> of(Patch patch, int layer) {
        Recipe r = patch.layers().get(layer).recipe();
        List<Finding> out = new ArrayList<>();
        double gain = Math.pow(10, PlayingLevel.gainDb(patch) / 20);
        Clip c = Renderer.played(patch, patch.key(), 1, HELD_SECONDS, SECONDS, FS)
                .scaled(gain);
        float[] left = c.channel(0);
        float[] right = c.channel(1);
        double lPower = power(left, 0, left.length);
        double rPower = power(right, 0, right.length);
        if (10 * Math.log10(Math.max(lPower, rPower) + 1e-30) < SILENT_DB) {
            out.add(new Finding("level", "Nothing is heard on the patch's own key.", null));
            return out;
        }
        double peak = TruePeak.db(c);
        if (peak > PlayingLevel.CEILING_DB + HEARD_DB) {
            double over = peak - PlayingLevel.CEILING_DB;
            out.add(new Finding(
                    "level",
                    String.format(
                            Locale.ROOT,
                            "Struck as hard as can be it passes the ceiling by %.1f dB, which is held back.",
                            over),
                    r.with("level", r.levelDb() - over - 3)));
        }
        sides(out, r, left, right, lPower, rPower);
        double most = Math.pow(10, peak / 20);
        if (!isStruck(patch) && Math.max(Math.abs(left[0]), Math.abs(right[0])) > STEP * most) {
            out.add(new Finding(
                    "", "It begins with a step: a click before the tone. Let the wave start at nothing.", null));
        }
        int third = (int) (HELD_SECONDS * FS / 3);
        double early = power(left, third, 2 * third) + power(right, third, 2 * third);
        double late = power(left, 2 * third, 3 * third) + power(right, 2 * third, 3 * third);
        double after = power(left, left.length - third, left.length) + power(right, right.length - third, right.length);
        if (after > 4 * early && late > 2 * early) {
            out.add(new Finding(
                    "",
                    "It grows on and on, also after the key is let go: a loop that gives more than it takes.",
                    null));
        }
        return out;
    }

    private static void sides(List<Finding> out, Recipe r, float[] left, float[] right, double l, double r2) {
        double db = 10 * Math.log10((l + 1e-30) / (r2 + 1e-30));
        if (Math.abs(db) > DEAD_DB) {
            out.add(new Finding(
                    "pan",
                    db > 0 ? "The right side is dead." : "The left side is dead.",
                    r.common().pan() == 0 ? null : r.with("pan", 0)));
            return;
        }
        double both = 0;
        for (int i = 0; i < left.length; i++) {
            both += (double) left[i] * right[i];
        }
        if (both / left.length / Math.sqrt(l * r2 + 1e-30) < INVERTED) {
            out.add(new Finding(
                    "", "The sides cancel each other: heard from one loudspeaker it is nearly gone.", null));
        }
    }

    private static double power(float[] x, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            sum += (double) x[i] * x[i];
        }
        return sum / Math.max(1, to - from);
    }
}

package nightreed.recipe;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.measure.law.ModelSeries;
import nightreed.recipe.part.Structure;

/** Modes put in by the name of a body, or by typed ratios, in place of those that are there. */
public final class NamedModes {
    /** Chosen: about that of a piano string near the middle of the keyboard; the law is H. Fletcher's (1964). */
    private static final double STIFFNESS = 4e-4;

    private static final String STRING = "stiff string";

    /** How much weaker each further mode is than the last where there was none [dB]. Chosen: a middling mallet. */
    private static final double FALL_DB = 5;

    private NamedModes() {}

    /** Names of bodies, as measurements use them. */
    public static List<String> names() {
        List<String> out = new ArrayList<>();
        ModelSeries.all().forEach(s -> out.add(s.name()));
        out.add(STRING);
        return out;
    }

    /**
     * Ratios of a body to its first or its struck note, ascending.
     *
     * @param count most that are wanted; a body may have fewer
     * @throws IllegalArgumentException for a name that is none of {@link #names}
     */
    public static double[] ratios(String name, int count) {
        if (name.equals(STRING)) {
            double[] r = new double[count];
            for (int n = 1; n <= count; n++) {
                r[n - 1] = n * Math.sqrt((1 + STIFFNESS * n * n) / (1 + STIFFNESS));
            }
            return r;
        }
        for (ModelSeries s : ModelSeries.all()) {
            if (s.name().equals(name)) {
                return Arrays.copyOf(s.ratios(), Math.min(count, s.ratios().length));
            }
        }
        throw new IllegalArgumentException("there is no series '" + name + "'");
    }

    /**
     * Ratios from what a person typed, with spaces, commas or semicolons between.
     *
     * @throws IllegalArgumentException if something else stands there, or nothing
     */
    public static double[] typed(String text) {
        String[] words = text.trim().split("[\\s,;:]+");
        double[] out = new double[words.length];
        for (int i = 0; i < words.length; i++) {
            try {
                out[i] = Double.parseDouble(words[i]);
            } catch (NumberFormatException e) {
                throw new IllegalArgumentException("'" + words[i] + "' is no ratio; type numbers such as 1 2.76 5.4");
            }
        }
        return out;
    }

    /**
     * A recipe with modes at other ratios. Levels and decays stay with their number; modes beyond those that were there go on
     * as the last one would.
     *
     * @throws IllegalArgumentException if a ratio is out of range, or there are too many
     */
    public static ResonatorRecipe in(ResonatorRecipe recipe, double[] ratios) {
        List<Mode> was = recipe.modes();
        List<Mode> now = new ArrayList<>();
        for (int i = 0; i < ratios.length; i++) {
            Mode like = was.get(Math.min(i, was.size() - 1));
            int beyond = Math.max(0, i - was.size() + 1);
            double shorter = beyond == 0 ? 1 : Math.sqrt(like.ratio() / ratios[i]);
            now.add(new Mode(
                    ratios[i],
                    Math.max(-80, like.levelDb() - FALL_DB * beyond),
                    Math.max(0.005, Math.min(30, like.t60Seconds() * Math.min(1, shorter))),
                    like.phaseRad()));
        }
        return Structure.filled(recipe, "mode", now);
    }
}

package nightreed.match.frontier;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Set;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;

/** Values as a person would write them down. */
final class RoundValues {
    /** Digits of frequency ratios and detunings, of which the ear hears the fourth. */
    private static final int RATIO_DIGITS = 5;

    /** Step of levels [dB]. */
    private static final double LEVEL_STEP = 0.5;

    private RoundValues() {}

    /**
     * @param digits that numbers are given
     * @param locked values that stay as they are, by id
     */
    static Recipe rounded(Recipe recipe, int digits, Set<String> locked) {
        Recipe r = recipe;
        for (FreeValue v : FreeValues.of(recipe)) {
            if (v.isNumber() && v.ids().stream().noneMatch(locked::contains)) {
                r = v.withIfPossible(r, rounded(v.parameter(), v.value(r), digits));
            }
        }
        return r;
    }

    private static double rounded(Parameter p, double value, int digits) {
        if (p.unit().equals("dB")) {
            double step = digits <= 2 ? LEVEL_STEP : LEVEL_STEP / 5;
            return Math.rint(value / step) * step;
        }
        boolean fine = p.unit().equals("×") || p.unit().equals("cents");
        return new BigDecimal(value)
                .round(new MathContext(fine ? RATIO_DIGITS : digits))
                .doubleValue();
    }
}

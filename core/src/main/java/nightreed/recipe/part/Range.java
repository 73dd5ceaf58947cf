package nightreed.recipe.part;

/** Says what is wrong with a value outside its range. */
public final class Range {
    private Range() {}

    /** @throws IllegalArgumentException with the fault, the value and what would be right; NaN is refused, too */
    public static void check(String what, double value, double least, double most, String unit) {
        if (!(value >= least && value <= most)) {
            throw new IllegalArgumentException(what + " must lie in " + plain(least) + " to " + plain(most)
                    + (unit.isEmpty() ? "" : " " + unit) + ", got " + value);
        }
    }

    private static String plain(double v) {
        return v == Math.rint(v) && Math.abs(v) < 1e9 ? String.valueOf((long) v) : String.valueOf(v);
    }
}

package nightreed.recipe.size;

import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Law;

/**
 * Where a list leaves out members of the series that it follows: which comes next has to be said.
 *
 * @param of     value of the element that comes after the gap
 * @param number its place in the series
 */
record Gap(Parameter of, int number) implements FreeValue {
    private static final int MOST = 1000;

    /** Number of gaps among places in a series, in any order. */
    static int among(int[] places) {
        int[] sorted = Arrays.stream(places).sorted().toArray();
        return (int) IntStream.range(1, sorted.length)
                .filter(i -> sorted[i] > sorted[i - 1] + 1)
                .count();
    }

    @Override
    public Parameter parameter() {
        List<String> places = IntStream.rangeClosed(0, Math.max(1, Math.min(MOST, Math.abs(number))))
                .mapToObj(String::valueOf)
                .toList();
        return new Parameter(
                of.id(),
                of.group(),
                of.name() + ", place in the series",
                "",
                0,
                places.size() - 1,
                Law.CHOICE,
                0,
                "Place in the series, which leaves out some before it.",
                places);
    }

    @Override
    public List<String> ids() {
        return List.of(of.id());
    }

    @Override
    public double value(Recipe recipe) {
        return parameter().most();
    }

    @Override
    public Recipe with(Recipe recipe, double value) {
        return recipe; // the value itself is moved, which takes it off the series
    }
}

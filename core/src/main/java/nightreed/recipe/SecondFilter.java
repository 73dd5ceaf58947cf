package nightreed.recipe;

import nightreed.recipe.part.Filter;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;

/** A filter beside or behind the first one. */
public record SecondFilter(
        @ParameterSpec(
                name = "place",
                neutral = 0,
                meaning = "Behind the first filter, or beside it, so that both are added.")
        Place place,

        @Part Filter filter) {
    /** A high-pass behind the first, out of the way until its cutoff is raised. */
    public static final SecondFilter USUAL = new SecondFilter(
            Place.BEHIND, new Filter(Filter.Kind.HIGH, Filter.Slope.DB_12, 60, 0.71, 0, 0, 0, 0, null));

    /** Where it stands. */
    public enum Place {
        BEHIND,
        BESIDE
    }

    public SecondFilter {
        ParameterAccess.check(SecondFilter.class, place, filter);
        if (filter == null) {
            throw new IllegalArgumentException("a second filter needs its values");
        }
    }
}

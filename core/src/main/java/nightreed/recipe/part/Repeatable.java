package nightreed.recipe.part;

/** An element of a list that people make longer and shorter. */
public interface Repeatable {
    /** What stands to reason behind it, such as the next mode of a series. */
    default Record next() {
        return (Record) this;
    }

    /** Its copy, a little off where two that are alike could not stand beside each other. */
    default Record twin() {
        return (Record) this;
    }
}

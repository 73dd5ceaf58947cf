package nightreed.recipe.part;

/** A record the range of whose values depends on its other values. */
interface Refined {
    /** @param component name of the record's component that {@code general} describes */
    Parameter refined(String component, Parameter general);
}

package nightreed.recipe.part;

/** A part that people gave a name, which then stands before the names of its values. */
interface Named {
    String name();
}

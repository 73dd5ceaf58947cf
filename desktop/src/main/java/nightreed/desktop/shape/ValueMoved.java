package nightreed.desktop.shape;

import nightreed.recipe.part.Parameter;

/** What a drawing tells when a hand moves one of its handles. */
@FunctionalInterface
public interface ValueMoved {
    /** @param settled whether the hand has let go */
    void to(Parameter parameter, double value, boolean settled);
}

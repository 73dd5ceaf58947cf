package nightreed.match;

import java.util.List;
import nightreed.recipe.ResonatorRecipe;
import nightreed.sound.Clip;

/**
 * A finished imitation.
 *
 * @param recipe     how to make it
 * @param imitation  rendered as long, as loud and from the same onset as the recording
 * @param comparison recording against imitation, the imitation measured afresh
 * @param moves      what would bring it closer
 * @param seconds    time it took [s]
 */
public record Match(ResonatorRecipe recipe, Clip imitation, Comparison comparison, List<Move> moves, double seconds) {}

package nightreed.match;

import java.util.List;
import nightreed.match.advice.Adviser.Ranked;
import nightreed.match.advice.Move;
import nightreed.match.compare.Comparison;
import nightreed.match.fit.Fitted;
import nightreed.match.frontier.Frontier;
import nightreed.recipe.Recipe;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.Clip;

/**
 * A finished imitation.
 *
 * @param best     the patch that was asked for, of whatever method
 * @param ranking  all methods that were tried, each by its own such patch, the nearest first; at least one
 * @param frontier patches of all methods from the simplest to the nearest
 * @param moves    what would bring the best closer
 * @param seconds  time it all took [s]
 */
public record Match(Fitted best, List<Ranked> ranking, Frontier frontier, List<Move> moves, double seconds) {
    public Match {
        ranking = List.copyOf(ranking);
        moves = List.copyOf(moves);
    }

    /** Values that a hand has to set to get the best. */
    public int size() {
        return PatchSize.of(best.recipe());
    }

    public Recipe recipe() {
        return best.recipe();
    }

    public Clip imitation() {
        return best.imitation();
    }

    public Comparison comparison() {
        return best.comparison();
    }
}

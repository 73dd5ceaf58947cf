package nightreed.match;

import java.util.List;
import nightreed.match.advice.Adviser.Ranked;
import nightreed.match.advice.Move;
import nightreed.match.compare.Comparison;
import nightreed.match.fit.Fitted;
import nightreed.recipe.Recipe;
import nightreed.sound.Clip;

/**
 * A finished imitation.
 *
 * @param ranking all methods that were tried, the nearest first; at least one
 * @param moves   what would bring the nearest closer
 * @param seconds time it all took [s]
 */
public record Match(List<Ranked> ranking, List<Move> moves, double seconds) {
    public Match {
        ranking = List.copyOf(ranking);
        moves = List.copyOf(moves);
    }

    public Fitted best() {
        return ranking.get(0).fitted();
    }

    public Recipe recipe() {
        return best().recipe();
    }

    public Clip imitation() {
        return best().imitation();
    }

    public Comparison comparison() {
        return best().comparison();
    }
}

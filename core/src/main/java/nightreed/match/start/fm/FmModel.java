package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.FmPair;
import nightreed.recipe.part.Exciter;

/**
 * What the search of FM starting values works on: pairs, and the noise of the strike beside them.
 *
 * @param noise null for none
 */
record FmModel(List<FmPair> pairs, Exciter noise) {
    FmModel {
        pairs = List.copyOf(pairs);
    }

    FmModel with(int pair, FmPair other) {
        List<FmPair> all = new ArrayList<>(pairs);
        all.set(pair, other);
        return new FmModel(all, noise);
    }

    FmModel without(int pair) {
        List<FmPair> all = new ArrayList<>(pairs);
        all.remove(pair);
        return new FmModel(all, noise);
    }

    FmModel and(FmPair another) {
        List<FmPair> all = new ArrayList<>(pairs);
        all.add(another);
        return new FmModel(all, noise);
    }
}

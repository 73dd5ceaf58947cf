package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import nightreed.match.fit.Polish.Point;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;

/**
 * The phases that a pair starts with. They decide which folded sidebands add and which cancel, in hollows that lie so close
 * together that no search walks from one to the next, so a net of them is listened to.
 */
final class FmPhases {
    private static final int STEPS = 6;
    private static final String CARRIER = "pair.1.carrierPhase";
    private static final String MODULATOR = "pair.1.modulatorPhase";

    /** Least index at which sidebands fold so far that phases matter. */
    private static final double LEAST_INDEX = 0.2;

    private FmPhases() {}

    /**
     * The best of the phases of the first pair; the point itself if none is better.
     *
     * @param locked values that stay, by id
     */
    static Point turned(Polish polish, Point p, FmRecipe r, Set<String> locked) {
        FmPair first = r.pairs().get(0);
        if (first.index() < LEAST_INDEX) {
            return p;
        }
        List<FmRecipe> all = new ArrayList<>();
        int carriers = locked.contains(CARRIER) ? 1 : STEPS;
        int modulators = locked.contains(MODULATOR) ? 1 : STEPS;
        for (int c = 0; c < carriers; c++) {
            for (int m = 0; m < modulators; m++) {
                double carrier = first.carrierPhaseRad() + 2 * Math.PI * c / STEPS;
                double modulator = first.modulatorPhaseRad() + 2 * Math.PI * m / STEPS;
                FmRecipe turned = carriers == 1 ? r : r.with(CARRIER, Math.IEEEremainder(carrier, 2 * Math.PI));
                all.add(modulators == 1 ? turned : turned.with(MODULATOR, Math.IEEEremainder(modulator, 2 * Math.PI)));
            }
        }
        List<Point> met = new ArrayList<>(polish.at(all));
        met.add(0, p);
        return Polish.best(met);
    }
}

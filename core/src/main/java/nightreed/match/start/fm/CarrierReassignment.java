package nightreed.match.start.fm;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nightreed.recipe.FmPair;

/**
 * Models in which the carrier of one pair changes places with one of its own sidebands: all lines stay where they are and, with another
 * index, nearly as loud, so that a local search ends at each of these places.
 */
final class CarrierReassignment {
    private static final int STEPS = 4;

    /** What an index changes by with each step. */
    private static final double INDEX_PER_STEP = 0.7;

    private static final double LEAST_INDEX = 0.4;
    private static final double MOST_INDEX = 50;
    private static final double LEAST_RATIO = 0.05;
    private static final double MOST_RATIO = 60;

    private CarrierReassignment() {}

    /** @param pair which one is moved */
    static Stream<FmModel> of(FmModel sound, int pair) {
        FmPair p = sound.pairs().get(pair);
        List<FmPair> out = new ArrayList<>();
        for (int step = -STEPS; step <= STEPS && p.index() > LEAST_INDEX; step++) {
            double more = INDEX_PER_STEP * Math.max(1, Math.abs(step));
            for (double index : new double[] {p.index(), p.index() + more, p.index() - more}) {
                addTurned(out, p, step, index);
            }
        }
        return out.stream().map(o -> sound.with(pair, o));
    }

    private static void addTurned(List<FmPair> out, FmPair p, int step, double index) {
        double signed = p.carrierRatio() + step * p.modulatorRatio();
        double carrier = Math.abs(signed);
        if (index < LEAST_INDEX || index > MOST_INDEX || carrier < LEAST_RATIO || carrier > MOST_RATIO) {
            return;
        }
        double carrierRad = p.carrierPhaseRad() + step * p.modulatorPhaseRad();
        double modulatorRad = p.modulatorPhaseRad();
        if (signed < 0) { // sin(φ - 2π c t) = sin(2π c t + π - φ), with sidebands the other way round
            carrierRad = Math.PI - carrierRad;
            modulatorRad = Math.PI - modulatorRad;
        }
        int turns = step == 0 ? 4 : 2;
        for (int c = 0; c < 4; c++) {
            for (int m = 0; m < turns; m++) {
                out.add(p.with(carrier, p.modulatorRatio(), index)
                        .withPhases(
                                Math.IEEEremainder(carrierRad + c * Math.PI / 2, 2 * Math.PI),
                                Math.IEEEremainder(modulatorRad + 2 * Math.PI * m / turns, 2 * Math.PI)));
            }
        }
    }
}

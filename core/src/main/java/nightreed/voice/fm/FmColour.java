package nightreed.voice.fm;

import java.util.List;
import nightreed.dsp.Roughness;
import nightreed.recipe.FmPair;

/**
 * How harmonic or dissonant a pair is: what of its power lies off the harmonics of the key, and how rough it sounds. For pulses
 * the first harmonic stands for all.
 *
 * @param offHarmonics share of the power that lies more than {@value #NEAR_CENTS} cents off every harmonic, 0 to 1
 * @param asper        roughness of all lines together [asper]
 */
public record FmColour(double offHarmonics, double asper) {
    /** Within it a line counts as part of the harmonic sound; beats are slow then [cents]. */
    static final double NEAR_CENTS = 15;

    private static final double TOP_HZ = 20_000;

    /** Lines under the strongest that no one hears beside it [dB]. */
    private static final double LEAST_DB = -60;

    /** @param index at which it is looked at [rad] @param hz of the key */
    public static FmColour of(FmPair p, double index, double hz) {
        List<Sidebands.Line> lines = lines(p, p.modulatorRatio(), index, hz);
        double most =
                lines.stream().mapToDouble(Sidebands.Line::amplitude).max().orElse(0);
        List<Sidebands.Line> heard = lines.stream()
                .filter(l -> l.amplitude() > most * Math.pow(10, LEAST_DB / 20))
                .toList();
        double asper = Roughness.asper(
                heard.stream().mapToDouble(Sidebands.Line::hz).toArray(),
                heard.stream().mapToDouble(Sidebands.Line::amplitude).toArray());
        return new FmColour(share(lines, hz), asper);
    }

    /**
     * The share off the harmonics over modulator ratio and index.
     *
     * @return [index][ratio], 0 to 1
     */
    public static double[][] map(FmPair p, double[] modulatorRatios, double[] indexes, double hz) {
        double[][] out = new double[indexes.length][modulatorRatios.length];
        for (int i = 0; i < indexes.length; i++) {
            for (int k = 0; k < modulatorRatios.length; k++) {
                out[i][k] = share(lines(p, modulatorRatios[k], indexes[i], hz), hz);
            }
        }
        return out;
    }

    private static List<Sidebands.Line> lines(FmPair p, double modulatorRatio, double index, double hz) {
        return Sidebands.lines(
                hz * p.carrierRatio(), hz * modulatorRatio, index, p.carrierPhaseRad(), p.modulatorPhaseRad(), TOP_HZ);
    }

    private static double share(List<Sidebands.Line> lines, double hz) {
        double all = 0;
        double off = 0;
        for (Sidebands.Line l : lines) {
            double power = l.amplitude() * l.amplitude();
            double nearest = Math.max(1, Math.rint(l.hz() / hz)) * hz;
            all += power;
            off += Math.abs(1200 * Math.log(l.hz() / nearest) / Math.log(2)) > NEAR_CENTS ? power : 0;
        }
        return all > 0 ? off / all : 0;
    }
}

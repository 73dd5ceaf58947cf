package nightreed.match.start.ring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.match.start.NonuniformStft;
import nightreed.match.start.SidebandGrid;
import nightreed.match.start.StartContext;
import nightreed.music.Pitch;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.VelocityMap;

/** Two sines whose difference and sum are two of the strongest partials; a saw at unison for a note of one harmonic series. */
public final class RingStart {
    private static final double NEAR = 40;

    /** Lattices that are tried. */
    private static final int LATTICES = 4;

    /** By how much the interval of a wave and a sine is wider when struck softest. */
    private static final double SOFT_CENTS = 60;

    private RingStart() {}

    public static RingRecipe of(StartContext g) {
        List<Pair> pairs = g.isHeld() ? List.of() : pairs(g);
        return pairs.isEmpty() ? harmonic(g, Wave.SAW) : sines(g, pairs.get(0));
    }

    /**
     * The best pairs of lines, and waves that hold a harmonic series by themselves.
     *
     * @param most waves and pairs, at least 4
     */
    public static List<RingRecipe> several(StartContext g, int most) {
        List<RingRecipe> out = new ArrayList<>(List.of(of(g)));
        if (g.cycle() != null) {
            out.add(harmonic(g, Wave.MEASURED));
        }
        out.add(harmonic(g, Wave.PULSE));
        out.add(harmonic(g, Wave.TRIANGLE));
        int waves = out.size();
        pairs(g).stream().limit(most - waves).forEach(p -> out.add(sines(g, p)));
        for (SidebandGrid l : SidebandGrid.of(g.lines(), g.f0(), NonuniformStft.of(g.side()), LATTICES)) {
            for (int k = -2; k <= 2; k++) {
                double b = Math.abs(l.offset() + k * l.modulator());
                if (b > 15 && b < 12 * g.f0()) {
                    out.add(multiplied(g, Wave.SAW, l.modulator(), b));
                    out.add(multiplied(g, Wave.PULSE, l.modulator(), b));
                }
            }
        }
        return out;
    }

    /**
     * Two sines whose product is two of the lines.
     *
     * @param low   the lower sine, half the difference of the lines [Hz]
     * @param high  the upper one, half their sum [Hz]
     * @param line  amplitude of the weaker line, which is what a product, whose two lines are equally strong, can give
     * @param worth amplitude that it explains
     */
    private record Pair(double low, double high, double line, double worth) {}

    /** By falling worth. */
    private static List<Pair> pairs(StartContext g) {
        List<StartContext.Line> lines = g.lines();
        List<Pair> out = new ArrayList<>();
        for (int i = 0; i < Math.min(6, lines.size()); i++) {
            for (int k = 0; k < i; k++) {
                double a = Math.abs(lines.get(i).hz() - lines.get(k).hz()) / 2;
                double b = (lines.get(i).hz() + lines.get(k).hz()) / 2;
                double weaker = Math.min(lines.get(i).amplitude(), lines.get(k).amplitude());
                if (a > 15) {
                    out.add(new Pair(a, b, weaker, 2 * weaker + amplitudeAt(lines, a)));
                }
            }
        }
        out.sort(Comparator.comparingDouble(p -> -p.worth));
        return out;
    }

    private static RingRecipe sines(StartContext g, Pair p) {
        String why = String.format(
                Locale.ROOT, "difference and sum are the partials at %.1f and %.1f Hz", p.high - p.low, p.high + p.low);
        g.say("a.ratio", true, why);
        g.say("b.ratio", true, why);
        g.say("dry", true, "partial at the first oscillator's own frequency");
        return recipe(g, Wave.SINE, p.low, p.high, amplitudeAt(g.lines(), p.low), p.line, null, 0);
    }

    /** A wave with harmonics, dry, and its product with a sine at unison, which fills the gaps. */
    private static RingRecipe harmonic(StartContext g, Wave wave) {
        double line = g.lines().get(0).amplitude();
        if (wave == Wave.MEASURED) {
            return recipe(g, wave, g.f0(), g.f0(), line, line, Filter.lowPass(18_000, 0.71), -30);
        }
        return recipe(g, wave, g.f0(), g.f0(), line, line, Filter.lowPass(top(g), 0.71), 0);
    }

    /** A wave whose harmonics, moved up and down by a sine, lie on the partials: the lines of such a product are a lattice. */
    private static RingRecipe multiplied(StartContext g, Wave wave, double low, double high) {
        double line = g.lines().get(0).amplitude();
        double dry = 0;
        for (int k = 1; k <= 4; k++) {
            dry = Math.max(dry, amplitudeAt(g.lines(), k * low));
        }
        return recipe(g, wave, low, high, dry, line, Filter.lowPass(top(g), 0.71), 0);
    }

    private static RingRecipe recipe(
            StartContext g, Wave wave, double low, double high, double dry, double line, Filter filter, double ringDb) {
        double dryDb = dry <= 0 ? -80 : StartContext.limited(20 * Math.log10(dry / (2 * line)), -60, 12);
        double beat = g.lines().stream()
                .filter(l -> l.beatHz() != null)
                .mapToDouble(StartContext.Line::beatHz)
                .findFirst()
                .orElse(0);
        double cents = beat > 0 ? StartContext.limited(Pitch.cents(high, high + beat / 2), 0, 100) : 0;
        if (beat > 0) {
            g.say("drift", true, String.format(Locale.ROOT, "measured beat of %.2f Hz", beat));
        }
        double softCents = wave == Wave.SINE ? 0 : SOFT_CENTS;
        double soft = Math.pow(2, softCents * (1 - VelocityMap.USUAL.reference()) / 1200);
        return new RingRecipe(
                g.key(),
                g.cents(),
                -12,
                Oscillator.of(wave, StartContext.limited(low / g.f0(), 0.05, 40)),
                Oscillator.of(Wave.SINE, StartContext.limited(high / soft / g.f0(), 0.05, 40)),
                wave == Wave.MEASURED ? g.cycle() : null,
                filter,
                null,
                ringDb,
                dryDb,
                StartContext.limited(beat / 4, 0.05, 10),
                cents,
                softCents,
                g.amplitude("amp"),
                g.strike(),
                VelocityMap.USUAL,
                g.movement(false));
    }

    /** Where a saw has to be cut off to have no more highs than the recording [Hz]. */
    private static double top(StartContext g) {
        g.say("a.filter", g.measurement().brightness() != null, "measured brightness");
        return g.measurement().brightness() == null
                ? 6 * g.f0()
                : StartContext.limited(g.measurement().brightness().endHz(), 100, 18_000);
    }

    private static double amplitudeAt(List<StartContext.Line> lines, double hz) {
        return lines.stream()
                .filter(l -> Math.abs(Pitch.cents(hz, l.hz())) < NEAR)
                .mapToDouble(StartContext.Line::amplitude)
                .max()
                .orElse(0);
    }
}

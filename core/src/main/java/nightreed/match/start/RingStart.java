package nightreed.match.start;

import java.util.List;
import java.util.Locale;
import nightreed.music.Pitch;
import nightreed.recipe.RingRecipe;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.VelocityMap;

/** Two sines whose difference and sum are two of the strongest partials; a saw at unison for a note of one harmonic series. */
final class RingStart {
    private static final double NEAR = 40;

    private RingStart() {}

    static RingRecipe of(Ground g) {
        List<Ground.Line> lines = g.lines();
        double low = g.f0();
        double high = g.f0();
        double best = -1;
        double line = lines.get(0).amplitude(); // of sum and difference alike
        for (int i = 0; i < Math.min(6, lines.size()) && !g.isHeld(); i++) {
            for (int k = 0; k < i; k++) {
                double a = Math.abs(lines.get(i).hz() - lines.get(k).hz()) / 2;
                double b = (lines.get(i).hz() + lines.get(k).hz()) / 2;
                double dry = amplitudeAt(lines, a);
                // the weaker of the two is what a product, whose two lines are equally strong, can give
                double worth =
                        2 * Math.min(lines.get(i).amplitude(), lines.get(k).amplitude()) + dry;
                if (worth > best && a > 15) {
                    best = worth;
                    low = a;
                    high = b;
                    line = Math.min(lines.get(i).amplitude(), lines.get(k).amplitude());
                }
            }
        }
        boolean sines = best > 0;
        double dry = sines ? amplitudeAt(lines, low) : lines.get(0).amplitude();
        double dryDb = dry <= 0 ? -80 : Ground.limited(20 * Math.log10(dry / (2 * line)), -60, 12);
        if (sines) {
            String why = String.format(
                    Locale.ROOT, "difference and sum are the partials at %.1f and %.1f Hz", high - low, high + low);
            g.say("a.ratio", true, why);
            g.say("b.ratio", true, why);
            g.say("dry", true, "partial at the first oscillator's own frequency");
        }
        double beat = lines.stream()
                .filter(l -> l.beatHz() != null)
                .mapToDouble(Ground.Line::beatHz)
                .findFirst()
                .orElse(0);
        double cents = beat > 0 ? Ground.limited(Pitch.cents(high, high + beat / 2), 0, 100) : 0;
        if (beat > 0) {
            g.say("drift", true, String.format(Locale.ROOT, "measured beat of %.2f Hz", beat));
        }
        Wave wave = sines ? Wave.SINE : Wave.SAW;
        return new RingRecipe(
                g.key(),
                g.cents(),
                -12,
                Oscillator.of(wave, Ground.limited(low / g.f0(), 0.05, 40)),
                Oscillator.of(Wave.SINE, Ground.limited(high / g.f0(), 0.05, 40)),
                null,
                sines ? null : Filter.lowPass(top(g), 0.71),
                null,
                0,
                dryDb,
                Ground.limited(beat / 4, 0.05, 10),
                cents,
                sines ? 0 : 60,
                g.amplitude("amp"),
                g.strike(),
                VelocityMap.USUAL,
                g.movement(false));
    }

    /** Where a saw has to be cut off to have no more highs than the recording [Hz]. */
    private static double top(Ground g) {
        g.say("a.filter", g.measurement().brightness() != null, "measured brightness");
        return g.measurement().brightness() == null
                ? 6 * g.f0()
                : Ground.limited(g.measurement().brightness().endHz(), 100, 18_000);
    }

    private static double amplitudeAt(List<Ground.Line> lines, double hz) {
        return lines.stream()
                .filter(l -> Math.abs(Pitch.cents(hz, l.hz())) < NEAR)
                .mapToDouble(Ground.Line::amplitude)
                .max()
                .orElse(0);
    }
}

package nightreed.measure;

import java.util.List;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.held.HeldNote;
import nightreed.measure.law.StiffString;
import nightreed.measure.partial.Partial;
import nightreed.measure.traits.Spectrum;
import nightreed.measure.traits.Traits;

/** From partials to the lines and decays that their traits are read from. */
final class TraitExtractor {
    /** Distance from its place within which a partial is that of a string [ratio]. */
    private static final double NEAR = 0.01;

    private TraitExtractor() {}

    /** @param string law that the partials follow, null if none */
    static Traits of(List<Partial> partials, StiffString string) {
        List<Partial> dying = partials.stream()
                .filter(p -> p.reliable() && p.t60Seconds() != null)
                .toList();
        double[] hz = dying.stream().mapToDouble(Partial::frequencyHz).toArray();
        double[] t60 = dying.stream().mapToDouble(Partial::t60Seconds).toArray();
        double[] share = dying.stream()
                .mapToDouble(p -> p.t60SeSeconds() == null ? 0.1 : p.t60SeSeconds() / p.t60Seconds())
                .toArray();
        return string == null ? Traits.struck(hz, t60, share) : Traits.string(lines(partials, string), hz, t60, share);
    }

    static Traits of(HeldNote held) {
        List<HeldHarmonic> all = held.harmonics();
        return Traits.held(Spectrum.of(
                held.f0Hz(),
                all.stream().mapToInt(HeldHarmonic::number).toArray(),
                all.stream().mapToDouble(h -> 20 * Math.log10(h.amplitude())).toArray(),
                all.stream().mapToDouble(HeldHarmonic::snrDb).toArray()));
    }

    /** The strongest partial at each place of a string. */
    private static Spectrum lines(List<Partial> partials, StiffString string) {
        Partial[] at = new Partial[string.last() + 1];
        for (Partial p : partials) {
            int n = string.number(p.frequencyHz());
            boolean near = Math.abs(p.frequencyHz() / string.hz(n) - 1) < Math.min(NEAR, 0.3 / n);
            if (p.reliable() && n < at.length && near && (at[n] == null || p.levelDb() > at[n].levelDb())) {
                at[n] = p;
            }
        }
        List<Integer> numbers = java.util.stream.IntStream.range(1, at.length)
                .filter(n -> at[n] != null)
                .boxed()
                .toList();
        return Spectrum.of(
                string.f0Hz(),
                numbers.stream().mapToInt(n -> n).toArray(),
                numbers.stream().mapToDouble(n -> at[n].levelDb()).toArray(),
                numbers.stream().mapToDouble(n -> at[n].snrDb()).toArray());
    }
}

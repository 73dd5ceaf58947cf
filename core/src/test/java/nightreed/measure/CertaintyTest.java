package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.IntStream;
import nightreed.measure.partial.Partial;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Whether the errors that are stated are the errors that are made: the truth has to lie within the stated 95 % interval in
 * 90 to 99 % of all cases. {@code -Dcertainty.notes=330} for more than two thousand partials.
 */
class CertaintyTest {
    /** Cases and how many of them held the truth, for frequency and T60. */
    private record Count(int cases, int frequencies, int decays) {
        Count plus(Count o) {
            return new Count(cases + o.cases, frequencies + o.frequencies, decays + o.decays);
        }
    }

    @Test
    @Tag("long")
    void theTruthLiesWithinTheStatedInterval() {
        int notes = Integer.getInteger("certainty.notes", 45);
        Count all = IntStream.range(0, notes)
                .parallel()
                .mapToObj(CertaintyTest::count)
                .reduce(new Count(0, 0, 0), Count::plus);
        assertThat(all.cases).isGreaterThan(5 * notes);
        double frequencies = 100.0 * all.frequencies / all.cases;
        double decays = 100.0 * all.decays / all.cases;
        System.out.printf("%d partials: frequency %.1f %%, T60 %.1f %%%n", all.cases, frequencies, decays);
        assertThat(frequencies).isBetween(90.0, 99.0);
        assertThat(decays).isBetween(90.0, 99.0);
    }

    /** Bars, bells of pairs, and strings in turn. */
    private static Count count(int seed) {
        Random r = new Random(1000 + seed);
        MadeUpNote note = new MadeUpNote(seed, 0.15, 2.5);
        double f0 = 120 + 500 * r.nextDouble();
        double t60 = 0.6 + 2 * r.nextDouble();
        switch (seed % 3) {
            case 0 -> {
                for (double ratio : new double[] {1, 2.76, 5.4, 8.93, 13.3, 18.6}) {
                    note.mode(ratio * f0, 0.2 * Math.pow(ratio, -0.3 - r.nextDouble()), t60 / Math.sqrt(ratio));
                }
            }
            case 1 -> {
                for (double ratio : new double[] {0.5, 1, 1.2, 1.5, 2, 2.67}) {
                    double apart = 0.6 + 2 * r.nextDouble();
                    note.mode(ratio * f0, 0.1 * (0.4 + r.nextDouble()), 2 * t60);
                    note.mode(ratio * f0 + apart, 0.1 * (0.3 + r.nextDouble()), 2 * t60 * (0.8 + 0.4 * r.nextDouble()));
                }
            }
            default ->
                note.string(f0, 1e-4 * r.nextDouble(), 0.1 + 0.2 * r.nextDouble(), 1 + 2 * r.nextDouble(), 2e-6, 16);
        }
        note.noise(20 + 40 * r.nextDouble());
        int cases = 0;
        int frequencies = 0;
        int decays = 0;
        try {
            for (Partial p : Measurer.measure(note.clip()).reliablePartials()) {
                for (MadeUpNote.Mode m : note.modes()) {
                    boolean nearest = Math.abs(m.hz() - p.frequencyHz()) < Math.max(0.25, 5 * p.frequencySeHz())
                            && note.modes().stream()
                                    .noneMatch(o -> o != m
                                            && Math.abs(o.hz() - p.frequencyHz()) < Math.abs(m.hz() - p.frequencyHz()));
                    if (nearest && p.t60Seconds() != null) {
                        cases++;
                        frequencies += Math.abs(m.hz() - p.frequencyHz()) < 1.96 * p.frequencySeHz() ? 1 : 0;
                        decays += Math.abs(m.t60() - p.t60Seconds()) < 1.96 * p.t60SeSeconds() ? 1 : 0;
                    }
                }
            }
        } catch (nightreed.sound.UnusableSound e) {
            throw new AssertionError(e);
        }
        return new Count(cases, frequencies, decays);
    }
}

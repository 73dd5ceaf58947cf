package nightreed.match.start.resonator;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.match.compare.PartialDifference;
import nightreed.match.compare.PartialMatching;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.StartContext;
import nightreed.measure.Measurement;
import nightreed.measure.StrikeNoise;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.recipe.Mode;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.VelocityMap;
import nightreed.sound.UnusableSound;

/** Modes from the partials, as many as the ear calls for. */
public final class ResonatorStart {
    /** Modes that together would change the distance by less than this are left out [JND]. */
    private static final double NEGLIGIBLE_JND = 0.15;

    /** Span of the recording that levels and phases are solved on [s]. */
    private static final double SOLVED_SECONDS = 0.8;

    private ResonatorStart() {}

    /**
     * The partials, each as it was measured.
     *
     * @throws UnusableSound if the measurement holds no partial that decays
     */
    public static ResonatorRecipe of(AnalysedSound recording) throws UnusableSound {
        Measurement m = recording.measurement();
        if (m.isChord()) {
            throw new UnusableSound("These are several notes at once, and an imitation is of one: choose one of them on"
                    + " the Measure stage, or record them one by one.");
        }
        List<Partial> chosen = choose(recording);
        if (chosen.isEmpty() || m.f0Hz() == null) {
            throw new UnusableSound("No decaying partial stands clear of the noise, so there is nothing for resonators"
                    + " to ring at: use a longer or cleaner recording.");
        }
        return recipe(m, chosen);
    }

    /** As measured; and all that was found, doubtful or not, with levels and phases solved for together. */
    public static List<ResonatorRecipe> several(AnalysedSound recording) throws UnusableSound {
        ResonatorRecipe measured = of(recording);
        Measurement m = recording.measurement();
        List<Partial> all = new ArrayList<>(m.partials());
        all.removeIf(p -> p.levelDb() < -60 || p.t60Seconds() != null && p.t60Seconds() < 0.02);
        all.sort(Comparator.comparingDouble(p -> -p.amplitude()));
        List<Partial> most = all.subList(0, Math.min(ResonatorRecipe.MOST_MODES, all.size()));
        if (most.isEmpty()) {
            return List.of(measured);
        }
        List<ResonatorRecipe> out = new ArrayList<>(List.of(measured));
        for (ResonatorRecipe r : List.of(measured, recipe(m, most))) {
            ResonatorRecipe together = solved(recording, r);
            out.add(together);
            // a body that answers slowly is struck as sharply as any
            double rise = 2000 * recording.riseSeconds();
            if (rise > 1) {
                out.add(together.withRiseMs(StartContext.limited(rise, 0, 200))
                        .withExciter(together.exciter().withContactMs(0.5)));
            }
        }
        return out;
    }

    private static ResonatorRecipe solved(AnalysedSound recording, ResonatorRecipe r) {
        Measurement m = recording.measurement();
        double[] x = recording.clip().mixed();
        int onset = Math.max(0, Math.min(x.length - 1, (int) Math.round(m.onsetSeconds() * m.sampleRateHz())));
        int end = (int) Math.min(x.length, onset + SOLVED_SECONDS * m.sampleRateHz());
        double[] note = java.util.Arrays.copyOfRange(x, onset, end);
        List<Mode> modes =
                ModeAmplitudes.solved(r.modes(), r.f0Hz(), note, m.sampleRateHz(), Math.pow(10, r.levelDb() / 20));
        return modes.isEmpty() ? r : r.withModes(modes);
    }

    private static ResonatorRecipe recipe(Measurement m, List<Partial> chosen) {
        int key = Math.max(0, Math.min(127, Pitch.nearestKey(m.f0Hz())));
        double f0 = m.f0Hz();
        double top = chosen.stream().mapToDouble(Partial::amplitude).max().orElse(1);
        List<Mode> modes = new ArrayList<>();
        for (Partial p : chosen) {
            modes.add(new Mode(
                    p.frequencyHz() / f0,
                    StartContext.limited(20 * Math.log10(p.amplitude() / top), -119, 0),
                    StartContext.limited(p.t60Seconds() == null ? 100 : p.t60Seconds(), 0.005, 100),
                    p.phaseRad()));
        }
        modes.sort(Comparator.comparingDouble(Mode::ratio));
        StrikeNoise n = m.noise();
        double contact = m.attackSeconds() == null ? 1 : StartContext.limited(1000 * m.attackSeconds(), 0.05, 12);
        Exciter exciter = n == null
                ? new Exciter(contact, -100, 20, 100, 8000)
                : new Exciter(
                        contact,
                        StartContext.limited(n.levelDb() + 3, -99, 24),
                        StartContext.limited(1000 * n.t60Seconds(), 2, 1500),
                        StartContext.limited(n.lowHz(), 20, 9000),
                        StartContext.limited(Math.max(n.highHz(), 1.5 * n.lowHz()), 60, 20_000));
        // how a body follows key and strength cannot be told from one note: usual values, to be fitted with more notes
        return new ResonatorRecipe(
                key,
                StartContext.limited(Pitch.cents(Pitch.hz(key), f0), -100, 100),
                StartContext.limited(20 * Math.log10(top), -80, 6),
                exciter,
                modes,
                new KeyTracking(0.7, 0.5),
                new VelocityMap(0.7, 24, 1.5),
                100);
    }

    /** The fewest partials without which the ear would miss little, the most audible first. */
    private static List<Partial> choose(AnalysedSound recording) {
        List<PartialDifference> missing =
                new ArrayList<>(new PartialMatching(recording.listener().hearing())
                        .missing(recording.measurement().reliablePartials()));
        missing.sort(Comparator.comparingDouble(d -> -loss(d)));
        double left = missing.stream().mapToDouble(ResonatorStart::loss).sum();
        double weights = missing.stream().mapToDouble(PartialDifference::weight).sum();
        List<Partial> chosen = new ArrayList<>();
        for (PartialDifference d : missing) {
            boolean enough = left < NEGLIGIBLE_JND * NEGLIGIBLE_JND * weights;
            if (chosen.size() >= ResonatorRecipe.MOST_MODES || enough && !chosen.isEmpty()) {
                break;
            }
            chosen.add(d.recording());
            left -= loss(d);
        }
        return chosen;
    }

    private static double loss(PartialDifference d) {
        return d.weight() * d.levelJnd() * d.levelJnd();
    }
}

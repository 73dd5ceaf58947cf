package nightreed.match.fit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.match.compare.Comparison;
import nightreed.match.method.Methods;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.recipe.Recipe;

/** Which method for which sound: before anything is fitted, from the measurement; afterwards, from what came out. */
public final class Adviser {
    /** A method's partials lie on harmonics within this [cents]. */
    private static final double HARMONIC_CENTS = 25;

    private Adviser() {}

    /** @param why in plain words, with numbers */
    public record Advice(String method, String why) {}

    /**
     * A result among others.
     *
     * @param fitted what came out
     * @param why    how good it is and what it takes, in plain words
     */
    public record Ranked(Fitted fitted, String why) {}

    /** All methods, the most promising first. */
    public static List<Advice> before(Measurement m) {
        return m.held() != null ? held(m) : struck(m);
    }

    private static List<Advice> held(Measurement m) {
        int harmonics = m.held().harmonics().size();
        String series = String.format(Locale.ROOT, "%d harmonics of one pitch", harmonics);
        String noise =
                String.format(Locale.ROOT, "noise %.0f dB under them", -m.held().noiseDb());
        boolean moves = m.held().vibrato() != null || m.held().filter() != null;
        return List.of(
                new Advice("formant", "The note is held: bands follow each part of its spectrum, " + noise + "."),
                new Advice(
                        "subtractive",
                        "The note is held, with " + series + ": one wave through a filter makes them"
                                + (moves ? ", and its LFOs make the movement that was measured." : ".")),
                new Advice("fm", series + " can be sidebands; how strong each is follows Bessel's law, not the note."),
                new Advice(
                        "ring", "A rich wave beside its product has a harmonic series, but few ways to shape " + "it."),
                new Advice("string", "A bowed loop is harmonic and held; its spectrum is the bow's own."),
                new Advice(
                        "resonators", "Resonators die away by themselves; only slow ones can stand for a held note."));
    }

    private static List<Advice> struck(Measurement m) {
        List<Partial> heard = m.reliablePartials();
        long harmonic = m.f0Hz() == null
                ? 0
                : heard.stream().filter(p -> onHarmonic(p, m.f0Hz())).count();
        boolean string = m.inharmonicityB() != null || heard.size() > 3 && harmonic > 0.7 * heard.size();
        String count = String.format(Locale.ROOT, "%d partials, each with a decay of its own", heard.size());
        String place = String.format(Locale.ROOT, "%d of %d partials lie on harmonics", harmonic, heard.size());
        List<Advice> out = new ArrayList<>();
        if (m.f0Hz() == null) {
            out.add(new Advice("formant", "No pitch was found: noise through bands needs none."));
        }
        out.add(new Advice("resonators", "It dies by itself, in " + count + ": a resonator for each."));
        Advice bands = new Advice(
                "formant",
                "Bands can follow each part of the spectrum as it dies; partials in one band share a course.");
        if (m.f0Hz() != null) {
            out.add(bands);
        }
        Advice loop = new Advice(
                "string",
                string
                        ? place + ": a tuned loop has them all, with one law for their decays."
                        : place + ": a loop would put partials where the recording has none.");
        Advice fm = new Advice(
                "fm",
                m.fm() != null
                        ? "All its partials follow one law of frequency modulation."
                        : "Sidebands can fall on the strongest partials; how strong each is follows Bessel's law.");
        Advice subtractive = new Advice(
                "subtractive",
                place
                        + (string
                                ? ": one wave has them, and its filter closes as it dies."
                                : ": one wave has no others."));
        Advice ring = new Advice("ring", "Sum and difference of two waves meet two or three of the partials.");
        if (m.fm() != null) {
            out.add(0, fm);
        }
        out.addAll(string ? List.of(subtractive, loop) : List.of(subtractive));
        if (m.fm() == null) {
            out.add(fm);
        }
        out.add(ring);
        if (!string) {
            out.add(loop);
        }
        return List.copyOf(out);
    }

    private static boolean onHarmonic(Partial p, double f0) {
        double n = Math.rint(p.frequencyHz() / f0);
        return n >= 1 && Math.abs(1200 * Math.log(p.frequencyHz() / (n * f0)) / Math.log(2)) < HARMONIC_CENTS;
    }

    /** Results by rising distance. */
    public static List<Ranked> after(List<Fitted> results) {
        return results.stream()
                .sorted(Comparator.comparingDouble((Fitted f) -> f.comparison().totalJnd()))
                .map(f -> new Ranked(f, why(f)))
                .toList();
    }

    private static String why(Fitted f) {
        Comparison c = f.comparison();
        String left = c.withinHearing()
                ? "no aspect would be noticed"
                : String.format(
                        Locale.ROOT, "%s is heard first (%.1f JND)", c.worst().title(), c.worstJnd());
        return use(c) + ": " + left + "; " + cost(f.recipe());
    }

    /** For which use a match is good enough. */
    public static String use(Comparison c) {
        if (c.withinHearing()) {
            return "good enough alone";
        }
        if (c.totalJnd() <= 1) {
            return "good enough in an exposed part";
        }
        if (c.totalJnd() <= 2) {
            return "good enough among other instruments";
        }
        return c.totalJnd() <= 4 ? "good enough in the background" : "heard as another sound";
    }

    /** What a machine needs for a recipe. Envelopes that are alike count once. */
    public static String cost(Recipe recipe) {
        return Methods.of(recipe).needs(recipe);
    }
}

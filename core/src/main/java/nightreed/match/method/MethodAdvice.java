package nightreed.match.method;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;

/**
 * Whether a method suits a sound, from its measurement alone, before anything is fitted.
 *
 * @param method name of the method
 * @param why    in plain words, with numbers
 */
public record MethodAdvice(String method, String why) {
    /** How far from a harmonic a partial may lie to count as one [cents]; chosen. */
    private static final double HARMONIC_CENTS = 25;

    /** All methods, the most promising first. */
    public static List<MethodAdvice> of(Measurement m) {
        return m.held() != null ? held(m) : struck(m);
    }

    private static List<MethodAdvice> held(Measurement m) {
        int harmonics = m.held().harmonics().size();
        String series = String.format(Locale.ROOT, "%d harmonics of one pitch", harmonics);
        String noise =
                String.format(Locale.ROOT, "noise %.0f dB under them", -m.held().noiseDb());
        boolean moves = m.held().vibrato() != null || m.held().filter() != null;
        return List.of(
                new MethodAdvice("formant", "The note is held: bands follow each part of its spectrum, " + noise + "."),
                new MethodAdvice(
                        "subtractive",
                        "The note is held, with " + series + ": one wave through a filter makes them"
                                + (moves ? ", and its LFOs make the movement that was measured." : ".")),
                new MethodAdvice(
                        "fm", series + " can be sidebands; how strong each is follows Bessel's law, not the note."),
                new MethodAdvice(
                        "ring", "A rich wave beside its product has a harmonic series, but few ways to shape " + "it."),
                new MethodAdvice("string", "A bowed loop is harmonic and held; its spectrum is the bow's own."),
                new MethodAdvice(
                        "resonators", "Resonators die away by themselves; only slow ones can stand for a held note."));
    }

    private static List<MethodAdvice> struck(Measurement m) {
        List<Partial> heard = m.reliablePartials();
        long harmonic = m.f0Hz() == null
                ? 0
                : heard.stream().filter(p -> onHarmonic(p, m.f0Hz())).count();
        boolean string = m.inharmonicityB() != null || heard.size() > 3 && harmonic > 0.7 * heard.size();
        String count = String.format(Locale.ROOT, "%d partials, each with a decay of its own", heard.size());
        String place = String.format(Locale.ROOT, "%d of %d partials lie on harmonics", harmonic, heard.size());
        List<MethodAdvice> out = new ArrayList<>();
        if (m.f0Hz() == null) {
            out.add(new MethodAdvice("formant", "No pitch was found: noise through bands needs none."));
        }
        out.add(new MethodAdvice("resonators", "It dies by itself, in " + count + ": a resonator for each."));
        MethodAdvice bands = new MethodAdvice(
                "formant",
                "Bands can follow each part of the spectrum as it dies; partials in one band share a course.");
        if (m.f0Hz() != null) {
            out.add(bands);
        }
        MethodAdvice loop = new MethodAdvice(
                "string",
                string
                        ? place + ": a tuned loop has them all, with one law for their decays."
                        : place + ": a loop would put partials where the recording has none.");
        MethodAdvice fm = new MethodAdvice(
                "fm",
                m.fm() != null
                        ? "All its partials follow one law of frequency modulation."
                        : "Sidebands can fall on the strongest partials; how strong each is follows Bessel's law.");
        MethodAdvice subtractive = new MethodAdvice(
                "subtractive",
                place
                        + (string
                                ? ": one wave has them, and its filter closes as it dies."
                                : ": one wave has no others."));
        MethodAdvice ring =
                new MethodAdvice("ring", "Sum and difference of two waves meet two or three of the partials.");
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
}

package nightreed.desktop.stage;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.music.Pitch;

/** What the numbers of a measurement mean, in sentences. */
final class PlainWords {
    private PlainWords() {}

    static List<String> about(Measurement m) {
        List<String> out = new ArrayList<>();
        out.add(pitch(m));
        List<Partial> sure = m.reliablePartials();
        if (sure.size() >= 2) {
            out.add(decays(sure));
        }
        long pairs = sure.stream().filter(p -> p.beatHz() != null).count();
        if (pairs > 1) {
            out.add(String.format(
                    Locale.ROOT, "%d partials lie so close to a neighbour that they beat with it.", pairs));
        }
        if (m.strikeNotes().size() > 1 && m.strikeNotes().get(0).certainty() < 0.7) {
            out.add(String.format(
                    Locale.ROOT,
                    "The pitch is not certain: it may also be heard as %s, as %s.",
                    m.strikeNotes().get(1).note(),
                    m.strikeNotes().get(1).why()));
        }
        return out;
    }

    private static String pitch(Measurement m) {
        if (m.f0Hz() == null) {
            return "No partial stands clear enough of the noise to name a pitch.";
        }
        String note = String.format(
                Locale.ROOT,
                "%s, %.0f cents %s",
                m.nearestNote(),
                Math.abs(m.centsFromConcert()),
                m.centsFromConcert() < 0 ? "flat" : "sharp");
        if (m.series() == null) {
            return note + ". Too few partials to say what kind of body it is.";
        }
        String name = m.series().series().name();
        String body = switch (name) {
            case "uniform free bar" -> "A plain bar, free at both ends";
            case "arched bar tuned 1:4", "arched bar tuned 1:3" -> "A bar hollowed to be in tune with itself";
            case "clamped tongue" -> "A tongue held at one end";
            case "tuned bell" -> "A tuned bell";
            case "harmonic" -> "A harmonic sound, such as a string or a pipe";
            default -> "Close to the series of a " + name;
        };
        return body + ": " + note + ". " + secondMode(m);
    }

    private static String secondMode(Measurement m) {
        List<Partial> sure = m.reliablePartials();
        Partial above = sure.stream()
                .filter(p -> p.ratio() > 1.3 && p.levelDb() > -40)
                .min(Comparator.comparingDouble(Partial::ratio))
                .orElse(null);
        if (above == null) {
            return "";
        }
        double whole = Math.rint(above.ratio());
        double cents = Pitch.cents(whole, above.ratio());
        if (Math.abs(cents) < 4) {
            return String.format(Locale.ROOT, "Its next partial lies on %.0f times the first.", whole);
        }
        return String.format(
                Locale.ROOT,
                "Its next partial lies at %.3f, %.0f cents %s %.0f times the first.",
                above.ratio(),
                Math.abs(cents),
                cents < 0 ? "under" : "over",
                whole);
    }

    private static String decays(List<Partial> sure) {
        Partial longest = null;
        Partial shortest = null;
        for (Partial p : sure) {
            if (p.t60Seconds() != null && p.levelDb() > -45) {
                longest = longest == null || p.t60Seconds() > longest.t60Seconds() ? p : longest;
                shortest = shortest == null || p.t60Seconds() < shortest.t60Seconds() ? p : shortest;
            }
        }
        if (longest == null || longest.equals(shortest)) {
            return "The decay of its partials could not be told apart.";
        }
        double times = longest.t60Seconds() / shortest.t60Seconds();
        String consequence = times > 1.6 ? "One envelope for all cannot be right." : "One envelope could nearly do.";
        return String.format(
                Locale.ROOT,
                "The partial at ratio %.2f rings for %.2f s, %.1f times as long as that at %.2f. %s",
                longest.ratio(),
                longest.t60Seconds(),
                times,
                shortest.ratio(),
                consequence);
    }
}

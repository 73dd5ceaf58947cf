package nightreed.desktop.stage.measure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import java.util.stream.Collectors;
import nightreed.measure.Measurement;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;
import nightreed.measure.partial.Partial;
import nightreed.measure.traits.SourceWave;
import nightreed.measure.traits.Traits;
import nightreed.music.NoteValue;
import nightreed.music.Pitch;

/** What the numbers of a measurement mean, in sentences. */
final class MeasurementText {
    private MeasurementText() {}

    static List<String> about(Measurement m) {
        List<String> out = new ArrayList<>();
        out.add(pitch(m));
        List<Partial> sure = m.reliablePartials();
        if (!sure.isEmpty()) {
            out.add(madeOf(m, sure));
        }
        if (m.held() != null) {
            out.addAll(held(m.held()));
        } else if (sure.size() >= 2 && m.fm() == null) {
            out.add(decays(sure));
        }
        if (m.inharmonicityB() != null) {
            out.add(stiff(m.inharmonicityB()));
        }
        if (m.fm() != null) {
            out.add(String.format(
                    Locale.ROOT,
                    "Frequency modulation makes all of it: a sine at %.1f Hz, modulated at %.3f times that with an index of"
                            + " %.1f, which falls to a third in %.2f s.",
                    m.fm().carrierHz(),
                    m.fm().ratio(),
                    m.fm().index(),
                    1.1 * m.fm().indexSeconds()));
        }
        out.addAll(traits(m.traits()));
        long stages = sure.stream().filter(p -> p.stages() != null).count();
        if (stages > 0) {
            out.add(stages + (stages == 1 ? " partial dies" : " partials die")
                    + " in two stages: fast at first, then slower. A second, detuned string or layer gives that.");
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

    /** The layers of the sound, each of which can be heard by itself. */
    private static String madeOf(Measurement m, List<Partial> sure) {
        if (m.held() != null) {
            return String.format(
                    Locale.ROOT,
                    "Made of %d harmonics that are held, and noise between them %.0f dB under.",
                    sure.size(),
                    -m.held().noiseDb());
        }
        long dying = sure.stream().filter(p -> p.t60Seconds() != null).count();
        String staying = dying == sure.size() ? "" : String.format(Locale.ROOT, ", %d that stay", sure.size() - dying);
        String noise = m.noise() == null
                ? ", without a strike of noise"
                : String.format(
                        Locale.ROOT,
                        " and a strike of noise of %.0f ms, %.0f dB %s the strongest",
                        1000 * m.noise().t60Seconds(),
                        Math.abs(m.noise().levelDb()),
                        m.noise().levelDb() < 0 ? "under" : "over");
        if (m.fm() != null) {
            return "Made of " + sure.size() + " lines of one modulation" + noise + ".";
        }
        return "Made of " + dying + (dying == 1 ? " partial that dies" : " partials that die") + staying + noise + ".";
    }

    /** What a note that is held does while it is. */
    private static List<String> held(HeldNote h) {
        List<String> out = new ArrayList<>();
        if (h.vibrato() != null && h.vibrato().shape() == Movement.Shape.STEPPED) {
            out.add(String.format(
                    Locale.ROOT,
                    "Its pitch jumps %.1f times a second, within %.0f cents to either side: a stepped random LFO.",
                    h.vibrato().rateHz(),
                    h.vibrato().depth()));
        } else if (h.vibrato() != null) {
            out.add(String.format(
                    Locale.ROOT,
                    "Vibrato of %.1f Hz swings it by %.0f cents to either side; it sets in %.2f s after the onset and"
                            + " takes %.2f s to grow.",
                    h.vibrato().rateHz(),
                    h.vibrato().depth(),
                    Math.max(0, h.vibrato().delaySeconds()),
                    h.vibrato().rampSeconds()));
        } else {
            out.add("The pitch is held without vibrato.");
        }
        if (h.tremolo() != null) {
            out.add(String.format(
                    Locale.ROOT,
                    "The level swings by %.1f dB%s.",
                    h.tremolo().depth(),
                    together(h.tremolo(), h.vibrato(), "the pitch")));
        }
        if (h.filter() != null) {
            boolean level = h.vibrato() == null;
            out.add(String.format(
                    Locale.ROOT,
                    "The brightness swings by %.2f octaves%s, as a filter with an LFO.",
                    h.filter().depth(),
                    together(h.filter(), level ? h.tremolo() : h.vibrato(), level ? "the level" : "the pitch")));
        }
        double later = MeasuredPaths.msPerHarmonic(h);
        if (later > 0.4) {
            out.add(String.format(
                    Locale.ROOT,
                    "Each harmonic comes in %.1f ms after the one below it, as in brass: open a filter over the attack.",
                    later));
        }
        if (Math.abs(h.glideCents()) > 15) {
            out.add(String.format(Locale.ROOT, "It glides by %+.0f cents while it is held.", h.glideCents()));
        }
        return out;
    }

    /** Whether a swing goes with another, and how far apart they are; or how fast it is by itself. */
    private static String together(Movement m, Movement other, String what) {
        if (other == null || !m.movesWith(other)) {
            return String.format(Locale.ROOT, " at %.1f Hz", m.rateHz());
        }
        if (m.shape() == Movement.Shape.STEPPED) {
            return " as often as " + what + ": one LFO for both";
        }
        double degrees = Math.toDegrees(m.leads(other));
        String step = Math.abs(degrees) < 20
                ? "in step with " + what
                : Math.abs(degrees) > 160
                        ? "against " + what
                        : String.format(
                                Locale.ROOT,
                                "%.0f° %s %s",
                                Math.abs(degrees),
                                degrees > 0 ? "ahead of" : "behind",
                                what);
        return " " + step + ": one LFO for both";
    }

    /** What an imitation can take from the shape of the spectrum. */
    private static List<String> traits(Traits t) {
        List<String> out = new ArrayList<>();
        if (t.pluckPoint() != null && t.pluckPoint().certainty() > 0.5) {
            out.add(String.format(
                    Locale.ROOT,
                    "It was plucked or struck at %.0f %% of its length: about every partial with a number near a multiple"
                            + " of %.1f is weak.",
                    100 * t.pluckPoint().share(),
                    1 / t.pluckPoint().share()));
        }
        if (!t.formants().isEmpty()) {
            out.add("Formants, which stay where they are on every key: "
                    + t.formants().stream()
                            .map(f -> String.format(Locale.ROOT, "%.0f Hz", f.centreHz()))
                            .collect(Collectors.joining(", "))
                    + ".");
        }
        if (!t.sources().isEmpty()) {
            SourceWave s = t.sources().get(0);
            out.add(
                    s.certainty() < 0.6
                            ? "Wave and filter can stand in for each other here: several sources explain the levels."
                            : s.wave() == SourceWave.Wave.OTHER
                                    ? "No plain wave with a low-pass explains the levels; a body with formants does."
                                    : String.format(
                                            Locale.ROOT,
                                            "Of plain waves through a low-pass a %s comes closest: %.1f dB off in a"
                                                    + " typical harmonic.",
                                            s.wave().title(),
                                            s.rmsDb()));
        }
        if (t.decayLaw() != null && t.decayLaw().spread() < 1.5) {
            out.add(String.format(
                    Locale.ROOT,
                    "An octave up, partials die %.1f times as fast.",
                    Math.pow(2, t.decayLaw().exponent())));
        }
        return out;
    }

    private static String stiff(double b) {
        return String.format(
                Locale.ROOT,
                "A stiff string, B = %.2g: its tenth partial is %.0f cents sharper than ten times the first.",
                b,
                600 * Math.log((1 + 100 * b) / (1 + b)) / Math.log(2));
    }

    /** Further figures, as names and values with units. */
    static List<String[]> figures(Measurement m) {
        List<String[]> out = new ArrayList<>();
        figure(out, "attack", m.attackSeconds(), a -> String.format(Locale.ROOT, "%.2f ms", 1000 * a));
        AttackBy by = m.held() == null ? null : AttackBy.of(m.held());
        if (by != null && by.verdict() != AttackBy.Verdict.OPEN) {
            String what = switch (by.verdict()) {
                case AMPLITUDE -> "level";
                case FILTER -> "filter opens";
                default -> "level, filter opens";
            };
            out.add(new String[] {
                "start by", String.format(Locale.ROOT, "%s, %.0f %%", what, Math.floor(100 * by.odds()))
            });
        }
        if (m.held() == null) {
            figure(
                    out,
                    "strike noise",
                    m.noise(),
                    n -> String.format(Locale.ROOT, "%.0f ms, %.0f dB", 1000 * n.t60Seconds(), n.levelDb()));
            figure(out, "its colour", m.noise(), n -> String.format(Locale.ROOT, "%.0f dB/oct", n.slopeDbPerOctave()));
        } else {
            figure(
                    out,
                    "vibrato",
                    m.held().vibrato(),
                    v -> String.format(Locale.ROOT, "%.2f Hz, %.1f cents", v.rateHz(), v.depth()));
            figure(
                    out,
                    "tremolo",
                    m.held().tremolo(),
                    v -> String.format(Locale.ROOT, "%.2f Hz, %.1f dB", v.rateHz(), v.depth()));
            figure(out, "noise between", m.held(), h -> String.format(Locale.ROOT, "%.0f dB", h.noiseDb()));
            figure(out, "let go", m.held(), h -> String.format(Locale.ROOT, "%.2f s", h.releaseSeconds()));
        }
        if (m.tail() != null) {
            figure(
                    out,
                    m.held() == null ? "rings on between" : "rings on after",
                    m.tail(),
                    t -> String.format(Locale.ROOT, "%.2f ± %.2f s", t.t60Seconds(), 2 * t.t60SeSeconds()));
        }
        figure(
                out,
                "brightness",
                m.brightness(),
                b -> String.format(Locale.ROOT, "%.0f to %.0f Hz", b.startHz(), b.endHz()));
        return out;
    }

    /** Rates and delays as note values at a tempo; where they stray from one by more than 6 %, they are none. */
    static List<String[]> noteValues(Measurement m, double bpm) {
        List<String[]> out = new ArrayList<>();
        if (m.held() != null) {
            value(
                    out,
                    "vibrato rate",
                    m.held().vibrato() == null ? null : 1 / m.held().vibrato().rateHz(),
                    bpm);
            value(
                    out,
                    "tremolo rate",
                    m.held().tremolo() == null ? null : 1 / m.held().tremolo().rateHz(),
                    bpm);
            value(
                    out,
                    "filter rate",
                    m.held().filter() == null ? null : 1 / m.held().filter().rateHz(),
                    bpm);
        }
        value(out, "echo delay", m.echo() == null ? null : m.echo().delaySeconds(), bpm);
        return out;
    }

    private static void value(List<String[]> out, String name, Double seconds, double bpm) {
        if (seconds != null) {
            NoteValue v = NoteValue.nearest(seconds, bpm);
            if (Math.abs(v.offShare()) < 0.06) {
                out.add(new String[] {
                    name, String.format(Locale.ROOT, "%s at %s bpm%s", v.name(), tempo(bpm), off(v.offShare()))
                });
            }
        }
    }

    /** Short, as it stands beside its name; what is nearer than that is no difference. */
    private static String off(double share) {
        return Math.abs(share) < 0.005 ? "" : String.format(Locale.ROOT, ", %+.0f %%", 100 * share);
    }

    private static String tempo(double bpm) {
        return String.format(Locale.ROOT, bpm == Math.rint(bpm) ? "%.0f" : "%.1f", bpm);
    }

    private static <T> void figure(List<String[]> out, String name, T value, Function<T, String> text) {
        out.add(new String[] {name, value == null ? "none found" : text.apply(value)});
    }

    private static String pitch(Measurement m) {
        if (m.isChord()) {
            return "Several notes at once: no pitch of its own.";
        }
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
        if (m.fm() != null) {
            return "Lines of a modulation, not of a body: heard at " + note + ".";
        }
        String body = switch (name) {
            case "uniform free bar" -> "A plain bar, free at both ends";
            case "arched bar tuned 1:4", "arched bar tuned 1:3" -> "A bar hollowed to be in tune with itself";
            case "clamped tongue" -> "A tongue held at one end";
            case "tuned bell" -> "A tuned bell";
            case "harmonic" -> "A harmonic sound, such as a string or a pipe";
            case "ideal membrane" -> "Close to the series of an " + name;
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

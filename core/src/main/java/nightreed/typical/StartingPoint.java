package nightreed.typical;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;

/**
 * A patch to begin with, made for a job.
 *
 * @param id       name of its file
 * @param title    what it is for
 * @param families that it is a way to, by id
 * @param why      why it is made so
 * @param first    the three values to move first, by id, of its first layer
 * @param wrong    what goes wrong, and what to do then
 */
public record StartingPoint(
        String id, String title, List<String> families, String why, List<String> first, String wrong, Patch patch) {
    private static final List<String> IDS = List.of(
            "mallet-click-and-body",
            "glass-bell-fourth",
            "long-gong",
            "brass-section",
            "brass-fm",
            "soft-turns-to-bell",
            "metallic-pluck-pwm",
            "pluck-becomes-bow",
            "breathy-pipe",
            "tape-flute",
            "gated-organ",
            "harpsichord-octave",
            "hits-from-bands",
            "fed-drone",
            "body-by-formants",
            "airy-mallet-notch");

    /** All that ship with the program. */
    public static List<StartingPoint> all() {
        return IDS.stream().map(StartingPoint::read).toList();
    }

    /** Those that are ways to a family, and then the others. */
    public static List<StartingPoint> to(Family family) {
        List<StartingPoint> out = new ArrayList<>();
        for (boolean fits : new boolean[] {true, false}) {
            all().stream()
                    .filter(p -> p.families().contains(family.id()) == fits)
                    .forEach(out::add);
        }
        return out;
    }

    /** What to know of it, for a note beside the patch. */
    public String note() {
        List<String> names = new ArrayList<>();
        patch.first().settings().stream()
                .filter(s -> first.contains(s.parameter().id()))
                .forEach(s -> names.add(s.parameter().name()));
        return why + "\nMove first: " + String.join(", ", names) + ".\nWhat goes wrong: " + wrong;
    }

    private static StartingPoint read(String id) {
        try (InputStream in = StartingPoint.class.getResourceAsStream("starting/" + id + ".json")) {
            JsonNode o = new ObjectMapper().readTree(in);
            return new StartingPoint(
                    id,
                    o.get("title").asText(),
                    texts(o.get("families")),
                    o.get("why").asText(),
                    texts(o.get("first")),
                    o.get("wrong").asText(),
                    RecipeJson.parsePatch(o.get("patch").toString(), id));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (UnusableRecipe e) {
            throw new IllegalStateException("the starting point " + id + " does not read", e);
        }
    }

    private static List<String> texts(JsonNode array) {
        List<String> out = new ArrayList<>();
        array.forEach(t -> out.add(t.asText()));
        return List.copyOf(out);
    }
}

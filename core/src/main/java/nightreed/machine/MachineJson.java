package nightreed.machine;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.StrictJson;
import nightreed.recipe.UnusableRecipe;

/** Machines as JSON, schema {@value #SCHEMA}: the components of the record; what is left out is not limited. */
public final class MachineJson {
    public static final String SCHEMA = "machine-1";
    private static final JsonMapper MAPPER =
            StrictJson.mapper(JsonInclude.Include.NON_NULL).build();

    private MachineJson() {}

    /** Indented JSON text. */
    public static String text(Machine machine) {
        return tree(machine).toPrettyString();
    }

    public static ObjectNode tree(Machine machine) {
        ObjectNode o = MAPPER.createObjectNode();
        o.put("schema", SCHEMA);
        o.setAll((ObjectNode) MAPPER.valueToTree(machine));
        return o;
    }

    /** @throws UnusableRecipe if the text is no machine of the known schema, or a value is unknown or absurd */
    public static Machine parse(String json, String name) throws UnusableRecipe {
        ObjectNode o = StrictJson.object(MAPPER, json, name, "the description of a machine");
        if (!o.path("schema").asText().equals(SCHEMA)) {
            throw new UnusableRecipe(name + " is not the description of a machine of schema " + SCHEMA
                    + ": it may be another file, or come from a newer version.");
        }
        o.remove("schema");
        return StrictJson.value(MAPPER, o, Machine.class, name);
    }

    /** Made-up machines that ship with the application. */
    public static List<Machine> examples() {
        List<Machine> out = new ArrayList<>();
        for (String name : List.of("two-waves", "four-sines", "eight-bodies")) {
            try (InputStream in = Machine.class.getResourceAsStream(name + ".json")) {
                out.add(parse(new String(in.readAllBytes(), StandardCharsets.UTF_8), name));
            } catch (IOException | UnusableRecipe e) {
                throw new IllegalStateException(
                        "the machine '" + name + "' that ships with the application is damaged", e);
            }
        }
        return List.copyOf(out);
    }
}

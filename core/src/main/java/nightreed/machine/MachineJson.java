package nightreed.machine;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.exc.InvalidFormatException;
import com.fasterxml.jackson.databind.exc.UnrecognizedPropertyException;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import nightreed.recipe.UnusableRecipe;

/** Machines as JSON, schema {@value #SCHEMA}: the components of the record; what is left out is not limited. */
public final class MachineJson {
    public static final String SCHEMA = "machine-1";
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
            .serializationInclusion(JsonInclude.Include.NON_NULL)
            .build();

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
        JsonNode node;
        try {
            node = MAPPER.readTree(json);
        } catch (JsonProcessingException e) {
            int line = e.getLocation() == null ? 1 : e.getLocation().getLineNr();
            throw new UnusableRecipe(
                    name + " is not JSON (line " + line + "): choose the description of a machine.", e);
        }
        if (!(node instanceof ObjectNode o) || !o.path("schema").asText().equals(SCHEMA)) {
            throw new UnusableRecipe(name + " is not the description of a machine of schema " + SCHEMA
                    + ": it may be another file, or come from a newer version.");
        }
        o.remove("schema");
        try {
            return MAPPER.treeToValue(o, Machine.class);
        } catch (JsonProcessingException e) {
            throw new UnusableRecipe(name + " cannot be used: " + explained(e) + ".", e);
        }
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

    private static String explained(JsonProcessingException e) {
        String where = e instanceof JsonMappingException m
                ? m.getPath().stream()
                        .map(r -> r.getFieldName() == null ? "" : r.getFieldName())
                        .filter(s -> !s.isEmpty())
                        .collect(Collectors.joining("."))
                : "";
        if (e.getCause() instanceof IllegalArgumentException bad && bad.getMessage() != null) {
            return bad.getMessage();
        }
        if (e instanceof UnrecognizedPropertyException) {
            return "a machine has no '" + where + "'";
        }
        if (e instanceof InvalidFormatException f
                && f.getTargetType() != null
                && f.getTargetType().isEnum()) {
            return "'" + where + "' must be of "
                    + Arrays.toString(f.getTargetType().getEnumConstants());
        }
        return "'" + where + "' is of the wrong kind";
    }
}

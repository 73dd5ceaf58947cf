package nightreed.recipe;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.JsonSerializer;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.exc.InvalidFormatException;
import com.fasterxml.jackson.databind.exc.UnrecognizedPropertyException;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;

/**
 * Recipes as JSON, schema {@value #SCHEMA}; {@value #FIRST_SCHEMA} is read, too (docs/formats.md). The fields are the
 * components of the records.
 */
public final class RecipeJson {
    public static final String SCHEMA = "recipe-2";
    public static final String PATCH_SCHEMA = "patch-1";
    private static final String FIRST_SCHEMA = "recipe-1";
    private static final Map<String, Class<? extends Recipe>> METHODS = new TreeMap<>(Map.of(
            "resonators", ResonatorRecipe.class,
            "fm", FmRecipe.class,
            "ring", RingRecipe.class,
            "formant", FormantRecipe.class,
            "string", StringRecipe.class,
            "subtractive", SubtractiveRecipe.class));
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
            .serializationInclusion(JsonInclude.Include.NON_EMPTY)
            .addModule(new SimpleModule()
                    .addSerializer(ExcitationSample.class, new FeedOut())
                    .addDeserializer(ExcitationSample.class, new FeedIn()))
            .build();

    private RecipeJson() {}

    /** Indented JSON text. */
    public static String text(Recipe recipe) {
        return tree(recipe).toPrettyString();
    }

    public static ObjectNode tree(Recipe recipe) {
        ObjectNode o = MAPPER.createObjectNode();
        o.put("schema", SCHEMA);
        o.put("method", recipe.method());
        o.setAll((ObjectNode) MAPPER.valueToTree(recipe));
        return o;
    }

    /** Indented JSON text of layers, schema {@value #PATCH_SCHEMA}. */
    public static String text(Patch patch) {
        ObjectNode o = MAPPER.createObjectNode();
        o.put("schema", PATCH_SCHEMA);
        ArrayNode layers = o.putArray("layers");
        for (Layer l : patch.layers()) {
            layers.addObject()
                    .put("balanceDb", l.balanceDb())
                    .put("transpose", l.transpose())
                    .put("lowKey", l.lowKey())
                    .put("highKey", l.highKey())
                    .put("fadeKeys", l.fadeKeys())
                    .set("recipe", tree(l.recipe()));
        }
        return o.toPrettyString();
    }

    /** Layers, or a recipe as the only layer. @throws UnusableRecipe if it is neither, or a value is missing or absurd */
    public static Patch parsePatch(String json, String name) throws UnusableRecipe {
        JsonNode o;
        try {
            o = MAPPER.readTree(json);
        } catch (JsonProcessingException e) {
            return Patch.of(parse(json, name)); // which explains
        }
        if (o == null || !o.path("schema").asText().equals(PATCH_SCHEMA)) {
            return Patch.of(parse(json, name));
        }
        List<Layer> layers = new ArrayList<>();
        for (JsonNode l : o.path("layers")) {
            String which = "layer " + (layers.size() + 1) + " of " + name;
            Recipe recipe = parse(l.path("recipe").toString(), which);
            try {
                layers.add(new Layer(
                        recipe,
                        l.path("balanceDb").asDouble(0),
                        l.path("transpose").asInt(0),
                        l.path("lowKey").asInt(0),
                        l.path("highKey").asInt(127),
                        l.path("fadeKeys").asInt(0)));
            } catch (IllegalArgumentException e) {
                throw new UnusableRecipe(which + " cannot be used: " + e.getMessage() + ".", e);
            }
        }
        try {
            return new Patch(layers);
        } catch (IllegalArgumentException e) {
            throw new UnusableRecipe(name + " cannot be used: " + e.getMessage() + ".", e);
        }
    }

    /** @throws UnusableRecipe if the text is not a recipe of a known schema, or a value is missing, unknown or absurd */
    public static Recipe parse(String json, String name) throws UnusableRecipe {
        JsonNode node;
        try {
            node = MAPPER.readTree(json);
        } catch (JsonProcessingException e) {
            int line = e.getLocation() == null ? 1 : e.getLocation().getLineNr();
            throw new UnusableRecipe(name + " is not JSON (line " + line + "): choose a recipe.json.", e);
        }
        String schema = node == null ? "" : node.path("schema").asText();
        if (!(node instanceof ObjectNode o) || !schema.equals(SCHEMA) && !schema.equals(FIRST_SCHEMA)) {
            throw new UnusableRecipe(name + " is not a recipe of schema " + SCHEMA
                    + ": it may be another file, or come from a newer version.");
        }
        String method = o.path("method").asText();
        Class<? extends Recipe> type = METHODS.get(method);
        if (type == null) {
            throw new UnusableRecipe(name + " is a recipe of the method '" + method
                    + "', which this version does not know; it knows: " + String.join(", ", METHODS.keySet()) + ".");
        }
        if (schema.equals(FIRST_SCHEMA) && o.path("velocity") instanceof ObjectNode v) {
            v.put("floor", 0.0);
        }
        o.remove("schema");
        o.remove("method");
        try {
            return MAPPER.treeToValue(o, type);
        } catch (JsonProcessingException e) {
            throw new UnusableRecipe(name + " cannot be used: " + explained(e) + ".", e);
        }
    }

    /** Where the fault is, and what. */
    private static String explained(JsonProcessingException e) {
        StringBuilder where = new StringBuilder();
        if (e instanceof JsonMappingException m) {
            for (JsonMappingException.Reference r : m.getPath()) {
                where.append(
                        r.getFieldName() != null
                                ? (where.isEmpty() ? "" : ".") + r.getFieldName()
                                : "[" + (r.getIndex() + 1) + "]");
            }
        }
        String at = where.isEmpty() ? "" : "in '" + where + "': ";
        if (e.getCause() instanceof IllegalArgumentException bad && bad.getMessage() != null) {
            return at + bad.getMessage();
        }
        String field = where.substring(where.lastIndexOf(".") + 1);
        if (e instanceof UnrecognizedPropertyException) {
            return "there is no value '" + where + "'";
        }
        String said = String.valueOf(e.getOriginalMessage());
        if (said.contains("Cannot map `null`") || said.contains("Cannot coerce `null`") || said.contains("null")) {
            return "'" + where + "' is missing";
        }
        if (field.equals("key")) {
            return "the key must be a whole MIDI number";
        }
        if (e instanceof InvalidFormatException f
                && f.getTargetType() != null
                && f.getTargetType().isEnum()) {
            return at + "must be one of " + Arrays.toString(f.getTargetType().getEnumConstants());
        }
        return at + "a value is of the wrong kind";
    }

    private static final class FeedOut extends JsonSerializer<ExcitationSample> {
        @Override
        public void serialize(ExcitationSample f, JsonGenerator g, SerializerProvider p) throws IOException {
            g.writeStartObject();
            g.writeNumberField("sampleRateHz", f.sampleRateHz());
            g.writeStringField("pcm16", f.pcm16());
            g.writeEndObject();
        }
    }

    private static final class FeedIn extends JsonDeserializer<ExcitationSample> {
        @Override
        public ExcitationSample deserialize(JsonParser p, DeserializationContext c) throws IOException {
            JsonNode n = p.readValueAsTree();
            try {
                return ExcitationSample.of(
                        n.path("sampleRateHz").asInt(), n.path("pcm16").asText());
            } catch (IllegalArgumentException e) {
                throw JsonMappingException.from(p, e.getMessage(), e);
            }
        }
    }
}

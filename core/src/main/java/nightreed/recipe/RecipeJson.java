package nightreed.recipe;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonDeserializer;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.JsonSerializer;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import nightreed.files.Shown;
import nightreed.recipe.part.SingleCycle;

/**
 * Recipes as JSON, schema {@value #SCHEMA}; {@value #SECOND_SCHEMA} and {@value #FIRST_SCHEMA} are read, too (docs/formats.md). The fields are the
 * components of the records.
 */
public final class RecipeJson {
    public static final String SCHEMA = "recipe-3";
    public static final String PATCH_SCHEMA = "patch-2";
    private static final String FIRST_PATCH_SCHEMA = "patch-1";
    private static final String SECOND_SCHEMA = "recipe-2";
    private static final String FIRST_SCHEMA = "recipe-1";
    private static final Map<String, Class<? extends Recipe>> METHODS = new TreeMap<>(Map.of(
            "resonators", ResonatorRecipe.class,
            "fm", FmRecipe.class,
            "ring", RingRecipe.class,
            "formant", FormantRecipe.class,
            "string", StringRecipe.class,
            "subtractive", SubtractiveRecipe.class));
    private static final String WANTED = "a recipe.json";
    private static final JsonMapper MAPPER = StrictJson.mapper(JsonInclude.Include.NON_EMPTY)
            .addModule(new SimpleModule()
                    .addSerializer(SingleCycle.class, new CycleOut())
                    .addDeserializer(SingleCycle.class, new CycleIn())
                    .addSerializer(ExcitationSample.class, new FeedOut())
                    .addDeserializer(ExcitationSample.class, new FeedIn()))
            .build();

    /** A layer as it is read; what is left out is as usual. */
    private record LayerIn(
            ObjectNode recipe,
            Double balanceDb,
            Integer transpose,
            Integer lowKey,
            Integer highKey,
            Integer fadeKeys,
            Double pan,
            Double fineCents,
            Double lowVelocity,
            Double highVelocity,
            Layer.CrossFade crossFade,
            Boolean muted,
            Boolean solo) {
        Layer of(Recipe recipe) {
            Layer usual = Layer.of(recipe);
            return new Layer(
                    recipe,
                    balanceDb == null ? usual.balanceDb() : balanceDb,
                    pan == null ? usual.pan() : pan,
                    transpose == null ? usual.transpose() : transpose,
                    fineCents == null ? usual.fineCents() : fineCents,
                    lowKey == null ? usual.lowKey() : lowKey,
                    highKey == null ? usual.highKey() : highKey,
                    fadeKeys == null ? usual.fadeKeys() : fadeKeys,
                    lowVelocity == null ? usual.lowVelocity() : lowVelocity,
                    highVelocity == null ? usual.highVelocity() : highVelocity,
                    crossFade,
                    muted != null && muted,
                    solo != null && solo);
        }
    }

    /** A patch as it is read. */
    private record PatchIn(String schema, Integer key, Double crossFade, List<LayerIn> layers) {}

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
        o.put("key", patch.key());
        o.put("crossFade", patch.crossFade());
        ArrayNode layers = o.putArray("layers");
        for (Layer l : patch.layers()) {
            ObjectNode one = MAPPER.valueToTree(l);
            one.set("recipe", tree(l.recipe()));
            layers.add(one);
        }
        return o.toPrettyString();
    }

    /** Layers, or a recipe as the only layer. @throws UnusableRecipe if it is neither, or a value is missing or absurd */
    public static Patch parsePatch(String json, String name) throws UnusableRecipe {
        ObjectNode o = StrictJson.object(MAPPER, json, name, WANTED);
        String schema = o.path("schema").asText();
        if (!schema.equals(PATCH_SCHEMA) && !schema.equals(FIRST_PATCH_SCHEMA)) {
            return Patch.of(recipe(o, name));
        }
        PatchIn patch = StrictJson.value(MAPPER, o, PatchIn.class, name);
        List<Layer> layers = new ArrayList<>();
        for (LayerIn l : patch.layers == null ? List.<LayerIn>of() : patch.layers) {
            String which = "layer " + (layers.size() + 1) + " of " + name;
            if (l == null || l.recipe == null) {
                throw new UnusableRecipe(which + " cannot be used: 'recipe' is missing.");
            }
            Recipe recipe = recipe(l.recipe, which);
            try {
                layers.add(l.of(recipe));
            } catch (IllegalArgumentException e) {
                throw new UnusableRecipe(which + " cannot be used: " + e.getMessage() + ".", e);
            }
        }
        try {
            Patch read = new Patch(layers);
            return new Patch(
                    patch.key == null ? read.key() : patch.key, layers, patch.crossFade == null ? 0 : patch.crossFade);
        } catch (IllegalArgumentException e) {
            throw new UnusableRecipe(name + " cannot be used: " + e.getMessage() + ".", e);
        }
    }

    /** @throws UnusableRecipe if the text is not a recipe of a known schema, or a value is missing, unknown or absurd */
    public static Recipe parse(String json, String name) throws UnusableRecipe {
        return recipe(StrictJson.object(MAPPER, json, name, WANTED), name);
    }

    private static Recipe recipe(ObjectNode o, String name) throws UnusableRecipe {
        String schema = o.path("schema").asText();
        if (!List.of(SCHEMA, SECOND_SCHEMA, FIRST_SCHEMA).contains(schema)) {
            throw new UnusableRecipe(name + " is not a recipe of schema " + SCHEMA
                    + ": it may be another file, or come from a newer version.");
        }
        String method = o.path("method").asText();
        Class<? extends Recipe> type = METHODS.get(method);
        if (type == null) {
            throw new UnusableRecipe(name + " is a recipe of the method '" + Shown.of(method)
                    + "', which this version does not know; it knows: " + String.join(", ", METHODS.keySet()) + ".");
        }
        if (schema.equals(FIRST_SCHEMA) && o.path("velocity") instanceof ObjectNode v) {
            v.put("floor", 0.0);
        }
        o.remove("schema");
        o.remove("method");
        return StrictJson.value(MAPPER, o, type, name);
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
            JsonNode n = c.readTree(p);
            try {
                return ExcitationSample.of(
                        n.path("sampleRateHz").asInt(), n.path("pcm16").asText());
            } catch (IllegalArgumentException e) {
                throw JsonMappingException.from(p, e.getMessage(), e);
            }
        }
    }

    /** A cycle as files have it: two lists, since a file of 256 little objects would be hard to read. */
    private record CycleLists(List<Double> levelsDb, List<Double> phasesRad) {}

    private static final class CycleOut extends JsonSerializer<SingleCycle> {
        @Override
        public void serialize(SingleCycle c, JsonGenerator g, SerializerProvider p) throws IOException {
            g.writePOJO(new CycleLists(c.levelsDb(), c.phasesRad()));
        }
    }

    private static final class CycleIn extends JsonDeserializer<SingleCycle> {
        @Override
        public SingleCycle deserialize(JsonParser p, DeserializationContext c) throws IOException {
            CycleLists in = c.readValue(p, CycleLists.class);
            try {
                return new SingleCycle(in.levelsDb, in.phasesRad);
            } catch (IllegalArgumentException e) {
                throw JsonMappingException.from(p, e.getMessage(), e);
            }
        }
    }
}

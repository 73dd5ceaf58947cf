package nightreed.recipe;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;

/** Recipes as JSON, schema {@value #SCHEMA} (docs/formats.md). */
public final class RecipeJson {
    public static final String SCHEMA = "recipe-1";

    private RecipeJson() {}

    /** Indented JSON text. */
    public static String text(Recipe recipe) {
        return tree(recipe).toPrettyString();
    }

    public static ObjectNode tree(Recipe recipe) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        o.put("schema", SCHEMA);
        o.put("method", recipe.method());
        if (recipe instanceof ResonatorRecipe r) {
            write(r, o);
        }
        return o;
    }

    /** @throws UnusableRecipe if the text is not a recipe of a known schema, or a value is missing or absurd */
    public static Recipe parse(String json, String name) throws UnusableRecipe {
        JsonNode o;
        try {
            o = JsonMapper.builder().build().readTree(json);
        } catch (JsonProcessingException e) {
            throw new UnusableRecipe(
                    name + " is not JSON (line " + e.getLocation().getLineNr() + "): choose a recipe.json.", e);
        }
        if (o == null || !o.isObject() || !o.path("schema").asText().equals(SCHEMA)) {
            throw new UnusableRecipe(name + " is not a recipe of schema " + SCHEMA
                    + ": it may be another file, or come from a newer version.");
        }
        String method = o.path("method").asText();
        if (!method.equals("resonators")) {
            throw new UnusableRecipe(name + " is a recipe of the method '" + method
                    + "', which this version does not know; it knows: resonators.");
        }
        try {
            return readResonators(o);
        } catch (IllegalArgumentException e) {
            throw new UnusableRecipe(name + " cannot be used: " + e.getMessage() + ".", e);
        }
    }

    private static void write(ResonatorRecipe r, ObjectNode o) {
        o.put("key", r.key()).put("tuningCents", r.tuningCents()).put("levelDb", r.levelDb());
        o.putObject("exciter")
                .put("contactMs", r.exciter().contactMs())
                .put("noiseDb", r.exciter().noiseDb())
                .put("noiseT60Ms", r.exciter().noiseT60Ms())
                .put("noiseLowHz", r.exciter().noiseLowHz())
                .put("noiseHighHz", r.exciter().noiseHighHz());
        var modes = o.putArray("modes");
        for (Mode m : r.modes()) {
            modes.addObject()
                    .put("ratio", m.ratio())
                    .put("levelDb", m.levelDb())
                    .put("t60Seconds", m.t60Seconds())
                    .put("phaseRad", m.phaseRad());
        }
        o.putObject("keyTracking")
                .put("decayPower", r.keyTracking().decayPower())
                .put("exciterShare", r.keyTracking().exciterShare());
        o.putObject("velocity")
                .put("reference", r.velocity().reference())
                .put("levelDb", r.velocity().levelDb())
                .put("hardnessOctaves", r.velocity().hardness());
        o.put("damperT60Seconds", r.damperT60());
    }

    private static ResonatorRecipe readResonators(JsonNode o) {
        List<Mode> modes = new ArrayList<>();
        for (JsonNode m : o.path("modes")) {
            modes.add(
                    new Mode(number(m, "ratio"), number(m, "levelDb"), number(m, "t60Seconds"), number(m, "phaseRad")));
        }
        JsonNode e = o.path("exciter");
        JsonNode k = o.path("keyTracking");
        JsonNode v = o.path("velocity");
        double key = number(o, "key");
        if (key != Math.rint(key)) {
            throw new IllegalArgumentException("the key must be a whole MIDI number, got " + key);
        }
        return new ResonatorRecipe(
                (int) key,
                number(o, "tuningCents"),
                number(o, "levelDb"),
                new Exciter(
                        number(e, "contactMs"),
                        number(e, "noiseDb"),
                        number(e, "noiseT60Ms"),
                        number(e, "noiseLowHz"),
                        number(e, "noiseHighHz")),
                modes,
                new KeyTracking(number(k, "decayPower"), number(k, "exciterShare")),
                new VelocityMap(number(v, "reference"), number(v, "levelDb"), number(v, "hardnessOctaves")),
                number(o, "damperT60Seconds"));
    }

    private static double number(JsonNode o, String field) {
        JsonNode v = o.path(field);
        if (!v.isNumber()) {
            throw new IllegalArgumentException("the number '" + field + "' is missing or not a number");
        }
        return v.asDouble();
    }
}

package nightreed.recipe;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.core.StreamReadFeature;
import com.fasterxml.jackson.core.json.JsonReadFeature;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonMappingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.MapperFeature;
import com.fasterxml.jackson.databind.exc.MismatchedInputException;
import com.fasterxml.jackson.databind.exc.UnrecognizedPropertyException;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.Arrays;
import java.util.Collection;
import nightreed.files.Shown;

/**
 * JSON that is written by people and other programs, taken at its word: nothing is rounded, converted, skipped or read twice, and what cannot
 * be used is named with its place, its value and what would be right.
 */
public final class StrictJson {
    /** Most characters of a text; a recipe with the paths of a long recording has a tenth of it. */
    public static final int MOST_CHARACTERS = 20_000_000;

    private static final int DEEPEST = 60; // recipes nest eight deep
    private static final int SHOWN_VALUE = 60;

    private StrictJson() {}

    /** A mapper to which modules may be added. @param left values that are not written */
    public static JsonMapper.Builder mapper(JsonInclude.Include left) {
        JsonMapper.Builder b = JsonMapper.builder()
                .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                .disable(JsonReadFeature.ALLOW_NON_NUMERIC_NUMBERS)
                .enable(DeserializationFeature.FAIL_ON_TRAILING_TOKENS)
                .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
                .enable(DeserializationFeature.FAIL_ON_NUMBERS_FOR_ENUMS)
                .disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)
                .disable(MapperFeature.ALLOW_COERCION_OF_SCALARS)
                .serializationInclusion(left);
        JsonMapper m = b.build();
        m.getFactory()
                .setStreamReadConstraints(StreamReadConstraints.builder()
                        .maxNestingDepth(DEEPEST)
                        .maxStringLength(MOST_CHARACTERS)
                        .build());
        return b;
    }

    /**
     * The one object of a text.
     *
     * @param wanted what should have been chosen, for the message
     */
    public static ObjectNode object(JsonMapper mapper, String json, String name, String wanted) throws UnusableRecipe {
        if (json.length() > MOST_CHARACTERS) {
            throw new UnusableRecipe(Shown.of(name) + " holds " + json.length() / 1_000_000 + " million characters; "
                    + wanted + " has " + MOST_CHARACTERS / 1_000_000 + " at the most.");
        }
        try {
            JsonNode node = mapper.readTree(json);
            if (node instanceof ObjectNode o) {
                return o;
            }
            throw new UnusableRecipe(Shown.of(name) + " is not " + wanted + ": it holds no object {...}.");
        } catch (JsonProcessingException e) {
            int line = e.getLocation() == null ? 1 : e.getLocation().getLineNr();
            String said = String.valueOf(e.getOriginalMessage());
            String why = said.startsWith("Duplicate field")
                    ? "holds a value twice (line " + line + ", " + Shown.of(said.replace("Duplicate field ", "")) + ")"
                    : said.startsWith("Trailing token")
                            ? "goes on after its end (line " + line + ")"
                            : "is not JSON (line " + line + ")";
            throw new UnusableRecipe(Shown.of(name) + " " + why + ": choose " + wanted + ".", e);
        }
    }

    /** Reads what an object holds. @throws UnusableRecipe that says where the fault is, what stands there and what is right */
    public static <T> T value(JsonMapper mapper, ObjectNode o, Class<T> type, String name) throws UnusableRecipe {
        try {
            return mapper.treeToValue(o, type);
        } catch (JsonProcessingException e) {
            throw new UnusableRecipe(Shown.of(name) + " cannot be used: " + explained(e, o) + ".", e);
        } catch (NullPointerException e) { // a part that every recipe has is not there
            throw new UnusableRecipe(Shown.of(name) + " cannot be used: a part of it is missing.", e);
        }
    }

    private static String explained(JsonProcessingException e, JsonNode root) {
        StringBuilder path = new StringBuilder();
        JsonNode at = root;
        if (e instanceof JsonMappingException m) {
            for (JsonMappingException.Reference r : m.getPath()) {
                boolean field = r.getFieldName() != null;
                path.append(
                        field ? (path.isEmpty() ? "" : ".") + Shown.of(r.getFieldName()) : "[" + r.getIndex() + "]");
                at = at == null ? null : field ? at.get(r.getFieldName()) : at.get(r.getIndex());
            }
        }
        String where = path.isEmpty() ? "" : "in '" + path + "': ";
        if (e instanceof UnrecognizedPropertyException u) {
            Collection<Object> known = u.getKnownPropertyIds();
            return "there is no value '" + path + "'" + (known == null ? "" : "; there are " + known);
        }
        if (e.getCause() instanceof IllegalArgumentException bad && bad.getMessage() != null) {
            return where + bad.getMessage();
        }
        if (at == null || at.isNull() || at.isMissingNode() || e.getCause() instanceof NullPointerException) {
            return path.isEmpty() ? "a part of it is missing" : "'" + path + "' is missing";
        }
        Class<?> type = e instanceof MismatchedInputException m ? m.getTargetType() : null;
        return "'" + path + "' must be " + right(type) + ", and is " + shown(at);
    }

    private static String right(Class<?> type) {
        if (type == null) {
            return "something else";
        }
        if (type.isEnum()) {
            return "one of " + Arrays.toString(type.getEnumConstants());
        }
        if (type == int.class || type == Integer.class || type == long.class || type == Long.class) {
            return "a whole number";
        }
        if (type == boolean.class || type == Boolean.class) {
            return "true or false";
        }
        if (Number.class.isAssignableFrom(type) || type.isPrimitive()) {
            return "a number";
        }
        if (type == String.class) {
            return "a text in quotes";
        }
        return Collection.class.isAssignableFrom(type) ? "a list [...]" : "an object {...}";
    }

    private static String shown(JsonNode at) {
        String text = at.toString();
        return Shown.of(text.length() > SHOWN_VALUE ? text.substring(0, SHOWN_VALUE) + "…" : text);
    }
}

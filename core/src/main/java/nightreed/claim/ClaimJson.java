package nightreed.claim;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.claim.Claim.Moving;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.Movement;
import nightreed.measure.traits.SourceWave;

/** Claims and verdicts as JSON, in the layout that scripts rely on (docs/formats.md). */
public final class ClaimJson {
    private static final ObjectMapper MAPPER = new ObjectMapper();

    private ClaimJson() {}

    /** @throws IllegalArgumentException saying which claim is wrong, and how */
    public static List<Claim> parse(String json) {
        JsonNode all;
        try {
            all = MAPPER.readTree(json);
        } catch (JsonProcessingException e) {
            throw new IllegalArgumentException("the claims are no JSON: " + e.getOriginalMessage());
        }
        if (all == null || !all.isArray()) {
            throw new IllegalArgumentException("claims are a list: [{\"kind\":\"source\",\"wave\":\"saw\"}]");
        }
        List<Claim> out = new ArrayList<>();
        for (JsonNode o : all) {
            try {
                out.add(claim(o));
            } catch (IllegalArgumentException e) {
                throw new IllegalArgumentException("claim " + (out.size() + 1) + ": " + e.getMessage());
            }
        }
        return out;
    }

    private static Claim claim(JsonNode o) {
        return switch (text(o, "kind")) {
            case "movement" -> movement(o);
            case "source" -> new Claim.Source(one(SourceWave.Wave.class, text(o, "wave"), "wave"));
            case "slope" -> new Claim.Slope(number(o, "dbPerOctave"));
            case "attack" -> new Claim.Attack(one(AttackBy.Verdict.class, text(o, "by"), "by"));
            case "tuning" -> new Claim.Tuning(number(o, "cents"));
            case "echo" -> new Claim.Echoes(number(o, "seconds"));
            case "voices" -> new Claim.Voices((int) Math.rint(number(o, "count")));
            default ->
                throw new IllegalArgumentException(
                        "kind is movement, source, slope, attack, tuning, echo or voices, got " + o.get("kind"));
        };
    }

    private static Claim movement(JsonNode o) {
        Moving of = one(Moving.class, text(o, "of"), "of");
        if (o.path("absent").asBoolean(false)) {
            return new Claim.Still(of);
        }
        String shape = o.path("shape").asText("");
        Movement.Shape s = shape.isEmpty()
                ? null
                : shape.startsWith("step") ? Movement.Shape.STEPPED : one(Movement.Shape.class, shape, "shape");
        return new Claim.Moves(of, s, o.has("rateHz") ? (Double) number(o, "rateHz") : null);
    }

    private static <E extends Enum<E>> E one(Class<E> of, String text, String field) {
        for (E e : of.getEnumConstants()) {
            if (e.name().equalsIgnoreCase(text)) {
                return e;
            }
        }
        throw new IllegalArgumentException(field + " '" + text + "' is not known");
    }

    private static String text(JsonNode o, String field) {
        if (!o.path(field).isTextual()) {
            throw new IllegalArgumentException(field + " is missing");
        }
        return o.get(field).asText();
    }

    private static double number(JsonNode o, String field) {
        if (!o.path(field).isNumber()) {
            throw new IllegalArgumentException(field + " is missing, or no number");
        }
        return o.get(field).asDouble();
    }

    /** {@code [{"claim":{..},"words":..,"verdict":"supported|refuted|open","odds":..,"best":{..},"why":".."}]}. */
    public static ArrayNode tree(List<Verdict> verdicts) {
        ArrayNode out = new ArrayNode(JsonNodeFactory.instance);
        for (Verdict v : verdicts) {
            ObjectNode o = out.addObject();
            o.set("claim", tree(v.claim()));
            o.put("words", v.claim().words())
                    .put("verdict", v.answer().name().toLowerCase(Locale.ROOT))
                    .put("odds", v.odds());
            o.set("best", MAPPER.valueToTree(v.best()));
            o.put("why", v.why());
        }
        return out;
    }

    /** Claims as {@link #parse} reads them. */
    public static String text(List<Claim> claims) {
        ArrayNode out = new ArrayNode(JsonNodeFactory.instance);
        claims.forEach(c -> out.add(tree(c)));
        return out.toString();
    }

    /** As {@link #parse} reads it. */
    public static ObjectNode tree(Claim claim) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        if (claim instanceof Claim.Moves c) {
            o.put("kind", "movement").put("of", lower(c.of()));
            if (c.shape() != null) {
                o.put("shape", c.shape() == Movement.Shape.STEPPED ? "steps" : lower(c.shape()));
            }
            if (c.rateHz() != null) {
                o.put("rateHz", c.rateHz());
            }
        } else if (claim instanceof Claim.Still c) {
            o.put("kind", "movement").put("of", lower(c.of())).put("absent", true);
        } else if (claim instanceof Claim.Source c) {
            o.put("kind", "source").put("wave", c.wave().title());
        } else if (claim instanceof Claim.Slope c) {
            o.put("kind", "slope").put("dbPerOctave", c.dbPerOctave());
        } else if (claim instanceof Claim.Attack c) {
            o.put("kind", "attack").put("by", lower(c.by()));
        } else if (claim instanceof Claim.Tuning c) {
            o.put("kind", "tuning").put("cents", c.cents());
        } else if (claim instanceof Claim.Echoes c) {
            o.put("kind", "echo").put("seconds", c.seconds());
        } else if (claim instanceof Claim.Voices c) {
            o.put("kind", "voices").put("count", c.count());
        }
        return o;
    }

    private static String lower(Enum<?> e) {
        return e.name().toLowerCase(Locale.ROOT);
    }
}

package nightreed.voice.explain;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import nightreed.music.Pitch;
import nightreed.recipe.Recipe;

/** Tables as JSON, schema {@value #SCHEMA} (docs/formats.md). */
public final class ArithmeticJson {
    public static final String SCHEMA = "arithmetic-1";

    private ArithmeticJson() {}

    /** Indented JSON of all tables of a recipe on a key. */
    public static String text(Recipe recipe, int key) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        o.put("schema", SCHEMA)
                .put("method", recipe.method())
                .put("key", key)
                .put("keyHz", Pitch.hz(key + recipe.tuningCents() / 100))
                .put("sampleRateHz", Arithmetic.SAMPLE_RATE_HZ);
        ArrayNode tables = o.putArray("tables");
        for (Table t : Arithmetic.of(recipe, key)) {
            ObjectNode table = tables.addObject().put("title", t.title());
            ArrayNode columns = table.putArray("columns");
            t.columns().forEach(c -> columns.addObject().put("name", c.name()).put("unit", c.unit()));
            ArrayNode rows = table.putArray("rows");
            for (List<Double> row : t.rows()) {
                ArrayNode cells = rows.addArray();
                row.forEach(v -> cells.add(v));
            }
            ArrayNode remarks = table.putArray("remarks");
            t.remarks().forEach(remarks::add);
        }
        return o.toPrettyString();
    }
}

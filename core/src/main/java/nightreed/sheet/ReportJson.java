package nightreed.sheet;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import nightreed.match.Aspect;
import nightreed.match.Comparison;
import nightreed.match.Match;
import nightreed.match.Move;

/** Comparisons and matches as JSON, in the layout that scripts rely on (docs/formats.md). */
public final class ReportJson {
    private ReportJson() {}

    /** {@code {"totalJnd":..,"worstJnd":..,"worstAspect":..,"pitch":..,...}} */
    public static ObjectNode distance(Comparison c) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        o.put("totalJnd", c.totalJnd())
                .put("worstJnd", c.worstJnd())
                .put("worstAspect", c.worst().id());
        for (Aspect a : Aspect.values()) {
            o.put(a.id(), c.jnd(a));
        }
        return o;
    }

    public static ObjectNode report(Match m) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        o.put("method", m.recipe().method());
        o.set("distance", distance(m.comparison()));
        o.putArray("ranking")
                .addObject()
                .put("method", m.recipe().method())
                .put("totalJnd", m.comparison().totalJnd())
                .put("why", why(m));
        moves(m.moves(), o);
        o.put("seconds", m.seconds());
        return o;
    }

    private static void moves(List<Move> moves, ObjectNode o) {
        var array = o.putArray("moves");
        for (Move m : moves) {
            array.addObject()
                    .put("parameter", m.parameter().id())
                    .put("from", m.from())
                    .put("to", m.to())
                    .put("predictedJnd", m.predictedJnd())
                    .put("why", m.why());
        }
    }

    private static String why(Match m) {
        return m.recipe().modes().size() + " modes carry the partials the ear needs; "
                + (m.comparison().withinHearing()
                        ? "no aspect would be noticed"
                        : "what is left is heard first in the "
                                + m.comparison().worst().title());
    }
}

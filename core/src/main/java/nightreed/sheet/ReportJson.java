package nightreed.sheet;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import nightreed.match.Aspect;
import nightreed.match.Comparison;
import nightreed.match.Match;
import nightreed.match.Move;
import nightreed.match.fit.Adviser.Ranked;
import nightreed.match.fit.Layers.Layered;

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
        var ranking = o.putArray("ranking");
        for (Ranked r : m.ranking()) {
            ranking.addObject()
                    .put("method", r.fitted().method())
                    .put("totalJnd", r.fitted().comparison().totalJnd())
                    .put("worstJnd", r.fitted().comparison().worstJnd())
                    .put("worstAspect", r.fitted().comparison().worst().id())
                    .put("seconds", r.fitted().seconds())
                    .put("why", r.why());
        }
        moves(m.moves(), o);
        o.put("seconds", m.seconds());
        return o;
    }

    /** Adds what a second layer brought: {@code "layers":{"distance":..,"carries":[..]}}. */
    public static void layers(Layered two, ObjectNode report) {
        ObjectNode o = report.putObject("layers");
        o.set("distance", distance(two.comparison()));
        var carries = o.putArray("carries");
        two.carries().forEach(carries::add);
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
}

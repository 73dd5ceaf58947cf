package nightreed.sheet;

import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import java.util.Locale;
import nightreed.machine.Machine;
import nightreed.match.Match;
import nightreed.match.advice.Adviser.Ranked;
import nightreed.match.advice.LimitCosts.Price;
import nightreed.match.advice.Move;
import nightreed.match.compare.Comparison;
import nightreed.match.fit.JointFit.Heard;
import nightreed.match.fit.JointFit.Result;
import nightreed.match.fit.Layers.Layered;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.hearing.Aspect;
import nightreed.recipe.size.PatchSize;

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
        o.put("size", m.size());
        if (PatchSize.followsRecording(m.recipe())) {
            o.put("follows", "the recording");
        }
        o.set("distance", distance(m.comparison()));
        frontier(m.frontier(), o);
        var ranking = o.putArray("ranking");
        for (Ranked r : m.ranking()) {
            ranking.addObject()
                    .put("method", r.fitted().method())
                    .put("size", PatchSize.of(r.fitted().recipe()))
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

    private static void frontier(Frontier frontier, ObjectNode report) {
        var points = report.putArray("frontier");
        for (Point p : frontier.points()) {
            points.addObject()
                    .put("method", p.method())
                    .put("size", p.size())
                    .put("totalJnd", p.totalJnd())
                    .put("recipe", frontierFile(points.size()));
        }
    }

    /** Name of the file for a point of the frontier, from 1, beside the report. */
    public static String frontierFile(int point) {
        return String.format(Locale.ROOT, "frontier/%02d.json", point);
    }

    /** Adds what a second layer brought: {@code "layers":{"distance":..,"carries":[..]}}. */
    public static void layers(Layered two, ObjectNode report) {
        ObjectNode o = report.putObject("layers");
        o.set("distance", distance(two.comparison()));
        var carries = o.putArray("carries");
        two.carries().forEach(carries::add);
    }

    /** Adds {@code "machine":{"name":..,"prices":[{"feature":..,"jnd":..,"words":..}]}}. */
    public static void machine(Machine machine, List<Price> prices, ObjectNode report) {
        ObjectNode o = report.putObject("machine");
        o.put("name", machine.name());
        var array = o.putArray("prices");
        for (Price p : prices) {
            array.addObject()
                    .put("feature", p.feature().name().toLowerCase(Locale.ROOT))
                    .put("jnd", p.jnd())
                    .put("words", p.words());
        }
    }

    /**
     * {@code {"method":..,"size":..,"meanJnd":..,"frontier":[..],"notes":[..],"maps":{..},"seconds":..}}; distances of the frontier are
     * means over the notes.
     *
     * @param names of the recordings
     */
    public static ObjectNode together(Result r, Frontier frontier, List<String> names) {
        ObjectNode o = new ObjectNode(JsonNodeFactory.instance);
        o.put("method", r.recipe().method())
                .put("size", PatchSize.of(r.recipe()))
                .put("meanJnd", r.meanJnd());
        frontier(frontier, o);
        var notes = o.putArray("notes");
        for (int i = 0; i < r.notes().size(); i++) {
            Heard h = r.notes().get(i);
            notes.addObject()
                    .put("recording", names.get(i))
                    .put("key", h.note().key())
                    .put("strength", h.note().velocity())
                    .put("levelDb", h.levelDb())
                    .set("distance", distance(h.comparison()));
        }
        ObjectNode maps = o.putObject("maps");
        r.maps().forEach(maps::put);
        o.put("seconds", r.seconds());
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
}

package nightreed.project;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.DeserializationFeature;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import nightreed.claim.ClaimJson;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.hearing.AspectWeights;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;

/** How recipes, snapshots and takes stand in the columns of a project, and how they are read from there. */
final class StoredValues {
    private final ObjectMapper mapper = JsonMapper.builder()
            .disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES) // measurements of older versions held others
            .build();

    Measurement measurement(String json) throws JsonProcessingException {
        return mapper.treeToValue(OldMeasurement.inGroups(mapper.readTree(json)), Measurement.class);
    }

    /** A recipe by itself is written as it always was. */
    static String text(Patch patch) {
        return patch.isOne() ? RecipeJson.text(patch.first()) : RecipeJson.text(patch);
    }

    String text(Record decided) throws SQLException {
        try {
            return mapper.writeValueAsString(decided);
        } catch (JsonProcessingException e) {
            throw new SQLException("what was decided by hand cannot be written: " + e.getMessage(), e);
        }
    }

    String write(Object value) throws UnusableProject {
        try {
            return mapper.writeValueAsString(value);
        } catch (JsonProcessingException e) {
            throw new UnusableProject("A result could not be stored: " + e.getOriginalMessage(), e);
        }
    }

    Take take(ResultSet r) throws SQLException {
        double worst = r.getDouble(7);
        Double worstJnd = r.wasNull() ? null : (Double) worst;
        String json = r.getString(8);
        try {
            TakePicture picture = json == null ? null : mapper.readValue(json, TakePicture.class);
            return new Take(
                    r.getLong(1),
                    r.getString(2),
                    r.getString(3),
                    r.getString(4),
                    r.getDouble(5),
                    r.getString(6),
                    worstJnd,
                    picture,
                    patch(r.getString(9)));
        } catch (JsonProcessingException e) {
            throw new SQLException("the picture of take '" + r.getString(2) + "' is damaged", e);
        }
    }

    Snapshot snapshot(ResultSet r) throws SQLException {
        long recording = r.getLong(1);
        Long id = r.wasNull() ? null : (Long) recording;
        String hand = r.getString(5);
        String locked = r.getString(6);
        String marks = r.getString(7);
        String claims = r.getString(9);
        Patch patch = patch(r.getString(2));
        Patch fitted = patch(r.getString(3));
        try {
            return new Snapshot(
                    id,
                    patch,
                    fitted,
                    r.getInt(8),
                    r.getString(4),
                    hand == null ? ManualCorrections.NONE : mapper.readValue(hand, ManualCorrections.class),
                    locked == null ? Set.of() : Set.of(locked.split(" ")),
                    marks == null ? AspectWeights.NONE : mapper.readValue(marks, AspectWeights.class),
                    claims == null ? List.of() : ClaimJson.parse(claims));
        } catch (IllegalArgumentException e) {
            throw new SQLException("the claims are damaged: " + e.getMessage(), e);
        } catch (JsonProcessingException e) {
            throw new SQLException("what was decided by hand is damaged: " + e.getMessage(), e);
        }
    }

    /** A point of a frontier as it is stored. */
    private record PointColumn(int size, double totalJnd, JsonNode recipe) {}

    String text(Frontier frontier) throws UnusableProject {
        return write(frontier.points().stream()
                .map(p -> new PointColumn(p.size(), p.totalJnd(), RecipeJson.tree(p.recipe())))
                .toList());
    }

    Frontier frontier(String json) throws SQLException {
        try {
            List<Point> points = new ArrayList<>();
            for (PointColumn p : mapper.readValue(json, PointColumn[].class)) {
                points.add(new Point(p.size, RecipeJson.parse(p.recipe.toString(), "a stored recipe"), p.totalJnd));
            }
            return new Frontier(points);
        } catch (JsonProcessingException | UnusableRecipe | IllegalArgumentException e) {
            throw new SQLException("the frontier of patches is damaged: " + e.getMessage(), e);
        }
    }

    private static Patch patch(String json) throws SQLException {
        if (json == null) {
            return null;
        }
        try {
            return RecipeJson.parsePatch(json, "a stored recipe");
        } catch (UnusableRecipe e) {
            throw new SQLException(e.getMessage(), e);
        }
    }
}

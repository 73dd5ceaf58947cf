package nightreed.project;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.lang.reflect.RecordComponent;
import java.util.Set;
import nightreed.measure.ClipFacts;
import nightreed.measure.HeardPitch;
import nightreed.measure.Measurement;
import nightreed.measure.PartialSet;
import nightreed.measure.RoomFacts;
import nightreed.measure.StrikeFacts;

/**
 * Measurements as projects held them before their values stood in groups. The values had the names that they have now, so
 * each moves into the group whose record has a component of that name.
 */
final class OldMeasurement {
    private static final Set<Class<?>> GROUPS =
            Set.of(ClipFacts.class, HeardPitch.class, PartialSet.class, StrikeFacts.class, RoomFacts.class);

    private OldMeasurement() {}

    /** The same measurement with its values in groups. One that has groups is left as it is. */
    static JsonNode inGroups(JsonNode stored) {
        if (stored.has("onsetSeconds")) {
            for (RecordComponent group : Measurement.class.getRecordComponents()) {
                if (GROUPS.contains(group.getType())) {
                    moveInto(group, (ObjectNode) stored);
                }
            }
        }
        return stored;
    }

    private static void moveInto(RecordComponent group, ObjectNode measurement) {
        ObjectNode values = measurement.objectNode();
        for (RecordComponent value : group.getType().getRecordComponents()) {
            values.set(value.getName(), measurement.remove(value.getName()));
        }
        measurement.set(group.getName(), values);
    }
}

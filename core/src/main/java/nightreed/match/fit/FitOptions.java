package nightreed.match.fit;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nightreed.machine.Machine;
import nightreed.match.method.Methods;
import nightreed.match.start.Method;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;

/**
 * What a fit is to keep to.
 *
 * @param recipe  whose locked values stay, and which a fit may go on from; null if there is none
 * @param onward  whether to go on from it, and not begin with what was measured
 * @param around  what it sounds in, where a fit goes on: its first layer is what is fitted, the others stay; null for nothing
 * @param locked  values that stay as they are in it, by id
 * @param seconds that a fit may take; infinite for as long as it needs
 * @param machine that has to play what is found
 * @param effort  share of the usual number of renders
 * @param follows whether bands may take their courses from the recording, which no hand can set
 * @param settled values that a search leaves, since they are known better than its ear could tell, by id
 */
@RecordBuilder
public record FitOptions(
        Recipe recipe,
        boolean onward,
        Patch around,
        Set<String> locked,
        double seconds,
        Machine machine,
        double effort,
        boolean follows,
        Set<String> settled)
        implements FitOptionsBuilder.With {
    /** Afresh, nothing locked, as long as it needs, for no machine in particular. */
    public static final FitOptions USUAL =
            new FitOptions(null, false, null, Set.of(), Double.POSITIVE_INFINITY, Machine.ANY, 1, false, Set.of());

    public FitOptions {
        locked = Set.copyOf(locked);
        settled = Set.copyOf(settled);
    }

    /** Whether a fit may not take as long as it needs. */
    public boolean isLimited() {
        return seconds < Double.POSITIVE_INFINITY;
    }

    /** The same with another limit [s]. */
    public FitOptions within(double limit) {
        return withSeconds(limit);
    }

    /** Afresh, but with some values as they are in a recipe. */
    public FitOptions keeping(Recipe like, Set<String> ids) {
        return with(b -> b.recipe(like).onward(false).around(null).locked(ids));
    }

    /** On from a recipe, without moving some of its values. */
    public FitOptions from(Recipe here, Set<String> ids) {
        return with(b -> b.recipe(here).onward(true).around(null).locked(ids));
    }

    /** On from the first layer of a patch, beside the others. */
    public FitOptions from(Patch here, Set<String> ids) {
        Patch others = here.isOne() ? null : here;
        return with(b -> b.recipe(here.first()).onward(true).around(others).locked(ids));
    }

    /** Without moving frequencies of pairs by which lines beat slowly. */
    public FitOptions keepingBeats(Recipe r) {
        Set<String> ids = Method.searched(r).stream()
                .filter(id -> id.equals("tune") || id.endsWith(".carrierRatio") || id.endsWith(".modulatorRatio"))
                .collect(Collectors.toSet());
        return withSettled(ids);
    }

    /** Values of a recipe that a search may move together, stage by stage. */
    public List<List<String>> stages(Recipe r) {
        List<String> mix = around == null ? List.of() : List.of("level");
        return Methods.of(r).stages(r).stream()
                .map(s -> Stream.concat(s.stream(), mix.stream())
                        .filter(id -> !locked.contains(id) && !settled.contains(id))
                        .toList())
                .toList();
    }

    /** Those of the first stage, which tell most. */
    public List<String> main(Recipe r) {
        return stages(r).get(0);
    }

    /** A recipe with what sounds beside it. */
    public Patch with(Recipe first) {
        return around == null ? Patch.of(first) : around.withFirst(first);
    }

    /** Whether the level is whatever makes it as loud as the recording: not if it is locked, or says how two are mixed. */
    public boolean isLevelFree() {
        return around == null && !locked.contains("level");
    }

    /** For a machine; what is locked gives way to what it cannot do. */
    public FitOptions on(Machine other) {
        return withMachine(other);
    }

    /** With another share of the usual number of renders. */
    public FitOptions trying(double share) {
        return withEffort(share);
    }

    /** With bands that take their courses from the recording. */
    public FitOptions following() {
        return withFollows(true);
    }

    /** Another recipe with the locked values as they are. */
    public Recipe kept(Recipe other) {
        Recipe r = other;
        for (Recipe.Setting s : recipe == null ? List.<Recipe.Setting>of() : recipe.settings()) {
            String id = s.parameter().id();
            boolean there =
                    r.settings().stream().anyMatch(o -> o.parameter().id().equals(id));
            if (locked.contains(id) && there) {
                r = r.with(id, s.value());
            }
        }
        return r;
    }
}

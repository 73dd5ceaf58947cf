package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Structure;

/**
 * One element of a list of a recipe put in, taken out, doubled or moved. What refers to elements by their number, such as a
 * macro or a lock, goes along with them.
 *
 * @param kind what is done
 * @param list first part of the ids of the list's values, such as {@code mode}
 * @param at   place of the element, from 1; for {@link Kind#ADD} that of the new one, which is the last
 * @param to   place that it comes to; as {@code at} if it is not moved
 */
public record ListChange(Kind kind, String list, int at, int to) {
    /** Below the level of now, where a new macro begins [dB]. */
    private static final double MACRO_DB = 24;

    /** What can be done. */
    public enum Kind {
        ADD("add"),
        REMOVE("take out"),
        DOUBLE("double"),
        MOVE("move");

        private final String title;

        Kind(String title) {
            this.title = title;
        }
    }

    /** With one more at the end. */
    public static ListChange add(Recipe recipe, String list) {
        Structure.Listed there = Structure.list((Record) recipe, list);
        int last = there == null ? 1 : there.size() + 1;
        return new ListChange(Kind.ADD, list, last, last);
    }

    public static ListChange remove(String list, int at) {
        return new ListChange(Kind.REMOVE, list, at, at);
    }

    /** With a copy of it behind it. */
    public static ListChange twice(String list, int at) {
        return new ListChange(Kind.DOUBLE, list, at, at);
    }

    public static ListChange move(String list, int from, int to) {
        return new ListChange(Kind.MOVE, list, from, to);
    }

    /** What it is called in the history of a recipe, such as "take out mode 3". */
    public String label(Recipe recipe) {
        Structure.Listed there = Structure.list((Record) recipe, list);
        String name = there == null ? list : there.name();
        return kind.title + " " + name + " " + at + (kind == Kind.MOVE ? " to " + to : "");
    }

    /** @throws IllegalArgumentException if the recipe has no such list or place, or the list would be too long or too short */
    public Recipe on(Recipe recipe) {
        Record r = (Record) recipe;
        Record edited = switch (kind) {
            case ADD -> added(recipe);
            case REMOVE -> Structure.removed(list.equals("macro") ? settled(recipe) : r, list, at);
            case DOUBLE -> Structure.doubled(r, list, at);
            case MOVE -> Structure.moved(r, list, at, to);
        };
        Recipe changed = (Recipe) edited;
        List<Macro> macros = changed.common().macros().stream()
                .map(this::renamed)
                .filter(Objects::nonNull)
                .toList();
        return macros.equals(changed.common().macros())
                ? changed
                : changed.withCommon(changed.common().withMacros(macros));
    }

    private Record added(Recipe recipe) {
        if (list.equals("macro")) {
            return withMacro(recipe);
        }
        boolean needsLfo = list.equals("route") && recipe.common().first() == null; // or it would come from nothing
        Recipe from = needsLfo ? recipe.withCommon(recipe.common().withFirst(Lfo.USUAL)) : recipe;
        return Structure.added((Record) from, list);
    }

    /** With the values of the macro where it has them, so that nothing jumps when it is gone. */
    private Record settled(Recipe recipe) {
        List<Macro> macros = recipe.common().macros();
        return at > macros.size() ? (Record) recipe : macros.get(at - 1).on((Record) recipe);
    }

    /** A macro for the level, up to where it is now. */
    private Record withMacro(Recipe recipe) {
        double now = recipe.levelDb();
        Macro swell = new Macro("macro " + at, 1, List.of(new Macro.Aim("level", now - MACRO_DB, now, 0)));
        return Structure.put((Record) recipe, list, at, swell);
    }

    /** Null if nothing is left that it moves. */
    private Macro renamed(Macro m) {
        List<Macro.Aim> aims = new ArrayList<>();
        for (Macro.Aim a : m.targets()) {
            String id = renamed(a.parameter());
            if (id != null) {
                aims.add(new Macro.Aim(id, a.from(), a.to(), a.curve(), a.points()));
            }
        }
        return aims.isEmpty() ? null : aims.equals(m.targets()) ? m : new Macro(m.name(), m.amount(), aims);
    }

    /** What values are called after it; those that are gone are left out. */
    public Set<String> renamed(Set<String> ids) {
        Set<String> out = new TreeSet<>();
        for (String id : ids) {
            String now = renamed(id);
            if (now != null) {
                out.add(now);
            }
        }
        return out;
    }

    /** What a value is called after it; null if it is gone. */
    public String renamed(String id) {
        String head = list + ".";
        int end = id.startsWith(head) ? id.indexOf('.', head.length()) : -1;
        if (end < 0 || !id.substring(head.length(), end).matches("\\d{1,6}")) {
            return id;
        }
        int was = Integer.parseInt(id.substring(head.length(), end));
        int now = switch (kind) {
            case ADD -> was;
            case REMOVE -> was == at ? 0 : was > at ? was - 1 : was;
            case DOUBLE -> was > at ? was + 1 : was;
            case MOVE -> was == at ? to : was - (was > at ? 1 : 0) + (was - (was > at ? 1 : 0) >= to ? 1 : 0);
        };
        return now == 0 ? null : head + now + id.substring(end);
    }
}

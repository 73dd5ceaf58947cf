package nightreed.recipe.part;

import java.util.ArrayList;
import java.util.List;

/**
 * The lists in a record, such as modes, pairs or routes, and their elements put in, taken out, doubled and moved. A list is
 * named by what the ids of its values begin with, an element by its place in it, from 1: {@code mode}, 3.
 */
public final class Structure {
    private Structure() {}

    /**
     * A list in a record.
     *
     * @param id    first part of the ids of its values
     * @param name  what people call one element
     * @param size  elements that are there
     * @param least fewest that it can have
     * @param most  most that it can have
     */
    public record Listed(String id, String name, Parameter.Group group, int size, int least, int most) {
        public boolean hasRoom() {
            return size < most;
        }

        public boolean canLose() {
            return size > least;
        }
    }

    /** What is done with the elements of one list. */
    private interface Edit {
        void on(List<Object> elements, Class<?> kind);
    }

    /** All lists that can be made longer or shorter, in the order of the record. */
    public static List<Listed> lists(Record record) {
        List<Listed> out = new ArrayList<>();
        lists(record, Place.TOP, out);
        return out;
    }

    private static void lists(Object record, Place at, List<Listed> out) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            RecordShape.PartSpec part = s.parts[i];
            Object v = part == null ? null : s.get(record, i);
            if (v == null) {
                continue;
            }
            Place p = at.into(part, 0);
            if (v instanceof List<?> list) {
                if (part.most() > 0) {
                    out.add(new Listed(p.id(), p.name(), p.group(), list.size(), part.least(), part.most()));
                }
                for (int k = 0; k < list.size(); k++) {
                    lists(list.get(k), at.into(part, k + 1), out);
                }
            } else {
                lists(v, p, out);
            }
        }
    }

    /** The list of an id; null if the record has none. */
    public static Listed list(Record record, String id) {
        return lists(record).stream().filter(l -> l.id().equals(id)).findFirst().orElse(null);
    }

    /** Elements of a list. @throws IllegalArgumentException if the record has no such list */
    public static List<Record> elements(Record record, String list) {
        List<Record> out = new ArrayList<>();
        edited(record, list, (all, kind) -> all.forEach(e -> out.add((Record) e)));
        return List.copyOf(out);
    }

    /**
     * With one more element at the end, in the form that stands to reason there.
     *
     * @throws IllegalArgumentException if there is no such list, or no room in it
     */
    public static <R extends Record> R added(R record, String list) {
        return edited(record, list, (all, kind) -> all.add(another(all, kind, list)));
    }

    private static Object another(List<Object> all, Class<?> kind, String list) {
        if (!all.isEmpty() && all.get(all.size() - 1) instanceof Repeatable last) {
            return last.next();
        }
        Object usual = ParameterAccess.usual(kind);
        if (usual == null) {
            throw new IllegalArgumentException("nothing is known that an empty list of '" + list + "' begins with");
        }
        return usual;
    }

    /** With another element at a place, from 1. @throws IllegalArgumentException as for {@link #added(Record, String)} */
    public static <R extends Record> R put(R record, String list, int at, Record element) {
        return edited(record, list, (all, kind) -> all.add(between(at, 1, all.size() + 1) - 1, kind.cast(element)));
    }

    /** Without an element. @throws IllegalArgumentException if it is not there, or the list needs it */
    public static <R extends Record> R removed(R record, String list, int at) {
        return edited(record, list, (all, kind) -> all.remove(between(at, 1, all.size()) - 1));
    }

    /** With a copy behind an element. @throws IllegalArgumentException if it is not there, or the list has no room */
    public static <R extends Record> R doubled(R record, String list, int at) {
        return edited(record, list, (all, kind) -> {
            Object e = all.get(between(at, 1, all.size()) - 1);
            all.add(at, e instanceof Repeatable r ? r.twin() : e);
        });
    }

    /** With an element at another place. @throws IllegalArgumentException if one of the two is not there */
    public static <R extends Record> R moved(R record, String list, int from, int to) {
        return edited(record, list, (all, kind) -> {
            Object e = all.remove(between(from, 1, all.size()) - 1);
            all.add(between(to, 1, all.size() + 1) - 1, e);
        });
    }

    /** With other elements in a list. @throws IllegalArgumentException if they are too many, too few, or of another kind */
    public static <R extends Record> R filled(R record, String list, List<? extends Record> elements) {
        return edited(record, list, (all, kind) -> {
            all.clear();
            elements.forEach(e -> all.add(kind.cast(e)));
        });
    }

    private static int between(int at, int least, int most) {
        if (at < least || at > most) {
            throw new IllegalArgumentException("there is no place " + at + " among " + most);
        }
        return at;
    }

    @SuppressWarnings("unchecked") // the constructor of the same class makes the same class
    private static <R extends Record> R edited(R record, String list, Edit edit) {
        Object changed = edited(record, Place.TOP, list, edit);
        if (changed == null) {
            throw new IllegalArgumentException("there is no list '" + list + "'");
        }
        return (R) changed;
    }

    /** @return null if the list does not lie here */
    private static Object edited(Object record, Place at, String list, Edit edit) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            RecordShape.PartSpec part = s.parts[i];
            Object v = part == null ? null : s.get(record, i);
            if (v == null) {
                continue;
            }
            Place p = at.into(part, 0);
            if (v instanceof List<?> elements) {
                if (p.id().equals(list) && part.most() > 0) {
                    return s.with(record, i, edited(elements, part, edit));
                }
            } else {
                Object changed = edited(v, p, list, edit);
                if (changed != null) {
                    return s.with(record, i, changed);
                }
            }
        }
        return null;
    }

    private static List<Object> edited(List<?> elements, RecordShape.PartSpec part, Edit edit) {
        List<Object> all = new ArrayList<>(elements);
        edit.on(all, part.element());
        if (all.size() > elements.size() && all.size() > part.most()) {
            throw new IllegalArgumentException("there is room for " + part.most() + " " + plural(part));
        }
        if (all.size() < elements.size() && all.size() < part.least()) {
            throw new IllegalArgumentException(
                    "at least " + part.least() + " " + (part.least() == 1 ? part.name() : plural(part)) + " must stay");
        }
        return all;
    }

    private static String plural(RecordShape.PartSpec part) {
        return part.name() + "s";
    }
}

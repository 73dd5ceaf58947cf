package nightreed.recipe.part;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Reads and changes the values of a record by the descriptions at its components ({@link ParameterSpec}, {@link Part}). Not for the
 * audio thread: it looks things up and allocates.
 */
public final class ParameterAccess {
    private ParameterAccess() {}

    /** One value of a record. */
    public record Reading(Parameter parameter, double value) {}

    /** Every value of a record and its parts: by group in the order the sound travels, then as declared. */
    public static List<Reading> of(Record record) {
        List<Reading> out = new ArrayList<>();
        read(record, Place.TOP, out);
        out.sort((a, b) -> a.parameter().group().compareTo(b.parameter().group()));
        return out;
    }

    private static void read(Object record, Place at, List<Reading> out) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            if (s.dials[i] == null && s.parts[i] == null) {
                continue;
            }
            Object v = s.get(record, i);
            if (v == null) {
                continue;
            }
            if (s.dials[i] != null) {
                out.add(new Reading(parameter(record, at, s, i), number(v)));
            } else if (v instanceof List<?> list) {
                for (int k = 0; k < list.size(); k++) {
                    read(list.get(k), at.into(s.parts[i], k + 1).named(list.get(k)), out);
                }
            } else {
                read(v, at.into(s.parts[i], 0), out);
            }
        }
    }

    private static Parameter parameter(Object record, Place at, RecordShape s, int i) {
        Parameter p = at.parameter(s, i);
        return record instanceof Refined r ? r.refined(s.components[i].getName(), p) : p;
    }

    /**
     * The same record with one value changed; one outside its range is held at the range's end.
     *
     * @return null if the record has no value of that id
     */
    @SuppressWarnings("unchecked") // the constructor of the same class makes the same class
    public static <R extends Record> R with(R record, String id, double value) {
        return (R) change(record, Place.TOP, id, value);
    }

    private static Object change(Object record, Place at, String id, double value) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            Object v = s.dials[i] == null && s.parts[i] == null ? null : s.get(record, i);
            if (v == null) {
                continue;
            }
            if (s.dials[i] != null) {
                if (at.id(s, i).equals(id)) {
                    double held = parameter(record, at, s, i).clamp(value);
                    return s.with(record, i, typed(s.components[i].getType(), held));
                }
            } else if (v instanceof List<?> list) {
                for (int k = 0; k < list.size(); k++) {
                    Place there = at.into(s.parts[i], k + 1);
                    Object moved = there.mayHold(id) ? change(list.get(k), there, id, value) : null;
                    if (moved != null) {
                        List<Object> all = new ArrayList<>(list);
                        all.set(k, moved);
                        return s.with(record, i, all);
                    }
                }
            } else {
                Place there = at.into(s.parts[i], 0);
                Object moved = there.mayHold(id) ? change(v, there, id, value) : null;
                if (moved != null) {
                    return s.with(record, i, moved);
                }
            }
        }
        return null;
    }

    /**
     * A part of a record.
     *
     * @param id    first part of the ids of its values
     * @param name  what people call it
     * @param group where its values stand
     */
    public record Found<T extends Record>(String id, String name, Parameter.Group group, T part) {}

    /** All parts of a kind that are there, in the order of the record. */
    public static <T extends Record> List<Found<T>> parts(Record record, Class<T> kind) {
        List<Found<T>> out = new ArrayList<>();
        parts(record, Place.TOP, kind, out);
        return out;
    }

    private static <T extends Record> void parts(Record record, Place at, Class<T> kind, List<Found<T>> out) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            Object v = s.parts[i] == null ? null : s.get(record, i);
            List<?> all = elements(v);
            for (int k = 0; k < all.size(); k++) {
                Place p = at.into(s.parts[i], v instanceof List<?> ? k + 1 : 0);
                if (kind.isInstance(all.get(k))) {
                    out.add(new Found<>(p.id(), p.name(), p.group(), kind.cast(all.get(k))));
                }
                parts((Record) all.get(k), p, kind, out);
            }
        }
    }

    /** The record with one of its parts, this very one, exchanged; unchanged if it is not in it. */
    @SuppressWarnings("unchecked") // the constructor of the same class makes the same class
    public static <R extends Record> R exchanged(R record, Record part, Record by) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            Object v = s.parts[i] == null ? null : s.get(record, i);
            if (v instanceof List<?> list) {
                List<Object> all = new ArrayList<>(list);
                all.replaceAll(e -> e == part ? by : exchanged((Record) e, part, by));
                if (!same(all, list)) {
                    return (R) s.with(record, i, all);
                }
            } else if (v instanceof Record inner) {
                Record changed = inner == part ? by : exchanged(inner, part, by);
                if (changed != inner) {
                    return (R) s.with(record, i, changed);
                }
            }
        }
        return record;
    }

    private static boolean same(List<?> a, List<?> b) {
        for (int i = 0; i < a.size(); i++) {
            if (a.get(i) != b.get(i)) {
                return false;
            }
        }
        return true;
    }

    /** A part that a record may have and has not. @param id of its values @param name what people call it */
    public record Absent(String id, String name) {}

    /** Parts that are not there and can be added, in the order of the record. */
    public static List<Absent> absent(Record record) {
        List<Absent> out = new ArrayList<>();
        absent(record, Place.TOP, out);
        return out;
    }

    private static void absent(Object record, Place at, List<Absent> out) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            if (s.parts[i] == null) {
                continue;
            }
            Object v = s.get(record, i);
            Class<?> type = s.components[i].getType();
            if (v == null && usual(type) != null) {
                Place p = at.into(s.parts[i], 0);
                out.add(new Absent(p.id(), called(p, type)));
            } else {
                List<?> inside = elements(v);
                for (int k = 0; k < inside.size(); k++) {
                    absent(inside.get(k), at.into(s.parts[i], v instanceof List<?> ? k + 1 : 0), out);
                }
            }
        }
    }

    /** What lies in a component: the elements of a list, or the one part that is there. */
    private static List<?> elements(Object v) {
        return v instanceof List<?> list ? list : v == null ? List.of() : List.of(v);
    }

    private static String called(Place p, Class<?> type) {
        String own =
                type == Exciter.class ? "strike noise" : type.getSimpleName().toLowerCase(Locale.ROOT);
        return p.name().isEmpty() ? own : p.name();
    }

    /** Parts that are there and can be taken out, in the order of the record. */
    public static List<Absent> optional(Record record) {
        List<Absent> out = new ArrayList<>();
        optional(record, record, Place.TOP, out);
        return out;
    }

    private static void optional(Record whole, Object record, Place at, List<Absent> out) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            Object v = s.parts[i] == null ? null : s.get(record, i);
            if (v instanceof Record) {
                Place p = at.into(s.parts[i], 0);
                if (usual(s.components[i].getType()) != null && !p.id().isEmpty() && canDoWithout(whole, p.id())) {
                    out.add(new Absent(p.id(), called(p, s.components[i].getType())));
                }
            }
            List<?> inside = elements(v);
            for (int k = 0; k < inside.size(); k++) {
                optional(whole, inside.get(k), at.into(s.parts[i], v instanceof List<?> ? k + 1 : 0), out);
            }
        }
    }

    private static boolean canDoWithout(Record whole, String id) {
        try {
            Record less = removed(whole, id);
            return less != whole && absent(less).stream().anyMatch(a -> a.id().equals(id));
        } catch (IllegalArgumentException needed) {
            return false;
        }
    }

    /** The record with a part in its usual form; unchanged if it cannot have it, or has it already. */
    @SuppressWarnings("unchecked") // the constructor of the same class makes the same class
    public static <R extends Record> R added(R record, String id) {
        return (R) placed(record, Place.TOP, id, true);
    }

    /** The record without a part; unchanged if it is not there. */
    @SuppressWarnings("unchecked") // the constructor of the same class makes the same class
    public static <R extends Record> R removed(R record, String id) {
        return (R) placed(record, Place.TOP, id, false);
    }

    private static Object placed(Object record, Place at, String id, boolean there) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            if (s.parts[i] == null) {
                continue;
            }
            Object v = s.get(record, i);
            Class<?> type = s.components[i].getType();
            Place p = at.into(s.parts[i], 0);
            if (type.isRecord() && p.id().equals(id) && (v == null) == there && usual(type) != null) {
                return s.with(record, i, there ? usual(type) : null);
            }
            if (v instanceof Record r) {
                Object changed = placed(r, p, id, there);
                if (changed != r) {
                    return s.with(record, i, changed);
                }
            } else if (v instanceof List<?> list) {
                for (int k = 0; k < list.size(); k++) {
                    Place inside = at.into(s.parts[i], k + 1);
                    Object changed = inside.mayHold(id) ? placed(list.get(k), inside, id, there) : list.get(k);
                    if (changed != list.get(k)) {
                        List<Object> all = new ArrayList<>(list);
                        all.set(k, changed);
                        return s.with(record, i, all);
                    }
                }
            }
        }
        return record;
    }

    /** What a part begins with; null if it cannot be added by itself. */
    static Object usual(Class<?> type) {
        try {
            return type.isRecord() ? type.getField("USUAL").get(null) : null;
        } catch (NoSuchFieldException e) {
            return null;
        } catch (IllegalAccessException e) {
            throw new IllegalStateException(e);
        }
    }

    static double number(Object v) {
        if (v instanceof Boolean b) {
            return b ? 1 : 0;
        }
        if (v instanceof Enum<?> e) {
            return List.of(e.getDeclaringClass().getEnumConstants()).indexOf(e);
        }
        return ((Number) v).doubleValue();
    }

    private static Object typed(Class<?> type, double v) {
        if (type == boolean.class) {
            return v >= 0.5;
        }
        if (type.isEnum()) {
            return type.getEnumConstants()[(int) Math.round(v)];
        }
        return type == int.class ? (Object) (int) Math.round(v) : (Object) v;
    }

    /**
     * To be called by the constructor of a described record.
     *
     * @param values all components in order
     * @throws IllegalArgumentException naming the first value that lies outside its range, or is not there
     */
    public static void check(Class<? extends Record> type, Object... values) {
        RecordShape s = RecordShape.of(type);
        for (int i = 0; i < values.length; i++) {
            RecordShape.Spec d = s.dials[i];
            if (d == null) {
                continue;
            }
            if (values[i] == null) {
                throw new IllegalArgumentException(d.name() + " is missing");
            }
            if (values[i] instanceof Number n) {
                Range.check(d.name(), n.doubleValue(), d.leastEver(), d.mostEver(), d.unit());
            }
        }
    }
}

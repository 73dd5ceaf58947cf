package nightreed.recipe.part;

import java.util.ArrayList;
import java.util.List;

/** What has to be set to get a recipe: values that make a difference and are not neutral. */
public final class SetValues {
    private SetValues() {}

    /**
     * One that has to be set.
     *
     * @param list      first part of the ids of the list it lies in, such as {@code mode}; empty outside of lists
     * @param element   place in that list, from 1; 0 outside of lists
     * @param component last part of its id, such as {@code t60}
     * @param tie       the same for values that are equal and belong together: the same one of a list's elements, or of
     *                  envelopes that are equal
     */
    public record SetValue(Parameter parameter, double value, String list, int element, String component, String tie) {
        public String id() {
            return parameter.id();
        }
    }

    /** In the order of the record. */
    public static List<SetValue> of(Record record) {
        List<SetValue> out = new ArrayList<>();
        walk(record, Place.TOP, new Context(List.of(), "", 0), new ArrayList<>(), out);
        return out;
    }

    /** Values that are neutral for a parameter of a record; none if it always has to be set. */
    public static List<Double> neutral(Record record, String id) {
        return neutral(record, Place.TOP, id);
    }

    private static List<Double> neutral(Object record, Place at, String id) {
        RecordShape s = RecordShape.of(record.getClass());
        for (int i = 0; i < s.components.length; i++) {
            Object v = s.dials[i] == null && s.parts[i] == null ? null : s.get(record, i);
            if (v == null) {
                continue;
            }
            if (s.dials[i] != null) {
                if (at.id(s, i).equals(id)) {
                    return s.dials[i].neutral();
                }
                continue;
            }
            List<?> all = v instanceof List<?> list ? list : List.of(v);
            for (int k = 0; k < all.size(); k++) {
                Place there = at.into(s.parts[i], v instanceof List<?> ? k + 1 : 0);
                List<Double> found = there.mayHold(id) ? neutral(all.get(k), there, id) : List.of();
                if (!found.isEmpty()) {
                    return found;
                }
            }
        }
        return List.of();
    }

    /** Where a walk is: what it lies in, and which element of which list it is in. */
    private record Context(List<Above> above, String list, int element) {
        Context into(Object record, Place at) {
            if (!(record instanceof PartlyIdle idle)) {
                return this;
            }
            List<Above> more = new ArrayList<>(above);
            more.add(new Above(idle, at.id()));
            return new Context(more, list, element);
        }

        boolean isIdle(String id) {
            for (Above a : above) {
                if (!a.record.inEffect(a.id.isEmpty() ? id : id.substring(a.id.length() + 1))) {
                    return true;
                }
            }
            return false;
        }
    }

    private record Above(PartlyIdle record, String id) {}

    private static void walk(Object record, Place at, Context outer, List<Envelope> seen, List<SetValue> out) {
        RecordShape s = RecordShape.of(record.getClass());
        Context context = outer.into(record, at);
        int envelope = record instanceof Envelope e ? number(e, seen) : -1;
        for (int i = 0; i < s.components.length; i++) {
            Object v = s.dials[i] == null && s.parts[i] == null ? null : s.get(record, i);
            if (v == null) {
                continue;
            }
            if (s.dials[i] != null) {
                Parameter p = record instanceof Refined r
                        ? r.refined(s.components[i].getName(), at.parameter(s, i))
                        : at.parameter(s, i);
                double value = ParameterAccess.number(v);
                if (!isNeutral(p, value, s.dials[i].neutral()) && !context.isIdle(p.id())) {
                    String component = s.dials[i].id();
                    String tie = envelope >= 0
                            ? "envelope " + envelope + "." + component
                            : context.list.isEmpty() || !isElement(at, context)
                                    ? p.id()
                                    : context.list + "." + component + " " + shown(p, value);
                    out.add(new SetValue(p, value, context.list, context.element, component, tie));
                }
            } else if (v instanceof List<?> list) {
                for (int k = 0; k < list.size(); k++) {
                    Place inside = at.into(s.parts[i], k + 1);
                    String name = inside.id().substring(0, inside.id().lastIndexOf('.'));
                    walk(list.get(k), inside, new Context(context.above, name, k + 1), seen, out);
                }
            } else {
                walk(v, at.into(s.parts[i], 0), context, seen, out);
            }
        }
    }

    /** Whether a walk is at an element of the list itself, and not in one of its parts. */
    private static boolean isElement(Place at, Context context) {
        return at.id().equals(context.list + "." + context.element);
    }

    private static int number(Envelope e, List<Envelope> seen) {
        int at = seen.indexOf(e);
        if (at < 0) {
            seen.add(e);
            at = seen.size() - 1;
        }
        return at;
    }

    /** As people read it: what differs by less than the last digit shown is the same. */
    private static boolean isNeutral(Parameter p, double value, List<Double> neutral) {
        for (double n : neutral) {
            if (shown(p, value) == shown(p, n)) {
                return true;
            }
        }
        return false;
    }

    /** A value in units of its last digit. */
    private static long shown(Parameter p, double value) {
        return Math.round(value * Math.pow(10, p.decimals()));
    }
}

package nightreed.recipe.part;

import java.lang.reflect.RecordComponent;
import java.util.List;

/** Where a walk through nested records is. */
record Place(String id, String name, Parameter.Group group) {
    /** Before the first step. */
    static final Place TOP = new Place("", "", Parameter.Group.SOURCE);

    Place into(RecordShape.PartSpec p, int number) {
        String n = number == 0 ? "" : String.valueOf(number);
        return new Place(
                joined(id, ".", joined(p.id(), ".", n)),
                joined(name, " ", joined(p.name(), " ", n)),
                p.group() == Parameter.Group.INHERITED ? group : p.group());
    }

    Place named(Object part) {
        return part instanceof Named n ? new Place(id, n.name(), group) : this;
    }

    private static String joined(String a, String between, String b) {
        return a.isEmpty() || b.isEmpty() ? a + b : a + between + b;
    }

    /** Whether a value of that id can lie here. */
    boolean mayHold(String valueId) {
        return id.isEmpty() || valueId.startsWith(id) && valueId.startsWith(".", id.length());
    }

    String id(RecordShape s, int i) {
        return joined(id, ".", s.dials[i].id());
    }

    Parameter parameter(RecordShape s, int i) {
        RecordComponent c = s.components[i];
        RecordShape.Spec d = s.dials[i];
        List<String> choices = s.choices.get(i);
        boolean choice = !choices.isEmpty();
        return new Parameter(
                id(s, i),
                d.group() == Parameter.Group.INHERITED ? group : d.group(),
                joined(name, " ", d.name()),
                d.unit(),
                choice ? 0 : d.least(),
                choice ? choices.size() - 1 : d.most(),
                choice ? Parameter.Law.CHOICE : d.law(),
                choice || c.getType() == int.class ? 0 : d.decimals(),
                d.meaning(),
                choices);
    }
}

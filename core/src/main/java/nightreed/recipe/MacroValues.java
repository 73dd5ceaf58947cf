package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Parameter;

/**
 * What a macro of a recipe moves, and how far: for each value its two ends and the bend of the way between, as values of
 * their own, such as {@code macro.1.aim.2.to}.
 */
public final class MacroValues {
    private MacroValues() {}

    /** @param macro its number, from 1; what it moves that the recipe does not have is left out */
    public static List<Recipe.Setting> of(Recipe recipe, int macro) {
        List<Recipe.Setting> out = new ArrayList<>();
        List<Macro.Aim> aims = recipe.common().macros().get(macro - 1).targets();
        for (int i = 0; i < aims.size(); i++) {
            Macro.Aim a = aims.get(i);
            String head = "macro." + macro + ".aim." + (i + 1) + ".";
            recipe.settings().stream()
                    .map(Recipe.Setting::parameter)
                    .filter(p -> p.id().equals(a.parameter()))
                    .findFirst()
                    .ifPresent(p -> {
                        for (int k = 0; k < a.points().size(); k++) {
                            String where = String.format(
                                    Locale.ROOT, " at %.2f", k / (a.points().size() - 1.0));
                            out.add(new Recipe.Setting(
                                    end(p, head + "point" + k, p.name() + where),
                                    a.points().get(k)));
                        }
                        if (!a.points().isEmpty()) {
                            return;
                        }
                        out.add(new Recipe.Setting(end(p, head + "from", p.name() + " at 0"), a.from()));
                        out.add(new Recipe.Setting(end(p, head + "to", p.name() + " at 1"), a.to()));
                        out.add(new Recipe.Setting(bend(head + "curve", p.name()), a.curve()));
                    });
        }
        return out;
    }

    private static Parameter end(Parameter p, String id, String name) {
        return p.with(b -> b.id(id).name(name).group(Parameter.Group.PLAYING));
    }

    private static Parameter bend(String id, String name) {
        return new Parameter(
                id,
                Parameter.Group.PLAYING,
                name + ", curve",
                "",
                -1,
                1,
                Parameter.Law.LINEAR,
                2,
                "Bend of the way: above 0 it moves late, below 0 early.",
                List.of());
    }

    /** @throws IllegalArgumentException if there is no such value */
    public static Recipe with(Recipe recipe, String id, double value) {
        String[] part = id.split("\\.");
        boolean known = part.length == 5
                && part[0].equals("macro")
                && part[2].equals("aim")
                && part[4].matches("from|to|curve|point\\d{1,3}");
        if (!known) {
            throw new IllegalArgumentException("there is no value '" + id + "' of a macro");
        }
        int macro = Integer.parseInt(part[1]);
        int aim = Integer.parseInt(part[3]) - 1;
        Macro m = recipe.common().macros().get(macro - 1);
        Macro.Aim a = m.targets().get(aim);
        List<Macro.Aim> aims = new ArrayList<>(m.targets());
        aims.set(
                aim,
                switch (part[4]) {
                    case "from" -> new Macro.Aim(a.parameter(), value, a.to(), a.curve());
                    case "to" -> new Macro.Aim(a.parameter(), a.from(), value, a.curve());
                    case "curve" -> new Macro.Aim(a.parameter(), a.from(), a.to(), value);
                    default -> {
                        List<Double> points = new ArrayList<>(a.points());
                        points.set(Integer.parseInt(part[4].substring("point".length())), value);
                        yield Macro.Aim.along(a.parameter(), points);
                    }
                });
        return with(recipe, macro, new Macro(m.name(), m.amount(), aims));
    }

    private static Recipe with(Recipe recipe, int macro, Macro m) {
        Common c = recipe.common();
        List<Macro> all = new ArrayList<>(c.macros());
        all.set(macro - 1, m);
        return recipe.withCommon(c.withMacros(all));
    }

    /** With the way of one of its values told by points. @param points at equal steps, the ends included */
    public static Recipe along(Recipe recipe, int macro, String parameterId, List<Double> points) {
        Macro m = recipe.common().macros().get(macro - 1);
        List<Macro.Aim> aims = new ArrayList<>(m.targets());
        aims.removeIf(a -> a.parameter().equals(parameterId));
        aims.add(Macro.Aim.along(parameterId, points));
        return with(recipe, macro, new Macro(m.name(), m.amount(), aims));
    }

    /** Values that a macro could move and does not: numbers of the sound, none of macros. */
    public static List<Parameter> free(Recipe recipe, int macro) {
        Set<String> moved = recipe.common().macros().get(macro - 1).targets().stream()
                .map(Macro.Aim::parameter)
                .collect(Collectors.toSet());
        return recipe.settings().stream()
                .map(Recipe.Setting::parameter)
                .filter(p -> p.law() != Parameter.Law.CHOICE && !p.id().startsWith("macro.") && !moved.contains(p.id()))
                .toList();
    }

    /** With one more value moved: as it is where the macro stands now, and up to the top of its range on the other side. */
    public static Recipe aimed(Recipe recipe, int macro, String parameterId) {
        Macro m = recipe.common().macros().get(macro - 1);
        Recipe.Setting s = recipe.setting(parameterId);
        boolean up = m.amount() < 0.5;
        double far = up ? s.parameter().most() : s.parameter().least();
        List<Macro.Aim> aims = new ArrayList<>(m.targets());
        aims.add(new Macro.Aim(parameterId, up ? s.value() : far, up ? far : s.value(), 0));
        return with(recipe, macro, new Macro(m.name(), m.amount(), aims));
    }

    /** With a value left alone again, which stays where the macro has it. @throws IllegalArgumentException if it is the only one */
    public static Recipe released(Recipe recipe, int macro, String parameterId) {
        Macro m = recipe.common().macros().get(macro - 1);
        double now = ((Recipe) m.on((Record) recipe)).value(parameterId);
        List<Macro.Aim> aims = m.targets().stream()
                .filter(a -> !a.parameter().equals(parameterId))
                .toList();
        if (aims.isEmpty()) {
            throw new IllegalArgumentException("a macro moves at least one value; take the macro out");
        }
        return with(recipe, macro, new Macro(m.name(), m.amount(), aims)).with(parameterId, now);
    }

    /** With another name. @throws IllegalArgumentException if it is empty or longer than 40 letters */
    public static Recipe named(Recipe recipe, int macro, String name) {
        Macro m = recipe.common().macros().get(macro - 1);
        return with(recipe, macro, new Macro(name, m.amount(), m.targets()));
    }
}

package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.ParameterAccess;

/**
 * A recipe as someone listens to it: one element left out, alone, or more than it is. The recipe itself stays as it is.
 *
 * @param element one of {@link #elements}
 * @param way     how it is listened to
 */
public record AuditionMode(Element element, Way way) {
    /** How much more an exaggerated level is [dB]. */
    private static final double MORE_DB = 9;

    /** How many times as far an exaggerated movement goes. */
    private static final double MORE_TIMES = 2;

    /** How an element is listened to. */
    public enum Way {
        WITHOUT("without"),
        ALONE("only"),
        EXAGGERATED("more of");

        private final String title;

        Way(String title) {
            this.title = title;
        }

        /** What stands before the element's name. */
        public String title() {
            return title;
        }
    }

    /**
     * Something in a recipe that can be heard by itself.
     *
     * @param id     value that says how much of it there is, or the id of an optional part
     * @param name   what people call it
     * @param source whether it sounds by itself; otherwise it only changes what sounds
     * @param off    value at which it is not there; not a number for an optional part, which is taken out
     */
    public record Element(String id, String name, boolean source, double off) {
        boolean isPart() {
            return Double.isNaN(off);
        }
    }

    /** Elements of a recipe, in the order the sound travels; silent ones are left out. */
    public static List<Element> elements(Recipe recipe) {
        List<Element> out = new ArrayList<>();
        if (recipe instanceof StringRecipe || recipe instanceof ResonatorRecipe || noisy(recipe)) {
            add(recipe, out, "noise.level", true, -100);
        }
        if (recipe instanceof ResonatorRecipe r) {
            each(recipe, out, "mode.%d.level", r.modes().size(), -80);
        } else if (recipe instanceof FmRecipe r) {
            each(recipe, out, "pair.%d.level", r.pairs().size(), -80);
            for (int i = 1; i <= r.pairs().size(); i++) {
                add(recipe, out, "pair." + i + ".index", false, 0);
            }
        } else if (recipe instanceof RingRecipe) {
            add(recipe, out, "ring", true, -80);
            add(recipe, out, "dry", true, -80);
            add(recipe, out, "drift.depth", false, 0);
        } else if (recipe instanceof FormantRecipe r) {
            add(recipe, out, "source.level", true, -80);
            add(recipe, out, "noise", true, -80);
            each(recipe, out, "band.%d.level", r.bands().size(), -80);
        } else if (recipe instanceof StringRecipe) {
            add(recipe, out, "stiffness", false, 0);
            add(recipe, out, "pluck", false, 0);
        } else if (recipe instanceof SubtractiveRecipe r) {
            each(recipe, out, "osc.%d.level", r.oscillators().size(), -80);
            if (r.breath() != null) {
                add(recipe, out, "breath.level", true, -80);
            }
        }
        for (int i = 1; i <= recipe.common().routes().size(); i++) {
            add(recipe, out, "route." + i + ".depth", false, 0);
        }
        for (ParameterAccess.Absent part : ParameterAccess.optional((Record) recipe)) {
            if (!part.id().startsWith("lfo")
                    && !part.id().equals("keys")
                    && !part.id().contains("envelope")) {
                out.add(new Element(part.id(), part.name(), false, Double.NaN));
            }
        }
        return out;
    }

    private static boolean noisy(Recipe recipe) {
        return recipe.settings().stream()
                .anyMatch(s -> s.parameter().id().equals("noise.level") && s.value() > Exciter.OFF_DB);
    }

    private static void each(Recipe recipe, List<Element> out, String id, int count, double off) {
        for (int i = 1; i <= count; i++) {
            add(recipe, out, String.format(java.util.Locale.ROOT, id, i), true, off);
        }
    }

    private static void add(Recipe recipe, List<Element> out, String id, boolean source, double off) {
        Recipe.Setting s = recipe.setting(id);
        if (Math.abs(s.value() - off) > 1e-9) {
            String name = s.parameter().name();
            out.add(new Element(
                    id, name.endsWith(" level") ? name.substring(0, name.length() - 6) : name, source, off));
        }
    }

    /** The recipe that is heard. */
    public Recipe of(Recipe recipe) {
        Recipe r = recipe;
        if (way == Way.WITHOUT) {
            return without(r, element);
        }
        if (way == Way.EXAGGERATED) {
            return more(r);
        }
        for (Element e : elements(recipe)) {
            // a source alone is without the other sources; a change alone is without the other changes
            if (!e.equals(element) && e.source() == element.source()) {
                r = without(r, e);
            }
        }
        return r;
    }

    private static Recipe without(Recipe r, Element e) {
        return e.isPart() ? r.withoutPart(e.id()) : r.with(e.id(), e.off());
    }

    private Recipe more(Recipe r) {
        if (element.isPart()) {
            // an effect is more of itself where it has a mix or a depth
            for (Recipe.Setting s : r.settings()) {
                String id = s.parameter().id();
                boolean amount = id.startsWith(element.id() + ".")
                        && (id.endsWith(".mix") || id.endsWith(".depth") || id.endsWith(".amount"));
                if (amount) {
                    return r.with(id, s.value() * MORE_TIMES);
                }
            }
            return r;
        }
        Recipe.Setting s = r.setting(element.id());
        Parameter p = s.parameter();
        return r.with(p.id(), p.unit().equals("dB") ? s.value() + MORE_DB : s.value() * MORE_TIMES);
    }

    /** Such as "without breath". */
    public String title() {
        return way.title() + " " + element.name();
    }
}

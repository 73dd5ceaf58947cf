package nightreed.match.fit;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.JndThresholds;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.recipe.Mode;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.StringRecipe.Drive;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;

/** Which values of a method a search moves, in which order, and which of them it believes. */
final class SearchSpace {
    /** Of a comparison, each of which counts as much. */
    private static final double ASPECTS = Aspect.values().length;

    private SearchSpace() {}

    /** Values that are moved together, stage by stage; at least one stage. */
    static List<List<String>> stages(Recipe recipe) {
        List<String> all = searched(recipe);
        if (recipe instanceof ResonatorRecipe) {
            List<String> strike = all.stream()
                    .filter(id -> id.startsWith("exciter.") || id.startsWith("noise.") || id.equals("rise"))
                    .toList();
            List<String> modes = all.stream()
                    .filter(id -> !id.endsWith(".ratio") && !id.equals("tune"))
                    .toList();
            return List.of(strike, modes);
        }
        if (recipe instanceof FormantRecipe f && f.bank() == Bank.SIDE_BY_SIDE) {
            // levels are set band by band, from what each lacks
            return List.of(all.stream()
                    .filter(id -> id.endsWith(".noiseShare")
                            || id.endsWith(".amp.attack")
                            || id.endsWith(".amp.decay")
                            || id.startsWith("noise")
                            || id.startsWith("exciter"))
                    .toList());
        }
        List<String> main = all.stream().filter(id -> !isMinor(id)).toList();
        return List.of(main, all);
    }

    /** Bends of a course that a search need not know before it has found the course. */
    private static boolean isMinor(String id) {
        return id.endsWith(".delay")
                || id.endsWith(".attackCurve")
                || id.endsWith(".hold")
                || id.endsWith(".fallCurve")
                || id.endsWith(".release");
    }

    /** Values that advice is given for: all that are searched, but not the places of bands side by side. */
    static List<String> advised(Recipe recipe) {
        List<String> all = searched(recipe);
        boolean bank = recipe instanceof FormantRecipe f && f.bank() == Bank.SIDE_BY_SIDE;
        return bank
                ? all.stream()
                        .filter(id -> !id.endsWith(".centre") && !id.endsWith(".width"))
                        .toList()
                : all;
    }

    /** Every number that the sound of one note can tell. */
    static List<String> searched(Recipe recipe) {
        List<String> out = new ArrayList<>();
        for (Recipe.Setting s : recipe.settings()) {
            Parameter p = s.parameter();
            boolean number = p.law() != Parameter.Law.CHOICE;
            boolean told = p.group() != Group.PLAYING && p.group() != Group.SPACE && !p.id().equals("level");
            boolean moving = p.id().startsWith("lfo.") || p.id().startsWith("route.");
            boolean fixed =
                    moving || p.id().endsWith("pan") || p.id().endsWith("drift") || p.id().endsWith("imperfection");
            if (number && told && !fixed) {
                out.add(p.id());
            }
        }
        return out;
    }

    /** A value that was measured: how far it may be moved before it costs a JND. */
    record Anchor(double value, boolean logarithmic, double jnd, double weight) {
        double difference(double now) {
            double by = logarithmic ? Math.log(now / value) : now - value;
            return weight * by / jnd;
        }
    }

    /**
     * Levels and decays of modes are measured far better than a short look at a mixture could tell; and so are the breath of a
     * held note, between whose harmonics the look sees nothing, and how long the noise of a strike is heard under the partials.
     */
    static Map<String, Anchor> anchors(Recipe recipe) {
        Map<String, Anchor> out = new LinkedHashMap<>();
        if (recipe instanceof ResonatorRecipe r) {
            double weights = 0;
            double[] weight = new double[r.modes().size()];
            for (int i = 0; i < weight.length; i++) {
                Mode m = r.modes().get(i);
                weight[i] = Math.max(0.02, 1 + m.levelDb() / 50);
                weights += weight[i];
            }
            for (int i = 0; i < weight.length; i++) {
                Mode m = r.modes().get(i);
                double w = Math.sqrt(weight[i] / weights / ASPECTS);
                String id = "mode." + (i + 1) + ".";
                out.put(id + "level", new Anchor(m.levelDb(), false, JndThresholds.USUAL.levelDb(), w));
                out.put(id + "t60", new Anchor(m.t60Seconds(), true, Math.log(JndThresholds.USUAL.decayLonger()), w));
            }
        }
        recipe.settings().stream()
                .filter(s -> s.parameter().id().equals("noise.t60"))
                .filter(s -> !(recipe instanceof ResonatorRecipe || recipe instanceof StringRecipe))
                .forEach(s -> out.put(
                        "noise.t60",
                        new Anchor(
                                s.value(),
                                true,
                                Math.log(JndThresholds.USUAL.decayLonger()),
                                0.5 * Math.sqrt(1.0 / ASPECTS))));
        if (recipe instanceof SubtractiveRecipe s && s.breath() != null) {
            out.put("breath.level", noise(s.breath().levelDb()));
        }
        if (recipe instanceof StringRecipe s && s.drive() == Drive.FRICTION && s.bow() != null) {
            out.put("bow.noise", noise(s.bow().noiseDb()));
        }
        return out;
    }

    private static Anchor noise(double db) {
        return new Anchor(db, false, JndThresholds.USUAL.noiseDb(), Math.sqrt(1.0 / ASPECTS));
    }
}

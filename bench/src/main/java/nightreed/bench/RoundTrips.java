package nightreed.bench;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.room.RecordingRoom;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;
import nightreed.work.Progress;

/**
 * Whether a method finds its own sounds again: recipes put off by chance in every value, rendered, measured, and fitted by the
 * same method. A vibrato is put off by up to a semitone: no instrument has a wider one.
 *
 * <p>The recipes are put off around the starting values of notes of the recording room, so a change of the starts makes other
 * recipes of the same seed. To compare before and after they are drawn once into a folder, and fitted from there.
 * <pre>
 * java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.RoundTrips draw METHOD HOW_MANY SEED FOLDER
 * java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.RoundTrips fit FOLDER [FROM TO]
 * </pre>
 */
public final class RoundTrips {
    private static final double WIDEST_VIBRATO_CENTS = 100;
    private static final String RECIPE = ".recipe.json";

    private RoundTrips() {}

    public static void main(String[] args) throws Exception {
        if (args[0].equals("draw")) {
            draw(args[1], Integer.parseInt(args[2]), new Random(Long.parseLong(args[3])), Path.of(args[4]));
        } else {
            List<Path> all = recipes(Path.of(args[1]));
            int from = args.length > 2 ? Integer.parseInt(args[2]) : 0;
            int to = args.length > 3 ? Math.min(all.size(), Integer.parseInt(args[3])) : all.size();
            fit(all.subList(from, to));
        }
    }

    private static void draw(String method, int wanted, Random chance, Path folder) throws Exception {
        Files.createDirectories(folder);
        List<RecordingRoom.Instrument> players = RecordingRoom.instruments();
        int drawn = 0;
        for (int n = 0; drawn < wanted; n++) {
            RecordingRoom.Instrument p = players.get(n % players.size());
            try {
                AnalysedSound room =
                        ImitationRenderer.side(RecordingRoom.record(p, p.usualKey(), 0.6, 7000 + n), Progress.NONE);
                Recipe made = anyOf(Starts.of(method, room).recipe(), chance);
                String name = String.format(Locale.ROOT, "%s-%03d-%s", method, drawn, p.id());
                Files.writeString(folder.resolve(name + RECIPE), RecipeJson.text(made));
                Files.writeString(
                        folder.resolve(name + ".length"),
                        room.keySeconds() + " " + room.measurement().durationSeconds() + " "
                                + room.measurement().sampleRateHz());
                drawn++;
            } catch (UnusableSound e) {
                System.out.println(p.id() + " " + method + ": " + e.getMessage());
            }
        }
    }

    private static List<Path> recipes(Path folder) throws IOException {
        try (var files = Files.list(folder)) {
            return files.filter(f -> f.getFileName().toString().endsWith(RECIPE))
                    .sorted()
                    .toList();
        }
    }

    private static void fit(List<Path> recipes) throws IOException, UnusableRecipe {
        List<Double> totals = new ArrayList<>();
        for (Path file : recipes) {
            String name = file.getFileName().toString().replace(RECIPE, "");
            Recipe made = RecipeJson.parse(Files.readString(file), name);
            double[] length = Arrays.stream(Files.readString(file.resolveSibling(name + ".length"))
                            .trim()
                            .split(" "))
                    .mapToDouble(Double::parseDouble)
                    .toArray();
            try {
                AnalysedSound sound =
                        ImitationRenderer.rendered(Renderer.asFitted(made, 0.1, length[0], length[1], (int) length[2]));
                long begun = System.nanoTime();
                Fitted found = Fits.of(made.method(), sound, FitOptions.USUAL, Progress.NONE);
                totals.add(found.comparison().totalJnd());
                System.out.printf(
                        Locale.ROOT,
                        "%s %.2f worst %s %.2f, %.1f s%n",
                        name,
                        found.comparison().totalJnd(),
                        found.comparison().worst().id(),
                        found.comparison().worstJnd(),
                        (System.nanoTime() - begun) / 1e9);
            } catch (UnusableSound e) {
                System.out.println(name + ": " + e.getMessage());
            }
        }
        long near = totals.stream().filter(t -> t <= 1).count();
        System.out.printf(Locale.ROOT, "%d of %d within 1 JND%n", near, totals.size());
    }

    private static Recipe anyOf(Recipe recipe, Random chance) {
        Recipe r = recipe;
        for (Recipe.Setting s : recipe.settings()) {
            Parameter p = s.parameter().around(s.value());
            boolean told = p.law() != Parameter.Law.CHOICE
                    && p.group() != Group.PLAYING
                    && p.group() != Group.SPACE
                    && !p.id().endsWith("pan")
                    && !p.id().equals("tune")
                    && !p.id().equals("level");
            double to = p.at(p.position(s.value()) + 0.2 * (chance.nextDouble() - 0.5));
            if (p.id().startsWith("route.") && p.unit().equals("cents")) {
                to = Math.max(-WIDEST_VIBRATO_CENTS, Math.min(WIDEST_VIBRATO_CENTS, to));
            }
            r = told ? unlessItTouches(r, p.id(), to) : r;
        }
        return r;
    }

    private static Recipe unlessItTouches(Recipe r, String id, double to) {
        try {
            return r.with(id, to);
        } catch (IllegalArgumentException another) {
            return r;
        }
    }
}

package nightreed.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Callable;
import nightreed.music.Pitch;
import nightreed.recipe.PatchCheck;
import nightreed.recipe.Recipe;
import nightreed.recipe.UnusableRecipe;
import nightreed.voice.explain.Arithmetic;
import nightreed.voice.explain.ArithmeticJson;
import nightreed.voice.explain.Table;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(
        name = "arithmetic",
        description = "Prints the numbers behind a recipe: sidebands, loop samples, sums and differences, bank, beats.")
final class ArithmeticCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(paramLabel = "RECIPE.json", description = "Recipe of any method.")
    Path file;

    @Option(
            names = "--note",
            paramLabel = "KEY",
            converter = KeyConverter.class,
            description = "Key (57 or A3); the recipe's own by default.")
    Integer key;

    @Option(names = "--json", paramLabel = "OUT", description = "Writes the tables as JSON; - is standard output.")
    Path json;

    @Mixin
    Results results;

    @Override
    public Integer call() throws UnusableRecipe, IOException {
        results.check(json, List.of(file));
        Recipe r = RecipeFiles.read(file).layers().get(0).recipe();
        int k = key == null ? r.key() : key;
        PrintWriter out = spec.commandLine().getOut();
        if (json != null) {
            Out.text(json, ArithmeticJson.text(r, k), out);
            return 0;
        }
        out.printf(Locale.ROOT, "%s on %s (%.3f Hz)%n", r.method(), Pitch.name(k), Pitch.hz(k + r.tuningCents() / 100));
        for (Table t : Arithmetic.of(r, k)) {
            print(t, out);
        }
        for (PatchCheck.Finding f : PatchCheck.of(r)) {
            out.printf("check: %s%n", f.text());
        }
        return 0;
    }

    private static void print(Table t, PrintWriter out) {
        out.printf("%n%s%n", t.title());
        int[] width = new int[t.columns().size()];
        for (int c = 0; c < width.length; c++) {
            width[c] = Math.max(9, head(t.columns().get(c)).length());
            out.print(padded(head(t.columns().get(c)), width[c]));
        }
        out.println();
        for (List<Double> row : t.rows()) {
            for (int c = 0; c < width.length; c++) {
                Double v = row.get(c);
                String text = v == null
                        ? "-"
                        : String.format(Locale.ROOT, "%." + t.columns().get(c).decimals() + "f", v);
                out.print(padded(text, width[c]));
            }
            out.println();
        }
        t.remarks().forEach(r -> out.println("  " + r));
    }

    private static String head(Table.Column c) {
        return c.unit().isEmpty() ? c.name() : c.name() + " [" + c.unit() + "]";
    }

    private static String padded(String text, int width) {
        return " ".repeat(Math.max(0, width - text.length())) + text + "  ";
    }
}

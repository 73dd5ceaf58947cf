package nightreed.bench;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.JsonNodeFactory;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import java.util.function.BiFunction;
import nightreed.cli.NightReedCommand;
import nightreed.play.Performance;
import nightreed.project.Imitation;
import nightreed.project.ProjectFile;
import nightreed.project.UnusableProject;
import nightreed.recipe.Patch;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.UnusableRecipe;
import nightreed.sound.UnusableSound;
import nightreed.sound.file.SoundFiles;

/**
 * Damages good files in many ways and opens them: each must be used or refused with a message, soon. Counts what else
 * happens, with the seed that shows it again.
 *
 * <p>{@code Attacks sounds|recipes|projects|midi|commands COUNT SEED FILE...}; with commands, the files are what odd command lines
 * name, beside files that are not there, folders and devices.
 */
public final class Attacks {
    /** Longer than this is a hang [s]. */
    private static final double HANG_SECONDS = 5;

    private static final int SHOWN = 12;

    private final Map<String, Integer> outcomes = new TreeMap<>();
    private final PrintStream out = System.out; // before commands put another in its place
    private int failures;
    private double longest;

    private Attacks() {}

    /** Opens something; throws what it throws. */
    private interface Attack {
        void on(byte[] bytes) throws Exception;
    }

    public static void main(String[] args) throws Exception {
        int count = Integer.parseInt(args[1]);
        long seed = Long.parseLong(args[2]);
        List<byte[]> good = new ArrayList<>();
        for (String f : Arrays.asList(args).subList(3, args.length)) {
            good.add(Files.readAllBytes(Path.of(f)));
        }
        Attacks a = new Attacks();
        List<String> names = Arrays.asList(args).subList(3, args.length);
        Path folder = Files.createTempDirectory("attacks");
        switch (args[0]) {
            case "sounds" -> a.run(count, seed, good, Attacks::mutated, bytes -> SoundFiles.read(bytes, "attack"));
            case "recipes" -> a.run(count, seed, good, Attacks::mutatedJson, Attacks::recipe);
            case "midi" ->
                a.run(
                        count,
                        seed,
                        good,
                        Attacks::mutated,
                        bytes -> Performance.read(Files.write(folder.resolve("a.mid"), bytes)));
            case "projects" -> a.run(count, seed, good, Attacks::mutated, bytes -> project(folder, bytes));
            case "commands" -> a.run(count, seed, good, (b, r) -> command(names, folder, r), Attacks::runCommand);
            default -> throw new IllegalArgumentException("sounds, recipes, projects, midi or commands");
        }
        a.report();
        System.exit(a.failures == 0 ? 0 : 1); // whatever decoders still spin
    }

    private static void recipe(byte[] bytes) throws UnusableRecipe {
        Patch p = RecipeJson.parsePatch(new String(bytes, StandardCharsets.UTF_8), "attack");
        RecipeJson.parsePatch(RecipeJson.text(p), "what was taken in and written again");
    }

    /** An odd command line, its words with 0 between them. */
    private static byte[] command(List<String> files, Path folder, Random r) {
        List<String> values = new ArrayList<>(List.of(
                "",
                "-",
                "--",
                "/",
                ".",
                "..",
                "/dev/null",
                "/dev/zero",
                "/dev/full",
                "none.wav",
                "@none",
                "-1",
                "0",
                "1e308",
                "NaN",
                "abc",
                "127",
                "128",
                "A4",
                "H9",
                "auto",
                "fm",
                "peak",
                "\u0007bell",
                folder + "/out",
                folder + "/new/out.wav"));
        values.addAll(files);
        List<String> words = new ArrayList<>(List.of(any(
                r,
                List.of(
                        "measure",
                        "match",
                        "start",
                        "arithmetic",
                        "render",
                        "compare",
                        "room",
                        "demo",
                        "tea",
                        "--version",
                        ""))));
        List<String> options = List.of(
                "--json",
                "--csv",
                "--out",
                "--method",
                "--note",
                "--velocity",
                "--seconds",
                "--midi",
                "--level",
                "--float",
                "--layers",
                "--machine",
                "--keys",
                "--strengths",
                "--seed",
                "--from",
                "--to",
                "--force",
                "--help",
                "--odd");
        int count = r.nextInt(7);
        for (int i = 0; i < count; i++) {
            words.add(any(r, r.nextInt(3) == 0 ? options : values));
        }
        words.remove("demo"); // which opens the window
        return String.join("\u0000", words).getBytes(StandardCharsets.UTF_8);
    }

    private static String any(Random r, List<String> of) {
        return of.get(r.nextInt(of.size()));
    }

    private static void runCommand(byte[] bytes) throws IOException {
        PrintStream before = System.err;
        ByteArrayOutputStream said = new ByteArrayOutputStream();
        String[] words = new String(bytes, StandardCharsets.UTF_8).split("\u0000", -1);
        int code;
        try {
            System.setErr(new PrintStream(said, true, StandardCharsets.UTF_8));
            System.setOut(System.err);
            code = NightReedCommand.run(NightReedCommand.commandLine(), words);
        } finally {
            System.setErr(before);
        }
        String text = said.toString(StandardCharsets.UTF_8);
        if (text.contains("internal error") || text.contains("\tat ") || code < 0 || code > 2) {
            throw new IllegalStateException(Arrays.toString(words) + ": " + code + " " + text);
        }
        if (code != 0) {
            throw new IOException("refused");
        }
    }

    private static void project(Path folder, byte[] bytes) throws Exception {
        Path file = Files.write(folder.resolve("attack.nightreed"), bytes);
        try (ProjectFile p = ProjectFile.open(file)) {
            for (Imitation i : p.imitations()) {
                p.now(i);
                p.takes(i);
                p.undoLabel(i);
                Long row = p.now(i).recordingId();
                if (row != null) {
                    p.recording(row);
                }
                p.commit(i, "edit", p.now(i));
            }
        } catch (UnusableProject e) {
            if (!Arrays.equals(Files.readAllBytes(file), bytes)
                    && e.getMessage().contains("left as it was")) {
                throw new IllegalStateException("said to be left as it was, and is not: " + e.getMessage(), e);
            }
            throw e;
        } finally {
            try (var left = Files.list(folder)) {
                for (Path p : left.toList()) {
                    Files.delete(p);
                }
            }
        }
    }

    private void run(
            int count, long seed, List<byte[]> good, BiFunction<byte[], Random, byte[]> damage, Attack attack) {
        for (int i = 0; i < count; i++) {
            Random r = new Random(seed + i);
            byte[] from = good.get(r.nextInt(good.size()));
            byte[] bytes = damage.apply(from, r);
            long start = System.nanoTime();
            String outcome;
            try {
                attack.on(bytes);
                outcome = "used";
            } catch (UnusableSound | UnusableRecipe | UnusableProject e) {
                outcome = "refused";
            } catch (IOException e) {
                outcome = "refused";
            } catch (Throwable e) { // which is what is looked for
                outcome = "FAILED with " + e.getClass().getName();
                fail(seed + i, e);
            }
            double took = (System.nanoTime() - start) / 1e9;
            longest = Math.max(longest, took);
            if (took > HANG_SECONDS) {
                outcome = "HUNG";
                fail(seed + i, null);
            }
            outcomes.merge(outcome, 1, Integer::sum);
        }
    }

    private void fail(long seed, Throwable e) {
        if (failures++ < SHOWN) {
            out.println("seed " + seed + ": " + (e == null ? "too long" : e));
            if (e != null) {
                Arrays.stream(e.getStackTrace()).limit(4).forEach(t -> out.println("    " + t));
            }
        }
    }

    private void report() {
        out.printf(Locale.ROOT, "%s, longest %.2f s%n", outcomes, longest);
    }

    /** Bits turned, bytes replaced, pieces cut out, doubled, zeroed, or the end cut off. */
    private static byte[] mutated(byte[] good, Random r) {
        byte[] b = good.clone();
        int times = 1 + r.nextInt(12);
        for (int t = 0; t < times; t++) {
            int at = r.nextInt(4) == 0
                    ? r.nextInt(b.length)
                    : Math.min(b.length - 1, r.nextInt(200)); // heads are the soft part
            int length = Math.min(b.length - at, 1 + r.nextInt(r.nextBoolean() ? 8 : 2000));
            switch (r.nextInt(7)) {
                case 0 -> b[at] ^= (byte) (1 << r.nextInt(8));
                case 1 -> b[at] = (byte) r.nextInt(256);
                case 2 -> Arrays.fill(b, at, at + length, (byte) 0);
                case 3 -> Arrays.fill(b, at, at + length, (byte) 0xff);
                case 4 -> b = at + length < b.length && b.length - length > 16 ? cut(b, at, length) : b;
                case 5 -> b = doubled(b, at, length);
                default -> b = r.nextInt(4) == 0 ? Arrays.copyOf(b, Math.max(16, r.nextInt(b.length))) : b;
            }
        }
        return b;
    }

    private static byte[] cut(byte[] b, int at, int length) {
        byte[] out = Arrays.copyOf(b, b.length - length);
        System.arraycopy(b, at + length, out, at, out.length - at);
        return out;
    }

    private static byte[] doubled(byte[] b, int at, int length) {
        byte[] out = new byte[b.length + length];
        System.arraycopy(b, 0, out, 0, at + length);
        System.arraycopy(b, at, out, at + length, b.length - at);
        return out;
    }

    /** Values replaced by absurd ones or those of another kind, fields left out, renamed, doubled. */
    private static byte[] mutatedJson(byte[] good, Random r) {
        if (r.nextInt(10) == 0) {
            return mutated(good, r);
        }
        try {
            JsonNode root = new ObjectMapper().readTree(good);
            int times = 1 + r.nextInt(3);
            for (int t = 0; t < times; t++) {
                mutate(root, r);
            }
            return root.toString().getBytes(StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void mutate(JsonNode root, Random r) {
        JsonNode at = root;
        while (true) {
            if (at instanceof ObjectNode o && !o.isEmpty()) {
                List<String> names = new ArrayList<>();
                o.fieldNames().forEachRemaining(names::add);
                String name = names.get(r.nextInt(names.size()));
                if (o.get(name).isContainerNode() && !o.get(name).isEmpty() && r.nextInt(6) > 0) {
                    at = o.get(name);
                    continue;
                }
                switch (r.nextInt(8)) {
                    case 0 -> o.remove(name);
                    case 1 -> o.set(name + "x", o.remove(name));
                    default -> o.set(name, odd(o.get(name), r));
                }
                return;
            }
            if (at instanceof ArrayNode a && !a.isEmpty()) {
                int i = r.nextInt(a.size());
                if (a.get(i).isContainerNode() && r.nextInt(6) > 0) {
                    at = a.get(i);
                    continue;
                }
                if (r.nextBoolean()) {
                    a.set(i, odd(a.get(i), r));
                } else {
                    a.insert(i, a.get(i).deepCopy());
                }
            }
            return;
        }
    }

    private static JsonNode odd(JsonNode before, Random r) {
        JsonNodeFactory f = JsonNodeFactory.instance;
        return switch (r.nextInt(12)) {
            case 0 -> f.nullNode();
            case 1 -> f.numberNode(-1);
            case 2 -> f.numberNode(0);
            case 3 -> f.numberNode(1e308);
            case 4 -> f.numberNode(-1e-308);
            case 5 -> f.textNode("text");
            case 6 -> f.arrayNode();
            case 7 -> f.objectNode();
            case 8 -> f.booleanNode(true);
            case 9 -> f.numberNode(before.asDouble() * 1.5 + 0.25);
            case 10 -> f.numberNode(Long.MAX_VALUE);
            default -> f.numberNode(Math.exp(r.nextGaussian() * 4));
        };
    }
}

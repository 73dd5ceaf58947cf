package nightreed.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.Recipe;
import nightreed.recipe.RecipeJson;
import nightreed.recipe.size.PatchSize;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;
import nightreed.sound.TruePeak;
import nightreed.sound.WavFiles;
import nightreed.sound.file.SoundFiles;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import picocli.CommandLine;

class CommandsTest {
    @TempDir
    Path folder;

    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    private int run(Object... args) {
        CommandLine line = NightReedCommand.commandLine();
        line.setOut(new PrintWriter(out));
        line.setErr(new PrintWriter(err));
        String[] words = new String[args.length];
        for (int i = 0; i < args.length; i++) {
            words[i] = args[i].toString();
        }
        return line.execute(words);
    }

    private Path bar() {
        Path wav = folder.resolve("bar.wav");
        assertThat(run("room", "slate-bars", "--note", "A3", "--velocity", "0.8", "--seed", "5", "--out", wav))
                .isZero();
        return wav;
    }

    @Test
    void nobodysWorkIsReplacedUnasked() throws Exception {
        Path wav = bar();
        assertThat(run("room", "slate-bars", "--out", wav)).as("our own").isZero();
        Path letter = Files.writeString(folder.resolve("letter.txt"), "Dear engineer");
        assertThat(run("room", "slate-bars", "--out", letter)).isEqualTo(1);
        assertThat(err.toString()).contains("was not written by Night Reed").contains("--force");
        assertThat(Files.readString(letter)).isEqualTo("Dear engineer");
        assertThat(run("room", "slate-bars", "--force", "--out", letter)).isZero();
        byte[] before = Files.readAllBytes(wav);
        for (String option : List.of("--json", "--csv")) {
            assertThat(run("measure", wav, option, wav.resolveSibling("./bar.wav"), "--force"))
                    .isEqualTo(1);
        }
        assertThat(run("match", wav, "--out", wav)).isEqualTo(1);
        assertThat(err.toString()).contains("not written over").contains("names a folder");
        assertThat(Files.readAllBytes(wav)).isEqualTo(before);
    }

    @Test
    void aTypicalTargetIsMeasuredAndSaysThatItIsNoRecording() throws Exception {
        Path json = folder.resolve("brass.json");
        Path wav = folder.resolve("brass.wav");
        assertThat(run("target", "--words", "bright brass, slow start, C3", "--json", json, "--out", wav))
                .isZero();
        JsonNode m = new ObjectMapper().readTree(json.toFile());
        assertThat(m.get("typical").get("words").asText()).isEqualTo("bright brass, soft start, C3");
        assertThat(m.get("typical").get("sources")).isNotEmpty();
        assertThat(m.get("nearestNote").asText()).isEqualTo("C3");
        assertThat(SoundFiles.read(wav).clip().seconds()).isGreaterThan(1);
        assertThat(run("target", "--list")).isZero();
        assertThat(out.toString()).contains("plain-bar").contains("kettledrum");
    }

    @Test
    void claimsAreHeldAgainstARecording() throws Exception {
        Path file = Files.writeString(
                folder.resolve("claims.json"),
                "[{\"kind\":\"tuning\",\"cents\":45},{\"kind\":\"source\",\"wave\":\"saw\"}]");
        Path json = folder.resolve("verdicts.json");
        assertThat(run("claims", bar(), "--claims", file, "--json", json)).isZero();
        JsonNode v = new ObjectMapper().readTree(json.toFile());
        assertThat(v.get(0).get("verdict").asText()).isEqualTo("refuted");
        assertThat(v.get(0).get("best").get("cents").asDouble()).isBetween(-40.0, 40.0);
        assertThat(v.get(1).get("verdict").asText()).isEqualTo("open");
        assertThat(v.get(1).get("odds").asDouble()).isZero();
        Files.writeString(file, "[{\"kind\":\"colour\"}]");
        assertThat(run("claims", bar(), "--claims", file)).isEqualTo(2);
        assertThat(err.toString()).contains("claim 1: kind is movement");
    }

    @Test
    void chordsAndTemposAreTold() throws Exception {
        assertThat(run("chord", "D4 F4 A4 C5", "--key", "D minor", "--json", "-"))
                .isZero();
        JsonNode c = new ObjectMapper().readTree(out.toString());
        assertThat(c.get("name").asText()).isEqualTo("Dm7");
        assertThat(c.get("notes")).hasToString("[\"D4\",\"F4\",\"A4\",\"C5\"]");
        assertThat(c.get("inversion").asInt()).isZero();
        assertThat(c.get("voices").asInt()).isEqualTo(4);
        assertThat(c.get("next").get(0).get("shared").asInt()).isEqualTo(3);
        Path json = folder.resolve("tempo.json");
        assertThat(run("tempo", bar(), "--json", json)).isZero();
        assertThat(new ObjectMapper().readTree(json.toFile()).get("bpm").isNull())
                .isTrue();
    }

    /** Whatever is asked, the answer is one line and an exit code. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "measure /",
                "measure .",
                "measure none.wav",
                "measure @args",
                "measure /dev/null",
                "match none --out /",
                "start none --method fm --out /",
                "render / --out x.wav",
                "render none --out .",
                "arithmetic /dev/null",
                "compare none none",
                "room nobody --out x.wav",
                "room slate-bars --out /",
                "room slate-bars --note 999 --out x.wav",
                "render none --midi / --out x.wav",
                "match none --machine / --out x",
                "target",
                "target kazoo",
                "target brass --words wobbly",
                "target brass --velocity 7",
                "target brass --out /",
                "chord H7",
                "chord C4",
                "chord Dm7 --key H",
                "tempo none.wav",
                "claims none.wav --claims none.json",
                "claims none.wav --claims ."
            })
    void noCommandEndsInATrace(String words) {
        Object[] args = java.util.Arrays.copyOf(words.split(" "), words.split(" ").length, Object[].class);
        for (int i = 0; i < args.length; i++) {
            args[i] = args[i].equals("x.wav") || args[i].equals("x") ? folder.resolve((String) args[i]) : args[i];
        }
        assertThat(run(args)).isBetween(1, 2);
        assertThat(err.toString()).isNotBlank().doesNotContain("\tat ").doesNotContain("Exception");
    }

    @Test
    void onlyItsOwnTextReachesStandardOutputAndLossIsAnError() throws Exception {
        java.io.PrintStream before = System.out;
        try {
            System.setOut(new java.io.PrintStream(new java.io.OutputStream() {
                @Override
                public void write(int b) throws java.io.IOException {
                    throw new java.io.IOException("full");
                }
            }));
            Path wav = bar();
            assertThat(NightReedCommand.run(NightReedCommand.commandLine(), "measure", wav.toString()))
                    .isEqualTo(1);
        } finally {
            System.setOut(before);
        }
    }

    @Test
    void theWholeRoadRunsFromTheCommandLine() throws Exception {
        Path wav = bar();
        assertThat(run("measure", wav, "--json", "-", "--csv", folder.resolve("p.csv")))
                .isZero();
        JsonNode m = new ObjectMapper().readTree(out.toString());
        assertThat(m.path("nearestNote").asText()).isEqualTo("A3");
        assertThat(Files.readString(folder.resolve("p.csv"))).startsWith("name,frequency_hz");

        Path results = folder.resolve("results");
        assertThat(run("match", wav, "--method", "resonators", "--out", results))
                .isZero();
        JsonNode report =
                new ObjectMapper().readTree(results.resolve("report.json").toFile());
        assertThat(report.path("method").asText()).isEqualTo("resonators");
        assertThat(report.path("distance").path("totalJnd").asDouble()).isLessThan(1.5);
        assertThat(report.path("ranking").path(0).path("method").asText()).isEqualTo("resonators");
        assertThat(report.path("frontier").size()).isGreaterThan(2);
        int at = 0;
        for (JsonNode point : report.path("frontier")) {
            Path file = results.resolve(point.path("recipe").asText());
            Recipe recipe = RecipeJson.parse(Files.readString(file), "point");
            assertThat(PatchSize.of(recipe)).isEqualTo(point.path("size").asInt());
            at += Files.readString(file).equals(Files.readString(results.resolve("recipe.json"))) ? 1 : 0;
        }
        assertThat(at).isEqualTo(1);
        Clip recording = SoundFiles.read(wav).clip();
        Clip imitation = SoundFiles.read(results.resolve("imitation.wav")).clip();
        assertThat(imitation.length()).isEqualTo(recording.length());

        assertThat(run("compare", wav, results.resolve("imitation.wav"), "--json", folder.resolve("c.json")))
                .isZero();
        JsonNode compared = new ObjectMapper().readTree(folder.resolve("c.json").toFile());
        assertThat(compared.path("totalJnd").asDouble())
                .isCloseTo(report.path("distance").path("totalJnd").asDouble(), within(0.1));

        Path high = folder.resolve("high.wav");
        assertThat(run("render", results.resolve("recipe.json"), "--note", "A4", "--seconds", "1.5", "--out", high))
                .isZero();
        out.getBuffer().setLength(0);
        assertThat(run("measure", high, "--json", "-")).isZero();
        double f0 = new ObjectMapper().readTree(out.toString()).path("f0Hz").asDouble();
        assertThat(f0 / m.path("f0Hz").asDouble()).isCloseTo(2, within(0.001));
        assertThat(err.toString()).isEmpty();
    }

    @Test
    void aKeyNamedByHandIsTheRecipesKey() throws Exception {
        Path results = folder.resolve("results");
        assertThat(run("match", bar(), "--method", "resonators", "--note", "Bb3", "--out", results))
                .isZero();
        JsonNode recipe =
                new ObjectMapper().readTree(results.resolve("recipe.json").toFile());
        assertThat(recipe.path("key").asInt()).isEqualTo(58);
    }

    @Test
    void allMethodsAreRankedAndASecondLayerIsTried() throws Exception {
        Path results = folder.resolve("ranked");
        assertThat(run("match", bar(), "--seconds", "9", "--layers", "2", "--out", results))
                .isZero();
        JsonNode report =
                new ObjectMapper().readTree(results.resolve("report.json").toFile());
        assertThat(report.path("ranking")).hasSize(6);
        double last = 0;
        for (JsonNode r : report.path("ranking")) {
            assertThat(r.path("totalJnd").asDouble()).isGreaterThanOrEqualTo(last);
            assertThat(r.path("why").asText()).isNotBlank();
            last = r.path("totalJnd").asDouble();
        }
        assertThat(report.path("layers").path("carries")).isNotEmpty();
        assertThat(out.toString()).contains("resonators", "subtractive", "JND all together");
    }

    @Test
    void aMachineSetsLimitsAndTheirPrices() throws Exception {
        Path small = Files.writeString(
                folder.resolve("small.json"), "{\"schema\": \"machine-1\", \"name\": \"Small\", \"resonators\": 2}");
        Path results = folder.resolve("on-small");
        assertThat(run(
                        "match",
                        bar(),
                        "--method",
                        "resonators",
                        "--machine",
                        small,
                        "--seconds",
                        "4",
                        "--out",
                        results))
                .isZero();
        JsonNode recipe =
                new ObjectMapper().readTree(results.resolve("recipe.json").toFile());
        assertThat(recipe.path("modes").size()).isBetween(1, 2);
        JsonNode machine = new ObjectMapper()
                .readTree(results.resolve("report.json").toFile())
                .path("machine");
        assertThat(machine.path("name").asText()).isEqualTo("Small");
        assertThat(machine.path("prices").path(0).path("feature").asText()).isEqualTo("resonators");
        Path bad =
                Files.writeString(folder.resolve("bad.json"), "{\"schema\": \"machine-1\", \"name\": 3, \"knobs\": 9}");
        assertThat(run("match", bar(), "--machine", bad, "--out", results)).isEqualTo(1);
        assertThat(run("match", bar(), "--machine", folder.resolve("none.json"), "--out", results))
                .isEqualTo(1);
        assertThat(err.toString())
                .contains("there is no value 'knobs'", "There is no file")
                .doesNotContain("\tat ");
    }

    @Test
    void severalRecordingsGiveMapsOfKeyAndStrength() throws Exception {
        Path high = folder.resolve("high.wav");
        assertThat(run("room", "slate-bars", "--note", "E4", "--velocity", "0.4", "--seed", "6", "--out", high))
                .isZero();
        Path results = folder.resolve("together");
        assertThat(run(
                        "match",
                        bar(),
                        high,
                        "--method",
                        "resonators",
                        "--strengths",
                        "0.8,0.4",
                        "--seconds",
                        "8",
                        "--out",
                        results))
                .isZero();
        JsonNode report =
                new ObjectMapper().readTree(results.resolve("report.json").toFile());
        assertThat(report.path("notes")).hasSize(2);
        assertThat(report.path("notes").path(1).path("key").asInt()).isEqualTo(64);
        assertThat(report.path("maps").has("track.decay")).isTrue();
        assertThat(report.path("meanJnd").asDouble()).isLessThan(4);
        assertThat(Files.exists(results.resolve("recipe.json"))).isTrue();
    }

    @Test
    void unusableInputEndsWithOneLineAndOne() throws Exception {
        Path text = Files.writeString(folder.resolve("text.wav"), "no sound");
        assertThat(run("measure", text)).isEqualTo(1);
        assertThat(err.toString().trim().lines())
                .hasSize(1)
                .first()
                .asString()
                .contains("text.wav is not a sound file");
        assertThat(run("measure", folder.resolve("none.wav"))).isEqualTo(1);
        assertThat(run("match", folder, "--out", folder)).isEqualTo(1);
        assertThat(run("render", text, "--out", folder.resolve("x.wav"))).isEqualTo(1);
        assertThat(err.toString()).doesNotContain("Exception").doesNotContain("\tat ");
    }

    @Test
    void silenceCannotBeMeasured() throws Exception {
        Path silent = folder.resolve("silent.wav");
        WavFiles.write(Clip.mono(new float[48_000], 48_000), WavFiles.Format.PCM16, silent);
        assertThat(run("measure", silent)).isEqualTo(1);
        assertThat(err.toString()).contains("silent");
    }

    @Test
    void aChordIsMeasuredAndNamedButNotMatched() throws Exception {
        double[] x = new double[96_000];
        for (double f0 : new double[] {220, 329.63}) {
            for (int n = 1; n <= 9; n++) {
                for (int i = 9_600; i < x.length; i++) {
                    double t = (i - 9_600) / 48_000.0;
                    x[i] += 0.15 / n * Math.pow(10, -3 * t / 1.1) * Math.sin(2 * Math.PI * n * f0 * t + n);
                }
            }
        }
        Path wav = folder.resolve("two.wav");
        WavFiles.write(Clip.mono(x, 48_000), WavFiles.Format.PCM24, wav);
        assertThat(run("measure", wav)).isZero();
        assertThat(out.toString()).contains("several notes at once, A3 and E4");
        assertThat(run("match", wav, "--out", folder.resolve("m"))).isEqualTo(1);
        assertThat(err.toString()).contains("several notes at once").doesNotContain("Exception");
    }

    @Test
    void resultsThatCannotBeWrittenAreExplained() throws Exception {
        Path wav = bar();
        Path inTheWay = Files.writeString(folder.resolve("file"), "x");
        assertThat(run("measure", wav, "--json", inTheWay.resolve("m.json"))).isEqualTo(1);
        assertThat(err.toString()).contains("m.json was not written").contains("choose another folder");
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "",
                "measure",
                "match in.wav",
                "match in.wav --method tea --out x",
                "match in.wav --layers 3 --out x",
                "match in.wav --size 0 --out x",
                "match in.wav --simplest -1 --out x",
                "match in.wav --size 9 --simplest 1 --out x",
                "match in.wav --method fm --follow --out x",
                "match in.wav --seconds 0 --out x",
                "match in.wav --keys 57 --out x",
                "match in.wav too.wav --keys 57 --out x",
                "match in.wav too.wav --strengths 0.5,2 --out x",
                "match in.wav too.wav --layers 2 --out x",
                "room kazoo --out x.wav",
                "room slate-bars --note H9 --out x.wav",
                "room slate-bars --velocity 7 --out x.wav",
                "render r.json --velocity 2 --out x.wav",
                "render r.json --seconds -1 --out x.wav",
                "dance"
            })
    void wrongUsageEndsWithTwoAndAHint(String command) {
        assertThat(run((Object[]) (command.isEmpty() ? new String[0] : command.split(" "))))
                .isEqualTo(2);
        assertThat(err.toString()).isNotBlank().doesNotContain("\tat ");
    }

    @Test
    void helpNamesEveryCommand() {
        assertThat(run("--help")).isZero();
        assertThat(out.toString()).contains("measure", "match", "render", "compare", "room");
    }

    @Test
    void filesAreAsLoudAsPlayedUnlessSaidOtherwise() throws Exception {
        Path recipe = folder.resolve("start.json");
        assertThat(run("start", bar(), "--method", "resonators", "--out", recipe))
                .isZero();
        Clip usual = rendered(recipe, "--velocity", "0.7");
        Clip hard = rendered(recipe, "--velocity", "1");
        Clip matched = rendered(recipe, "--velocity", "0.7", "--level", "match", "--float");
        Clip peak = rendered(recipe, "--velocity", "0.7", "--level", "peak");
        double playing = new ObjectMapper()
                .readTree(recipe.toFile())
                .path("common")
                .path("playingGainDb")
                .asDouble();

        assertThat(Loudness.loudest(usual)).isLessThan(-17.8);
        assertThat(TruePeak.db(hard)).isBetween(TruePeak.db(usual), -6.8);
        assertThat(TruePeak.db(usual) - TruePeak.db(matched)).isCloseTo(playing, within(0.1));
        assertThat(TruePeak.db(peak)).isBetween(-1.1, -0.95);
        assertThat(run("render", recipe, "--level", "loud", "--out", folder.resolve("x.wav")))
                .isEqualTo(2);
        assertThat(err.toString()).contains("none of as-played, match, peak");
    }

    private Clip rendered(Path recipe, Object... options) throws Exception {
        Path wav = folder.resolve("rendered.wav");
        List<Object> all = new ArrayList<>(List.of("render", recipe, "--seconds", "1", "--out", wav));
        all.addAll(List.of(options));
        assertThat(run(all.toArray())).isZero();
        return SoundFiles.read(wav).clip();
    }
}

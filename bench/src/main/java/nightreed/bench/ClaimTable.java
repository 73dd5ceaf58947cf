package nightreed.bench;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import nightreed.claim.Claim;
import nightreed.claim.Claim.Moving;
import nightreed.claim.ClaimJudge;
import nightreed.claim.Verdict;
import nightreed.claim.Verdict.Answer;
import nightreed.measure.Measurer;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.Movement;
import nightreed.measure.traits.SourceWave;
import nightreed.recipe.FirstRecipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Filter.Kind;
import nightreed.recipe.part.Filter.Slope;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;

/**
 * True and false claims of each kind about synthesized notes of 3 s with noise 40 dB under them: how many are told, and how many wrongly.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.ClaimTable COUNT SEED plain|mixed</pre>
 * <p>Plain notes have one voice. Of mixed ones, two thirds have two or three that beat.
 */
public final class ClaimTable {
    private static final int FS = 44_100;
    private static final double SECONDS = 3;
    private static final double NOISE = 0.01;
    private static final SubtractiveRecipe SAW = (SubtractiveRecipe) FirstRecipe.of("subtractive");
    private static final ResonatorRecipe BAR = (ResonatorRecipe) FirstRecipe.of("resonators");

    private final Map<String, int[]> tally = new TreeMap<>();
    private int sure; // verdicts of 95 to 98 %
    private int surelyRight;

    private ClaimTable() {}

    public static void main(String[] args) throws UnusableSound {
        ClaimTable table = new ClaimTable();
        for (int i = 0; i < Integer.parseInt(args[0]); i++) {
            Random random = new Random((Long.parseLong(args[1]) + i) * 0x9E3779B97F4A7C15L);
            table.held(random, args[2].equals("plain") ? 1 : 1 + random.nextInt(3));
            table.struck(random);
        }
        table.tally.forEach((what, n) ->
                System.out.printf("%-16s supported %4d  refuted %4d  cannot be told %4d%n", what, n[0], n[1], n[2]));
        System.out.printf("of verdicts at 95 to 98 %%: %d of %d right%n", table.surelyRight, table.sure);
    }

    private void held(Random r, int voices) throws UnusableSound {
        Wave[] waves = {Wave.SAW, Wave.PULSE, Wave.PULSE, Wave.TRIANGLE};
        SourceWave.Wave[] names = {
            SourceWave.Wave.SAW, SourceWave.Wave.SQUARE, SourceWave.Wave.PULSE, SourceWave.Wave.TRIANGLE
        };
        int wave = r.nextInt(4);
        double width = wave == 1 ? 0.5 : 0.1 + 0.28 * r.nextDouble();
        int key = 40 + r.nextInt(28);
        double f0 = 440 * Math.pow(2, (key - 69) / 12.0);
        double rise = 0.03 + 0.2 * r.nextDouble();
        Slope slope = r.nextBoolean() ? Slope.DB_12 : Slope.DB_24;
        double cutoff = f0 * (3 + 6 * r.nextDouble());
        boolean opens = r.nextBoolean();
        Filter filter = opens
                ? new Filter(Kind.LOW, slope, cutoff / 8, 0.8, 0, 3, 0, 0, new Envelope(0, rise, 0, 0, 1, 1, 1, 0.2))
                : new Filter(Kind.LOW, slope, cutoff, 0.8, 0, 0, 0, 0, null);
        double[] cents = {0, 9 + 4 * r.nextDouble(), -10 - 3 * r.nextDouble()};
        List<Oscillator> all = new ArrayList<>();
        for (int k = 0; k < voices; k++) {
            all.add(Oscillator.of(waves[wave], 1)
                    .withWidth(width)
                    .withDetuneCents(cents[k])
                    .withPhaseRad(6 * r.nextDouble()));
        }
        int moves = voices > 1 ? 0 : r.nextInt(3); // nothing, pitch, level
        double rate = 3.5 + 4 * r.nextDouble();
        double off = Math.rint(80 * r.nextDouble() - 40);
        Common swing = moves == 0
                ? Common.NONE
                : Common.NONE
                        .withFirst(
                                new Lfo(Lfo.Shape.SINE, rate, Lfo.Per.SECOND, 0, 0, 0, 0.5, 0, false, false, List.of()))
                        .withRoutes(List.of(new Route(
                                Source.LFO_1, moves == 1 ? Target.PITCH : Target.LEVEL, moves == 1 ? 15 : 2.5)));
        SubtractiveRecipe note = SAW.with(b -> b.key(key)
                        .tuningCents(off)
                        .oscillators(all)
                        .amplitude(Envelope.held(opens ? 0.003 : rise, 0.1)))
                .withFilter(filter)
                .withCommon(swing);
        ClaimJudge judge =
                judge(Renderer.asFitted(note, 0.2, SECONDS, SECONDS + 0.4, FS).channel(0), r);
        SourceWave.Wave other = names[(wave + 1 + r.nextInt(3)) % 4];
        count("source", true, judge, new Claim.Source(names[wave]));
        if (wave != 1 || other != SourceWave.Wave.PULSE) { // a square is a pulse
            count("source", false, judge, new Claim.Source(other));
        }
        count("slope", true, judge, new Claim.Slope(slope == Slope.DB_12 ? 12 : 24));
        count("slope", false, judge, new Claim.Slope(slope == Slope.DB_12 ? 24 : 12));
        count("attack", opens, judge, new Claim.Attack(AttackBy.Verdict.FILTER));
        count("attack", !opens, judge, new Claim.Attack(AttackBy.Verdict.AMPLITUDE));
        count("voices", true, judge, new Claim.Voices(voices));
        count("voices", false, judge, new Claim.Voices(voices % 3 + 1));
        if (voices > 1) {
            return; // its tuning is a matter of taste, and its level swings by itself
        }
        count("tuning", true, judge, new Claim.Tuning(off));
        count("tuning", false, judge, new Claim.Tuning(off > 0 ? off - 15 : off + 15));
        for (Moving of : List.of(Moving.PITCH, Moving.LEVEL)) {
            boolean is = moves == (of == Moving.PITCH ? 1 : 2);
            if (of == Moving.LEVEL && moves == 1) {
                continue; // harmonics that swing past a filter's edge swing in level
            }
            count("moves", is, judge, new Claim.Moves(of, is ? Movement.Shape.SINE : null, rate));
            count("still", !is, judge, new Claim.Still(of));
            if (is) {
                count("rate", false, judge, new Claim.Moves(of, null, 1.3 * rate));
            }
        }
    }

    /** Bars with an echo or without. */
    private void struck(Random r) throws UnusableSound {
        boolean repeats = r.nextBoolean();
        double delay = 0.15 + 0.35 * r.nextDouble();
        int key = 55 + r.nextInt(24);
        float[] dry =
                Renderer.asFitted(BAR.onKey(key), 0.2, SECONDS, SECONDS, FS).channel(0);
        int late = (int) (delay * FS);
        float[] x = Arrays.copyOf(dry, dry.length + late);
        for (int i = 0; repeats && i < dry.length; i++) {
            x[i + late] += 0.4f * dry[i];
        }
        ClaimJudge judge = judge(x, r);
        count("echo", repeats, judge, new Claim.Echoes(late / (double) FS));
        if (repeats) {
            count("echo", false, judge, new Claim.Echoes(1.3 * delay));
        }
    }

    private static ClaimJudge judge(float[] sound, Random r) throws UnusableSound {
        float[] x = sound.clone();
        double square = 0;
        for (float v : x) {
            square += v * v;
        }
        for (int i = 0; i < x.length; i++) {
            x[i] += (float) (NOISE * Math.sqrt(square / x.length) * r.nextGaussian());
        }
        Clip clip = Clip.mono(x, FS);
        return new ClaimJudge(Measurer.measure(clip), clip);
    }

    private void count(String kind, boolean truth, ClaimJudge judge, Claim claim) {
        Verdict v = judge.of(claim);
        int at = v.answer() == Answer.SUPPORTED ? 0 : v.answer() == Answer.REFUTED ? 1 : 2;
        tally.computeIfAbsent(kind + (truth ? ", true" : ", false"), k -> new int[3])[at]++;
        if (at < 2 && v.odds() < 0.98) {
            sure++;
            surelyRight += (at == 0) == truth ? 1 : 0;
        }
        if (at < 2 && (at == 0) != truth) {
            System.out.println("wrong, " + v.answer().title() + ": " + claim.words() + "; " + v.why());
        }
    }
}

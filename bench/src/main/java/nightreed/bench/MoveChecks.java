package nightreed.bench;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import nightreed.match.advice.Move;
import nightreed.match.advice.NextMoves;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.compare.PerceptualComparator;
import nightreed.match.method.Starts;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.room.RecordingRoom;
import nightreed.work.Progress;

/**
 * Whether the first next move keeps its promise: recipes of all methods from the recording room's notes, three values of each
 * put off by chance, the first move applied, rendered and measured afresh; and so on, if more in a row are wanted.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.MoveChecks HOW_MANY SEED [IN_A_ROW]</pre>
 */
public final class MoveChecks {
    private MoveChecks() {}

    public static void main(String[] args) throws Exception {
        int wanted = Integer.parseInt(args[0]);
        Random chance = new Random(Long.parseLong(args[1]));
        List<RecordingRoom.Instrument> players = RecordingRoom.instruments();
        int inARow = args.length > 2 ? Integer.parseInt(args[2]) : 1;
        Tally tally = new Tally();
        for (int n = 0; n < wanted; n++) {
            RecordingRoom.Instrument p = players.get(n % players.size());
            AnalysedSound side =
                    ImitationRenderer.side(RecordingRoom.record(p, p.usualKey(), 0.6, 5000 + n), Progress.NONE);
            String method = Starts.METHODS.get(n / players.size() % Starts.METHODS.size());
            walk(p.id() + " " + method, side, putOff(Starts.of(method, side).recipe(), chance), inARow, tally);
        }
        System.out.printf(
                Locale.ROOT,
                "%d recipes: the first move lowered the distance in %d, none was found in %d; mean fall %.2f JND%n"
                        + "%d moves in all, of which %d raised it; %.2f JND at first, %.2f in the end%n",
                wanted,
                tally.lower,
                tally.none,
                tally.fall / wanted,
                tally.moves,
                tally.rises,
                tally.first / wanted,
                tally.last / wanted);
    }

    /** What came of all moves. */
    private static final class Tally {
        private int lower;
        private int none;
        private int moves;
        private int rises;
        private double fall;
        private double first;
        private double last;
    }

    private static void walk(String name, AnalysedSound side, Recipe off, int inARow, Tally tally) throws Exception {
        Recipe now = off;
        Comparison before = fresh(side, now);
        tally.first += before.totalJnd();
        for (int k = 0; k < inARow; k++) {
            List<Move> moves = NextMoves.of(side, now, before, Progress.NONE);
            if (moves.isEmpty()) {
                tally.none += k == 0 ? 1 : 0;
                System.out.printf(Locale.ROOT, "%s: no move %d at %.2f JND%n", name, k + 1, before.totalJnd());
                break;
            }
            Move m = moves.get(0);
            now = now.with(m.parameter().id(), m.to());
            Comparison after = fresh(side, now);
            double fall = before.totalJnd() - after.totalJnd();
            tally.moves++;
            if (fall <= 0) {
                tally.rises++;
                System.out.printf(
                        Locale.ROOT,
                        "%s: move %d, %s, from %.3f to %.3f JND, promised %.3f%n",
                        name,
                        k + 1,
                        m.parameter().id(),
                        before.totalJnd(),
                        after.totalJnd(),
                        m.predictedJnd());
            }
            tally.lower += k == 0 && fall > 0 ? 1 : 0;
            tally.fall += k == 0 ? fall : 0;
            before = after;
        }
        tally.last += before.totalJnd();
    }

    private static Comparison fresh(AnalysedSound side, Recipe recipe) throws Exception {
        return PerceptualComparator.compare(side, ImitationRenderer.rendered(ImitationRenderer.render(recipe, side)));
    }

    private static Recipe putOff(Recipe recipe, Random chance) {
        Recipe r = recipe;
        List<Recipe.Setting> numbers = recipe.settings().stream()
                .filter(s -> s.parameter().law() != Parameter.Law.CHOICE
                        && s.parameter().group() != Group.PLAYING
                        && s.parameter().group() != Group.SPACE
                        && !s.parameter().id().endsWith("pan"))
                .toList();
        for (int k = 0; k < 3; k++) {
            Recipe.Setting s = numbers.get(chance.nextInt(numbers.size()));
            Parameter p = s.parameter().around(s.value());
            try {
                r = r.with(p.id(), p.at(p.position(s.value()) + 0.3 * (chance.nextDouble() - 0.5)));
            } catch (IllegalArgumentException touchesAnother) {
                k--;
            }
        }
        return r;
    }
}

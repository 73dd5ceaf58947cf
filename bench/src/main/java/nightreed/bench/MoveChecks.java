package nightreed.bench;

import java.util.List;
import java.util.Locale;
import java.util.Random;
import nightreed.match.Comparison;
import nightreed.match.Listener;
import nightreed.match.Matcher;
import nightreed.match.Move;
import nightreed.match.NextMoves;
import nightreed.match.Side;
import nightreed.match.start.Starts;
import nightreed.measure.Progress;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.room.RecordingRoom;

/**
 * Whether the first next move keeps its promise: recipes of all methods from the recording room's notes, three values of each
 * put off by chance, the first move applied, rendered and measured afresh.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.MoveChecks HOW_MANY SEED</pre>
 */
public final class MoveChecks {
    private MoveChecks() {}

    public static void main(String[] args) throws Exception {
        int wanted = Integer.parseInt(args[0]);
        Random chance = new Random(Long.parseLong(args[1]));
        List<RecordingRoom.Instrument> players = RecordingRoom.instruments();
        int lower = 0;
        int none = 0;
        double fall = 0;
        for (int n = 0; n < wanted; n++) {
            RecordingRoom.Instrument p = players.get(n % players.size());
            Side side = Matcher.side(RecordingRoom.record(p, p.usualKey(), 0.6, 5000 + n), Progress.NONE);
            String method = Starts.METHODS.get(n / players.size() % Starts.METHODS.size());
            Recipe off = putOff(Starts.of(method, side).recipe(), chance);
            Comparison before = Listener.compare(side, Matcher.imitation(side, off));
            List<Move> moves = NextMoves.of(side, off, before, Progress.NONE);
            if (moves.isEmpty()) {
                none++;
                System.out.println(p.id() + " " + method + ": no move found at " + before.totalJnd() + " JND");
                continue;
            }
            Move m = moves.get(0);
            Recipe moved = off.with(m.parameter().id(), m.to());
            double after =
                    Listener.compare(side, Matcher.imitation(side, moved)).totalJnd();
            lower += after < before.totalJnd() ? 1 : 0;
            fall += before.totalJnd() - after;
        }
        System.out.printf(
                Locale.ROOT,
                "%d recipes: the first move lowered the distance in %d, none was found in %d; mean fall %.2f JND%n",
                wanted,
                lower,
                none,
                fall / wanted);
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

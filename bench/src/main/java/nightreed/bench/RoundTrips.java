package nightreed.bench;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import nightreed.match.Matcher;
import nightreed.match.Side;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.fit.Plan;
import nightreed.match.start.Starts;
import nightreed.measure.Progress;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.room.RecordingRoom;
import nightreed.sound.UnusableSound;
import nightreed.voice.Renderer;

/**
 * Whether a method finds its own sounds again: recipes put off by chance in every value, rendered, measured, and fitted by the
 * same method. A vibrato is put off by up to a semitone: no instrument has a wider one.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.RoundTrips METHOD HOW_MANY SEED</pre>
 */
public final class RoundTrips {
    private static final double WIDEST_VIBRATO_CENTS = 100;

    private RoundTrips() {}

    public static void main(String[] args) throws Exception {
        String method = args[0];
        int wanted = Integer.parseInt(args[1]);
        Random chance = new Random(Long.parseLong(args[2]));
        List<RecordingRoom.Instrument> players = RecordingRoom.instruments();
        List<Double> totals = new ArrayList<>();
        for (int n = 0; totals.size() < wanted; n++) {
            RecordingRoom.Instrument p = players.get(n % players.size());
            try {
                Side room = Matcher.side(RecordingRoom.record(p, p.usualKey(), 0.6, 7000 + n), Progress.NONE);
                Recipe made = anyOf(Starts.of(method, room).recipe(), chance);
                Side sound = Matcher.rendered(Renderer.asFitted(
                        made,
                        0.1,
                        room.keySeconds(),
                        room.measurement().durationSeconds(),
                        room.measurement().sampleRateHz()));
                Fitted found = Fits.of(method, sound, Plan.USUAL, Progress.NONE);
                totals.add(found.comparison().totalJnd());
                System.out.printf(
                        Locale.ROOT,
                        "%s %s %.2f worst %s %.2f%n",
                        p.id(),
                        method,
                        found.comparison().totalJnd(),
                        found.comparison().worst().id(),
                        found.comparison().worstJnd());
            } catch (UnusableSound e) {
                System.out.println(p.id() + " " + method + ": " + e.getMessage());
            }
        }
        long near = totals.stream().filter(t -> t <= 1).count();
        System.out.printf(Locale.ROOT, "%s: %d of %d within 1 JND%n", method, near, wanted);
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

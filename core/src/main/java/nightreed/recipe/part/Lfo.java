package nightreed.recipe.part;

import java.util.List;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;

/**
 * A slow oscillation from -1 to 1.
 *
 * @param points corners of a drawn zigzag, evenly spaced over one cycle, 2 to 32 values of -1 to 1; empty for a triangle
 */
public record Lfo(
        @ParameterSpec(name = "shape", group = Group.MOVEMENT, neutral = 0, meaning = "Course of one cycle.")
        Shape shape,

        @ParameterSpec(
                name = "rate",
                least = 0.01,
                most = 50,
                law = Law.LOGARITHMIC,
                group = Group.MOVEMENT,
                meaning = "Cycles a second, a quarter note or a bar.")
        double rate,

        @ParameterSpec(name = "rate per", group = Group.MOVEMENT, neutral = 0, meaning = "What the rate is counted by.")
        Per per,

        @ParameterSpec(
                id = "start",
                name = "start",
                unit = "°",
                most = 360,
                decimals = 0,
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "Where in its cycle it starts.")
        double startDegrees,

        @ParameterSpec(
                name = "delay",
                unit = "s",
                most = 10,
                law = Law.ROOT,
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "Waits after key-down.")
        double delaySeconds,

        @ParameterSpec(
                name = "fade-in",
                unit = "s",
                most = 10,
                law = Law.ROOT,
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "Time in which it grows to its full depth.")
        double fadeSeconds,

        @ParameterSpec(
                name = "duty",
                least = 0.02,
                most = 0.98,
                group = Group.MOVEMENT,
                neutral = 0.5,
                meaning = "Share of the cycle that a square is up, or a triangle rises.")
        double duty,

        @ParameterSpec(
                name = "edge",
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "How much of each half a square or a step takes to get there.")
        double edge,

        @ParameterSpec(
                name = "free-running",
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "On: it never starts anew with a note.")
        boolean free,

        @ParameterSpec(name = "common", group = Group.MOVEMENT, neutral = 0, meaning = "On: all notes share one.")
        boolean common,

        List<Double> points)
        implements PartlyIdle {
    /** Sine vibrato as a player would. */
    public static final Lfo USUAL = new Lfo(Shape.SINE, 5.5, Per.SECOND, 0, 0, 0, 0.5, 0, false, false, List.of());

    private static final int MOST_POINTS = 32;

    /** Course of one cycle. */
    public enum Shape {
        SINE,
        TRIANGLE,
        SQUARE,
        /** A new random value each cycle. */
        RANDOM_STEPS,
        /** Straight lines between drawn corners. */
        ZIGZAG
    }

    /** What a rate is counted by. */
    public enum Per {
        SECOND,
        QUARTER,
        /** Of four quarters. */
        BAR
    }

    public Lfo {
        points = points == null ? List.of() : List.copyOf(points);
        ParameterAccess.check(
                Lfo.class, shape, rate, per, startDegrees, delaySeconds, fadeSeconds, duty, edge, free, common);
        if (points.size() > MOST_POINTS || points.size() == 1) {
            throw new IllegalArgumentException("a zigzag has 2 to " + MOST_POINTS + " corners, got " + points.size());
        }
        points.forEach(p -> Range.check("corner of a zigzag", p, -1, 1, ""));
    }

    /** A vibrato-like sine that comes in late. */
    public static Lfo late(double rateHz, double delaySeconds, double fadeSeconds) {
        return new Lfo(
                Shape.SINE,
                Math.max(0.01, Math.min(50, rateHz)),
                Per.SECOND,
                0,
                delaySeconds,
                fadeSeconds,
                0.5,
                0,
                false,
                false,
                List.of());
    }

    /** Rate [Hz]. @param bpm quarters a minute */
    public double hz(double bpm) {
        return switch (per) {
            case SECOND -> rate;
            case QUARTER -> rate * bpm / 60;
            case BAR -> rate * bpm / 240;
        };
    }

    /** Share of its depth that has come in. @param t time since key-down [s] */
    public double grown(double t) {
        double x = t - delaySeconds;
        return x <= 0 && delaySeconds > 0 ? 0 : fadeSeconds <= 0 ? 1 : Math.max(0, Math.min(1, x / fadeSeconds));
    }

    /**
     * Value, -1 to 1.
     *
     * @param cycles cycles since its start, fractions included, start phase not included
     * @param seed   of the random steps
     */
    public double at(double cycles, long seed) {
        double whole = cycles + startDegrees / 360;
        double x = whole - Math.floor(whole);
        return switch (shape) {
            case SINE -> Math.sin(2 * Math.PI * x);
            case TRIANGLE -> triangle(x);
            case SQUARE -> x < duty ? ramp(x / duty, -1, 1) : ramp((x - duty) / (1 - duty), 1, -1);
            case RANDOM_STEPS -> {
                long n = (long) Math.floor(whole);
                yield ramp(x, chance(n - 1, seed), chance(n, seed));
            }
            case ZIGZAG -> {
                if (points.isEmpty()) {
                    yield triangle(x);
                }
                int i = (int) (x * points.size());
                double a = points.get(i % points.size());
                yield a + (x * points.size() - i) * (points.get((i + 1) % points.size()) - a);
            }
        };
    }

    /** Starts at 0 and rises, as the sine does. */
    private double triangle(double x) {
        double y = x + duty / 2;
        y -= Math.floor(y);
        return y < duty ? 2 * y / duty - 1 : 1 - 2 * (y - duty) / (1 - duty);
    }

    /** From one value to the next within the edge. */
    private double ramp(double x, double from, double to) {
        return x >= edge ? to : from + (to - from) * (0.5 - 0.5 * Math.cos(Math.PI * x / edge));
    }

    private static double chance(long n, long seed) {
        long z = (n + seed * 7919) * 0x9E3779B97F4A7C15L;
        z = (z ^ (z >>> 30)) * 0xBF58476D1CE4E5B9L;
        z = (z ^ (z >>> 27)) * 0x94D049BB133111EBL;
        return ((z ^ (z >>> 31)) >>> 11) * 0x1.0p-52 - 1;
    }

    @Override
    public boolean inEffect(String id) {
        return switch (id) {
            case "duty" -> shape == Shape.SQUARE || shape == Shape.TRIANGLE;
            case "edge" -> shape == Shape.SQUARE || shape == Shape.RANDOM_STEPS;
            default -> true;
        };
    }
}

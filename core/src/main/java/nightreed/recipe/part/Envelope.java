package nightreed.recipe.part;

import io.soabase.recordbuilder.core.RecordBuilder;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;

/**
 * A course from 0 to 1 and back: delay, attack, hold, decay to a sustained value, release. Each slope is bent by a curve c:
 * (1 - e^(-kx)) / (1 - e^(-k)) with k = c·ln 1000, so that 0 is a straight line and a fall with 1 is that of a body that
 * loses 60 dB in the time given; a negative curve starts slowly. A pure function of time: voices and drawings read it alike.
 */
@RecordBuilder
public record Envelope(
        @ParameterSpec(
                name = "delay",
                unit = "s",
                most = 10,
                law = Law.ROOT,
                decimals = 3,
                group = Group.SHAPING,
                neutral = 0,
                meaning = "Waits before it starts.")
        double delaySeconds,

        @ParameterSpec(
                name = "attack",
                unit = "s",
                most = 20,
                law = Law.ROOT,
                decimals = 4,
                group = Group.SHAPING,
                neutral = 0,
                meaning = "Time to rise to its top.")
        double attackSeconds,

        @ParameterSpec(
                name = "attack curve",
                least = -1,
                group = Group.SHAPING,
                neutral = 0,
                meaning = "Bend of the rise: above 0 fast at first, below 0 slow at first.")
        double attackCurve,

        @ParameterSpec(
                name = "hold",
                unit = "s",
                most = 20,
                law = Law.ROOT,
                decimals = 3,
                group = Group.SHAPING,
                neutral = 0,
                meaning = "Stays at its top for so long.")
        double holdSeconds,

        @ParameterSpec(
                name = "decay",
                unit = "s",
                most = 100,
                law = Law.ROOT,
                decimals = 3,
                group = Group.SHAPING,
                meaning = "Time to fall to where it stays.")
        double decaySeconds,

        @ParameterSpec(
                name = "fall curve",
                least = -1,
                group = Group.SHAPING,
                neutral = 1,
                meaning = "Bend of decay and release: 1 falls like a struck body.")
        double fallCurve,

        @ParameterSpec(
                name = "sustain",
                group = Group.SHAPING,
                neutral = {0, 1},
                meaning = "Where it stays while the key is held, as a share of its top.")
        double sustain,

        @ParameterSpec(
                name = "release",
                unit = "s",
                most = 100,
                law = Law.ROOT,
                decimals = 3,
                group = Group.SHAPING,
                meaning = "Time to fall to nothing after the key is let go.")
        double releaseSeconds)
        implements EnvelopeBuilder.With, PartlyIdle {
    private static final double SIXTY_DB = Math.log(1000);

    /** On at once, until the key is let go. */
    public static final Envelope USUAL = new Envelope(0, 0.005, 0, 0, 0.5, 1, 1, 0.2);

    public Envelope {
        ParameterAccess.check(
                Envelope.class,
                delaySeconds,
                attackSeconds,
                attackCurve,
                holdSeconds,
                decaySeconds,
                fallCurve,
                sustain,
                releaseSeconds);
    }

    /** Falls like a struck body. @param t60Seconds time for 60 dB, up to 100 s */
    public static Envelope struck(double attackSeconds, double t60Seconds, double releaseSeconds) {
        return new Envelope(0, attackSeconds, 0, 0, t60Seconds, 1, 0, releaseSeconds);
    }

    /** Rises and stays until the key is let go. */
    public static Envelope held(double attackSeconds, double releaseSeconds) {
        return new Envelope(0, attackSeconds, 0, 0, 0, 1, 1, releaseSeconds);
    }

    public Envelope withRelease(double seconds) {
        return withReleaseSeconds(seconds);
    }

    /** Value while the key is held. @param t time since key-down [s] @param pace factor on all times after the attack, above 0 */
    public double at(double t, double pace) {
        double x = t - delaySeconds;
        if (x < 0) {
            return 0;
        }
        if (x < attackSeconds) {
            return bent(x / attackSeconds, attackCurve);
        }
        x -= attackSeconds + holdSeconds * pace;
        double decay = decaySeconds * pace;
        if (x < 0) {
            return 1;
        }
        return x < decay ? 1 - (1 - sustain) * bent(x / decay, fallCurve) : sustain;
    }

    /** Value after key-up. @param level where it was then @param t time since key-up [s] */
    public double released(double level, double t) {
        return t < releaseSeconds ? level * (1 - bent(t / releaseSeconds, fallCurve)) : 0;
    }

    /** Whether it ends by itself while the key is held. */
    public boolean dies() {
        return sustain == 0;
    }

    /** Time from key-down until it stays where it is [s]. */
    public double settledSeconds() {
        return delaySeconds + attackSeconds + holdSeconds + decaySeconds;
    }

    private static double bent(double x, double curve) {
        double k = SIXTY_DB * curve;
        return Math.abs(k) < 1e-6 ? x : -Math.expm1(-k * x) / -Math.expm1(-k);
    }

    @Override
    public boolean inEffect(String id) {
        return switch (id) {
            case "decay", "fallCurve" -> sustain < 1;
            case "release" -> sustain > 0;
            default -> true;
        };
    }
}

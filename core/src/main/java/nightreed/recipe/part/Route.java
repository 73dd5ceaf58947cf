package nightreed.recipe.part;

import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;

/** One way from something that moves to something that is moved. */
public record Route(
        @ParameterSpec(name = "from", group = Group.MOVEMENT, neutral = 0, meaning = "What moves it.")
        Source source,

        @ParameterSpec(name = "to", group = Group.MOVEMENT, neutral = 0, meaning = "What is moved.")
        Target target,

        @ParameterSpec(
                name = "depth",
                least = -9600,
                most = 9600,
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "How far, in the unit of what is moved.")
        double depth,

        @ParameterSpec(
                name = "curve",
                least = -1,
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "Of strength only: above 0 hard strikes do most of it, below 0 soft ones do.")
        Double curve)
        implements Refined, Repeatable, PartlyIdle {
    public static final Route USUAL = new Route(Source.LFO_1, Target.PITCH, 15);

    /** What moves. */
    public enum Source {
        /** -1 to 1. */
        LFO_1,
        /** -1 to 1. */
        LFO_2,
        /** 0 to 1. */
        ENVELOPE,
        /** Velocity less the reference velocity: -1 to 1. */
        VELOCITY,
        /** Octaves above the recipe's key. */
        KEY,
        /** 0 to 1. */
        WHEEL,
        /** -1 to 1, another for each note. */
        CHANCE
    }

    /** What is moved. */
    public enum Target {
        PITCH("cents", 4800),
        LEVEL("dB", 60),
        PAN("", 1),
        /** Cutoff of the filters, brightness of a loop. */
        CUTOFF("oct", 8),
        /** Index of all pairs. */
        INDEX("oct", 6),
        /** Second oscillator, or modulators, against the first. */
        INTERVAL("cents", 4800),
        /** Width of pulses. */
        WIDTH("", 0.5),
        /** Centres of all formants. */
        SHIFT("cents", 4800),
        /** Decay of loops and modes. */
        DECAY("oct", 6),
        /** Breath, bow or strike noise. */
        NOISE("dB", 60),
        /** Depth of the first LFO. */
        LFO_1_DEPTH("oct", 6),
        /** Rate of the first LFO. */
        LFO_1_RATE("oct", 4),
        /** Depth of the envelopes of filters. */
        SWEEP("oct", 8);

        private final String unit;
        private final double most;

        Target(String unit, double most) {
            this.unit = unit;
            this.most = most;
        }

        public String unit() {
            return unit;
        }

        /** Largest depth either way. */
        public double most() {
            return most;
        }
    }

    public Route(Source source, Target target, double depth) {
        this(source, target, depth, 0.0);
    }

    public Route {
        curve = curve == null ? 0 : curve;
        ParameterAccess.check(Route.class, source, target, depth, curve);
        Range.check("depth to " + target, depth, -target.most(), target.most(), target.unit());
    }

    @Override
    public Parameter refined(String component, Parameter general) {
        return component.equals("depth")
                ? general.ranging(-target.most(), target.most(), Law.LINEAR, target.unit(), target.most() > 100 ? 1 : 2)
                : general;
    }

    @Override
    public boolean inEffect(String id) {
        return depth != 0;
    }
}

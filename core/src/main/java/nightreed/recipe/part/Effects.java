package nightreed.recipe.part;

import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;

/** What the sound passes on its way out, in this order; each is null if it is not there. */
public record Effects(
        @Part(id = "drive", name = "drive", group = Group.SHAPING)
        Drive drive,

        @Part(id = "chorus", name = "chorus", group = Group.SPACE)
        Chorus chorus,

        @Part(id = "tremolo", name = "tremolo", group = Group.SPACE)
        Tremolo tremolo,

        @Part(id = "delay", name = "delay", group = Group.SPACE)
        Delay delay,

        @Part(id = "reverb", name = "reverb", group = Group.SPACE)
        Reverb reverb,

        @Part(id = "tone", name = "tone", group = Group.SPACE)
        Tone tone) {
    public static final Effects NONE = new Effects(null, null, null, null, null, null);

    public boolean any() {
        return !equals(NONE);
    }

    /** Bends the wave, y = tanh(gx)/tanh(g), oversampled. */
    public record Drive(
            @ParameterSpec(name = "amount", unit = "dB", most = 48, decimals = 1, meaning = "Gain into the bend.")
            double amountDb,

            @ParameterSpec(name = "mix", meaning = "Share of the bent sound.")
            double mix) {
        public static final Drive USUAL = new Drive(12, 1);

        public Drive {
            ParameterAccess.check(Drive.class, amountDb, mix);
        }
    }

    /** One or two slowly moving copies beside the sound. */
    public record Chorus(
            @ParameterSpec(
                    name = "rate",
                    unit = "Hz",
                    least = 0.05,
                    most = 10,
                    law = Law.LOGARITHMIC,
                    meaning = "How fast the copies move.")
            double rateHz,

            @ParameterSpec(name = "depth", unit = "ms", most = 8, law = Law.ROOT, meaning = "How far they move.")
            double depthMs,

            @ParameterSpec(name = "mix", meaning = "Level of the copies against the sound.")
            double mix,

            @ParameterSpec(name = "width", meaning = "How far the copies stand apart, left and right.")
            double width) {
        public static final Chorus USUAL = new Chorus(0.8, 1.5, 0.4, 1);

        public Chorus {
            ParameterAccess.check(Chorus.class, rateHz, depthMs, mix, width);
        }

        /** Largest swing of the copies' pitch: 1200·log2(1 + 2π·rate·depth) [cents]. */
        public double swingCents() {
            return 1200 * Math.log(1 + 2 * Math.PI * rateHz * depthMs / 1000) / Math.log(2);
        }
    }

    /** Level that goes up and down. */
    public record Tremolo(
            @ParameterSpec(
                    name = "rate",
                    unit = "Hz",
                    least = 0.05,
                    most = 20,
                    law = Law.LOGARITHMIC,
                    meaning = "How fast it goes up and down.")
            double rateHz,

            @ParameterSpec(name = "depth", unit = "dB", most = 40, decimals = 1, meaning = "From loudest to softest.")
            double depthDb,

            @ParameterSpec(name = "sides", meaning = "1: left is loud while right is soft.")
            double sides) {
        public static final Tremolo USUAL = new Tremolo(5, 6, 0);

        public Tremolo {
            ParameterAccess.check(Tremolo.class, rateHz, depthDb, sides);
        }
    }

    /** Repeats. */
    public record Delay(
            @ParameterSpec(
                    name = "time",
                    least = 0.01,
                    most = 4,
                    law = Law.LOGARITHMIC,
                    decimals = 3,
                    meaning = "Between repeats, in seconds or quarters.")
            double time,

            @ParameterSpec(
                    name = "time in quarters",
                    meaning = "On: the time is counted in quarter notes of the tempo.")
            boolean quarters,

            @ParameterSpec(name = "feedback", most = 0.95, meaning = "How much of each repeat is repeated.")
            double feedback,

            @ParameterSpec(name = "mix", meaning = "Level of the first repeat.")
            double mix,

            @ParameterSpec(name = "side", least = -1, meaning = "Where the first repeat comes from: -1 left, 1 right.")
            double side,

            @ParameterSpec(name = "ping-pong", meaning = "On: repeats change sides.")
            boolean pingPong,

            @ParameterSpec(
                    name = "high cut",
                    unit = "Hz",
                    least = 200,
                    most = 20_000,
                    law = Law.LOGARITHMIC,
                    decimals = 0,
                    meaning = "Darkens each repeat.")
            double highCutHz) {
        public static final Delay USUAL = new Delay(0.5, true, 0.35, 0.3, 0, false, 6000);
        /** Longest time between repeats [s]; a longer one is held at it. */
        public static final double MOST_SECONDS = 4;

        public Delay {
            ParameterAccess.check(Delay.class, time, quarters, feedback, mix, side, pingPong, highCutHz);
        }

        /** Between repeats [s]. */
        public double seconds(double bpm) {
            return Math.min(MOST_SECONDS, quarters ? time * 60 / bpm : time);
        }
    }

    /** A room, from a cupboard to a hall. */
    public record Reverb(
            @ParameterSpec(name = "size", meaning = "0 a small room, 1 a hall.")
            double size,

            @ParameterSpec(
                    id = "t60",
                    name = "T60",
                    unit = "s",
                    least = 0.1,
                    most = 15,
                    law = Law.LOGARITHMIC,
                    meaning = "Time the room takes to fall by 60 dB.")
            double t60Seconds,

            @ParameterSpec(
                    name = "pre-delay",
                    unit = "ms",
                    most = 200,
                    decimals = 0,
                    meaning = "Before the room answers.")
            double preDelayMs,

            @ParameterSpec(
                    name = "low cut",
                    unit = "Hz",
                    least = 20,
                    most = 1000,
                    law = Law.LOGARITHMIC,
                    decimals = 0,
                    meaning = "Keeps the boom out of the room.")
            double lowCutHz,

            @ParameterSpec(
                    name = "high damping",
                    unit = "Hz",
                    least = 500,
                    most = 20_000,
                    law = Law.LOGARITHMIC,
                    decimals = 0,
                    meaning = "Above this the room dies twice as fast.")
            double dampingHz,

            @ParameterSpec(name = "mix", meaning = "Level of the room against the sound.")
            double mix) {
        public static final Reverb USUAL = new Reverb(0.4, 1.2, 15, 120, 5000, 0.25);

        public Reverb {
            ParameterAccess.check(Reverb.class, size, t60Seconds, preDelayMs, lowCutHz, dampingHz, mix);
        }
    }

    /** What is taken off at both ends at last, 12 dB per octave. */
    public record Tone(
            @ParameterSpec(
                    name = "low cut",
                    unit = "Hz",
                    least = 10,
                    most = 2000,
                    law = Law.LOGARITHMIC,
                    decimals = 0,
                    meaning = "Takes away what lies under it.")
            double lowCutHz,

            @ParameterSpec(
                    name = "high cut",
                    unit = "Hz",
                    least = 200,
                    most = 20_000,
                    law = Law.LOGARITHMIC,
                    decimals = 0,
                    meaning = "Takes away what lies over it.")
            double highCutHz) {
        public static final Tone USUAL = new Tone(30, 16_000);

        public Tone {
            ParameterAccess.check(Tone.class, lowCutHz, highCutHz);
        }
    }
}

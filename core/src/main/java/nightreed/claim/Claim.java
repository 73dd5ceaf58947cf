package nightreed.claim;

import java.util.Locale;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.Movement;
import nightreed.measure.traits.SourceWave;

/** Something that is said of a sound, exactly enough to be true or false. */
public sealed interface Claim {
    /** In words for people. */
    String words();

    /** What may move. */
    enum Moving {
        PITCH,
        LEVEL,
        CUTOFF;

        String title() {
            return this == CUTOFF ? "filter" : name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * That something swings.
     *
     * @param shape  null if nothing is said of it
     * @param rateHz null if nothing is said of it [Hz]
     */
    record Moves(Moving of, Movement.Shape shape, Double rateHz) implements Claim {
        public Moves {
            check(rateHz == null || rateHz > 0 && rateHz <= 100, "a rate is above 0, up to 100 Hz");
        }

        @Override
        public String words() {
            return "The " + of.title() + " moves"
                    + (shape == null ? "" : ", as a " + shape.title())
                    + (rateHz == null ? "" : String.format(Locale.ROOT, ", at %.2f Hz", rateHz));
        }
    }

    /** That something does not swing. */
    record Still(Moving of) implements Claim {
        @Override
        public String words() {
            return "The " + of.title() + " does not move";
        }
    }

    /** That a wave stands behind it. */
    record Source(SourceWave.Wave wave) implements Claim {
        @Override
        public String words() {
            return "It is a " + wave.title() + " wave";
        }
    }

    /** That it goes through a low-pass of such a slope [dB/octave]. */
    record Slope(double dbPerOctave) implements Claim {
        public Slope {
            check(dbPerOctave >= 0 && dbPerOctave <= 48, "a slope is 0 to 48 dB per octave");
        }

        @Override
        public String words() {
            return String.format(Locale.ROOT, "The filter falls by %.0f dB per octave", dbPerOctave);
        }
    }

    /** That its start is made by the level, or by a filter that opens. */
    record Attack(AttackBy.Verdict by) implements Claim {
        @Override
        public String words() {
            return switch (by) {
                case AMPLITUDE -> "The start is a rise of the level";
                case FILTER -> "The start is a filter that opens";
                default -> "The start is a rise of the level and a filter that opens";
            };
        }
    }

    /** That it is so far off concert pitch [cents]. */
    record Tuning(double cents) implements Claim {
        public Tuning {
            check(Math.abs(cents) <= 100, "a tuning is within 100 cents");
        }

        @Override
        public String words() {
            return String.format(Locale.ROOT, "It is %+.0f cents off concert pitch", cents);
        }
    }

    /** That it is repeated after such a time [s]. */
    record Echoes(double seconds) implements Claim {
        public Echoes {
            check(seconds > 0 && seconds <= 10, "an echo comes after 0 to 10 s");
        }

        @Override
        public String words() {
            return String.format(Locale.ROOT, "There is an echo after %.0f ms", 1000 * seconds);
        }
    }

    /** That so many voices or waves sound, detuned. */
    record Voices(int count) implements Claim {
        public Voices {
            check(count >= 1 && count <= 16, "voices are 1 to 16");
        }

        @Override
        public String words() {
            return count == 1 ? "It is one voice" : count + " voices, detuned";
        }
    }

    private static void check(boolean right, String otherwise) {
        if (!right) {
            throw new IllegalArgumentException(otherwise);
        }
    }
}

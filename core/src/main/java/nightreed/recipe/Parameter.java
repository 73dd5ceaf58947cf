package nightreed.recipe;

import java.util.Locale;

/**
 * One value that can be set, described once for everything that shows, stores or moves it.
 *
 * @param id      stable name for files and scripts, such as {@code mode.2.t60}
 * @param group   part of the sound's way it belongs to
 * @param name    what people call it
 * @param unit    unit after the number, empty for plain numbers
 * @param least   smallest value
 * @param most    largest value
 * @param law     how the range is spread over a ruler
 * @param decimals digits after the point that make sense
 * @param meaning one line on what it does to the sound
 */
public record Parameter(
        String id,
        Group group,
        String name,
        String unit,
        double least,
        double most,
        Law law,
        int decimals,
        String meaning) {
    /** In the order the sound travels. */
    public enum Group {
        EXCITER("Strike"),
        SOURCE("Body"),
        PLAYING("Playing");

        private final String title;

        Group(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** How a range is spread. */
    public enum Law {
        LINEAR,
        /** Equal ratios take equal room; for ranges above 0. */
        LOGARITHMIC
    }

    public Parameter {
        if (!(least < most) || law == Law.LOGARITHMIC && !(least > 0)) {
            throw new IllegalArgumentException("range of " + id + " makes no sense: " + least + " to " + most);
        }
    }

    /** Place of a value on the ruler, 0 to 1. */
    public double position(double value) {
        double v = clamp(value);
        return law == Law.LINEAR ? (v - least) / (most - least) : Math.log(v / least) / Math.log(most / least);
    }

    /** Value at a place on the ruler. */
    public double at(double position) {
        double p = Math.max(0, Math.min(1, position));
        return law == Law.LINEAR ? least + p * (most - least) : least * Math.pow(most / least, p);
    }

    /**
     * The part of the range that a hand works in around a value: a semitone each way for frequency ratios, whose whole
     * range would leave no room for what the ear hears; everything for the others.
     */
    public Parameter around(double value) {
        if (!unit.equals("×")) {
            return this;
        }
        double v = clamp(value);
        double semitone = Math.pow(2, 1.0 / 12);
        return new Parameter(
                id,
                group,
                name,
                unit,
                Math.max(least, v / semitone),
                Math.min(most, v * semitone),
                law,
                decimals,
                meaning);
    }

    public double clamp(double value) {
        return Math.max(least, Math.min(most, value));
    }

    /** The value as people read it, without its unit. */
    public String format(double value) {
        return String.format(Locale.ROOT, "%." + decimals + "f", value);
    }

    /** The value with its unit. */
    public String formatWithUnit(double value) {
        return unit.isEmpty() ? format(value) : format(value) + " " + unit;
    }
}

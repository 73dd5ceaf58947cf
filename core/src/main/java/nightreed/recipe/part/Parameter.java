package nightreed.recipe.part;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
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
 * @param choices  names of the values 0, 1, 2.. of a choice; empty for numbers
 */
@RecordBuilder
public record Parameter(
        String id,
        Group group,
        String name,
        String unit,
        double least,
        double most,
        Law law,
        int decimals,
        String meaning,
        List<String> choices)
        implements ParameterBuilder.With {
    /** In the order the sound travels. */
    public enum Group {
        EXCITER("Strike"),
        SOURCE("Source"),
        SHAPING("Shaping"),
        BODY("Body"),
        MOVEMENT("Movement"),
        SPACE("Space"),
        PLAYING("Playing"),
        /** Stands for the group of the part that a value lies in. */
        INHERITED("");

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
        LOGARITHMIC,
        /** Finer towards the lower end, which may be 0: the place is the cube root of the share. */
        ROOT,
        /** One of a few named values. */
        CHOICE
    }

    public Parameter {
        choices = List.copyOf(choices);
        if (!(least < most) || law == Law.LOGARITHMIC && !(least > 0)) {
            throw new IllegalArgumentException("range of " + id + " makes no sense: " + least + " to " + most);
        }
    }

    /** Place of a value on the ruler, 0 to 1. */
    public double position(double value) {
        double v = clamp(value);
        return switch (law) {
            case LOGARITHMIC -> Math.log(v / least) / Math.log(most / least);
            case ROOT -> Math.cbrt((v - least) / (most - least));
            case LINEAR, CHOICE -> (v - least) / (most - least);
        };
    }

    /** Value at a place on the ruler. */
    public double at(double position) {
        double p = Math.max(0, Math.min(1, position));
        return switch (law) {
            case LOGARITHMIC -> least * Math.pow(most / least, p);
            case ROOT -> least + p * p * p * (most - least);
            case LINEAR -> least + p * (most - least);
            case CHOICE -> Math.rint(least + p * (most - least));
        };
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
        return with(b -> b.least(Math.max(least, v / semitone)).most(Math.min(most, v * semitone)));
    }

    /** The same value with another range, law and unit. */
    Parameter ranging(double newLeast, double newMost, Law newLaw, String newUnit, int newDecimals) {
        return with(
                b -> b.unit(newUnit).least(newLeast).most(newMost).law(newLaw).decimals(newDecimals));
    }

    /** The nearest value that can be set; the least one for what is not a number. */
    public double clamp(double value) {
        double v = Double.isNaN(value) ? least : Math.max(least, Math.min(most, value));
        return law == Law.CHOICE ? Math.rint(v) : v;
    }

    /** The value as people read it, without its unit. */
    public String format(double value) {
        if (law == Law.CHOICE) {
            return choices.get((int) clamp(value));
        }
        return String.format(Locale.ROOT, "%." + decimals + "f", value);
    }

    /** What a person typed: a number, or the beginning of a choice's name; null if it is neither. */
    public Double parse(String text) {
        String t = text.trim().replace(',', '.').toLowerCase(Locale.ROOT);
        for (int i = 0; i < choices.size() && !t.isEmpty(); i++) {
            if (choices.get(i).startsWith(t)) {
                return (double) i;
            }
        }
        try {
            double v = Double.parseDouble(t);
            return Double.isFinite(v) ? v : null;
        } catch (NumberFormatException e) {
            return null;
        }
    }

    /** The value with its unit. */
    public String formatWithUnit(double value) {
        return unit.isEmpty() ? format(value) : format(value) + " " + unit;
    }
}

package nightreed.typical;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.music.Pitch;

/**
 * What a target should be like. The six sliders go from -1 to 1; 0 is what is usual of the family.
 *
 * @param family   the family of instruments
 * @param key      MIDI number
 * @param velocity how hard it is played, above 0 to 1
 * @param bright   dull to bright
 * @param length   short to long
 * @param hard     soft to hard start
 * @param moving   still to moving
 * @param noisy    clean to noisy
 * @param roomy    dry to roomy; -1 has no room at all
 */
@RecordBuilder
public record Description(
        Family family,
        int key,
        double velocity,
        double bright,
        double length,
        double hard,
        double moving,
        double noisy,
        double roomy)
        implements DescriptionBuilder.With {
    /** Without a room, as it would be recorded close. */
    private static final double DRY = -1;

    public Description {
        if (family == null) {
            throw new IllegalArgumentException("a description needs a family");
        }
        if (key < 0 || key > 127) {
            throw new IllegalArgumentException("the key must be 0 to 127, got " + key);
        }
        if (!(velocity > 0 && velocity <= 1)) {
            throw new IllegalArgumentException("the velocity must be above 0, up to 1, got " + velocity);
        }
        for (double slider : new double[] {bright, length, hard, moving, noisy, roomy}) {
            if (!(slider >= -1 && slider <= 1)) {
                throw new IllegalArgumentException("a slider goes from -1 to 1, got " + slider);
            }
        }
    }

    /** What is usual of a family, on its usual key. */
    public static Description of(Family family) {
        return new Description(family, family.usualKey(), 0.7, 0, 0, 0, 0, 0, DRY);
    }

    /** Of another family, and on a key that it has. */
    public Description of(Family other, boolean ownKey) {
        return with(b -> b.family(other).key(ownKey ? key : other.usualKey()));
    }

    /** In words that {@link Words} reads again: {@code bright brass, slow start, C3}. */
    public String words() {
        List<String> out = new ArrayList<>();
        out.add((bright == 0 ? "" : degree(bright, "bright", "dull") + " ") + family.title());
        add(out, length, "long", "short");
        add(out, hard, "hard start", "soft start");
        add(out, moving, "moving", "still");
        add(out, noisy, "noisy", "clean");
        if (roomy > DRY) {
            out.add(degree(roomy == 0 ? 0.5 : Math.max(0.2, (roomy + 1) / 2), "roomy", "dry"));
        }
        if (Math.abs(velocity - 0.7) > 0.005) {
            out.add(String.format(Locale.ROOT, "velocity %.2f", velocity));
        }
        out.add(Pitch.name(key));
        return String.join(", ", out);
    }

    private static void add(List<String> out, double slider, String more, String less) {
        if (slider != 0) {
            out.add(degree(slider, more, less));
        }
    }

    private static String degree(double slider, String more, String less) {
        double far = Math.abs(slider);
        return (far < Words.SLIGHTLY + 0.1 ? "slightly " : far > Words.VERY - 0.15 ? "very " : "")
                + (slider > 0 ? more : less);
    }
}

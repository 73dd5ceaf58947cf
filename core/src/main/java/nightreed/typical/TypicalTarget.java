package nightreed.typical;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.measure.Measurement;
import nightreed.measure.Measurer;
import nightreed.measure.Typical;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/**
 * A typical note to build against where there is no recording.
 *
 * @param clip        it as a sound
 * @param measurement of that sound, with errors as wide as instruments of the family differ
 */
public record TypicalTarget(TypicalNote note, Clip clip, Measurement measurement) {
    /** @throws UnusableSound if nothing of it can be heard, such as a very short note on the highest key */
    public static TypicalTarget of(Description asked, Progress progress) throws UnusableSound {
        TypicalNote note = TypicalNote.of(asked);
        TypicalSound sound = TypicalSound.of(note);
        Measurement m = Measurer.rendered(sound.clip(), progress);
        Typical facts = new Typical(asked.words(), asked.family().sources());
        // what was played is known better than any measurement of it
        Measurement known = note.isHeld() ? m : m.withLines(m.lines().withPartials(sound.partials()));
        return new TypicalTarget(note, sound.clip(), known.withTypical(facts));
    }

    /**
     * What a recording says otherwise than the typical note that it takes the place of, the most striking first; empty if it is what was
     * expected.
     */
    public static List<String> changes(Measurement typical, Measurement recorded) {
        List<String> out = new ArrayList<>();
        if (typical.f0Hz() != null && recorded.f0Hz() != null) {
            double cents = 1200 * Math.log(recorded.f0Hz() / typical.f0Hz()) / Math.log(2);
            if (Math.abs(cents) > 20) {
                out.add(String.format(Locale.ROOT, "pitch %+.0f cents", cents));
            }
        }
        if (typical.brightness() != null && recorded.brightness() != null) {
            double octaves = Math.log(recorded.brightness().startHz()
                            / typical.brightness().startHz())
                    / Math.log(2);
            if (Math.abs(octaves) > 1.0 / 3) {
                out.add(String.format(
                        Locale.ROOT, "%s by %.1f octaves", octaves > 0 ? "brighter" : "duller", Math.abs(octaves)));
            }
        }
        factor(out, "rise", typical.attackSeconds(), recorded.attackSeconds());
        factor(out, "decay", longest(typical), longest(recorded));
        if ((typical.held() == null) != (recorded.held() == null)) {
            out.add(recorded.held() == null ? "it dies by itself" : "it is held");
        }
        if (recorded.held() != null && typical.held() != null) {
            boolean was = typical.held().vibrato() != null;
            boolean is = recorded.held().vibrato() != null;
            if (was != is) {
                out.add(is ? "it has vibrato" : "it has no vibrato");
            }
        }
        return out;
    }

    private static void factor(List<String> out, String what, Double typical, Double recorded) {
        if (typical == null || recorded == null || typical <= 0 || recorded <= 0) {
            return;
        }
        double factor = recorded / typical;
        if (factor > Typical.TIME_FACTOR || factor < 1 / Typical.TIME_FACTOR) {
            out.add(String.format(Locale.ROOT, "%s %.2g times as long", what, factor));
        }
    }

    private static Double longest(Measurement m) {
        return m.strongest() == null ? null : m.strongest().t60Seconds();
    }
}

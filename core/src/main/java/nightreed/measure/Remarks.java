package nightreed.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.sound.Clip;

/** Plain sentences about faults of a recording that colour its numbers. */
final class Remarks {
    private Remarks() {}

    static List<String> of(Clip clip, Onset onset, List<Partial> partials) {
        List<String> out = new ArrayList<>();
        if (!onset.hasLeadIn()) {
            out.add(
                    "The clip starts with the note itself: the background noise is not known, and the attack may be cut.");
        }
        int clipped = clippedRuns(clip);
        if (clipped > 0) {
            out.add(String.format(
                    Locale.ROOT,
                    "The recording is clipped in %d places: levels of strong partials read low.",
                    clipped));
        }
        double after = clip.seconds() - (double) onset.sample() / clip.sampleRateHz();
        partials.stream()
                .filter(p -> p.reliable() && p.t60Seconds() != null)
                .max((a, b) -> Double.compare(a.levelDb(), b.levelDb()))
                .filter(p -> 60 * after / p.t60Seconds() < 35)
                .ifPresent(p -> out.add(String.format(
                        Locale.ROOT,
                        "The decay is cut off: at the end the strongest partial is only %.0f dB down.",
                        60 * after / p.t60Seconds())));
        return out;
    }

    /** Runs of three or more equal samples at the very top of the range. */
    private static int clippedRuns(Clip clip) {
        double limit = 0.985 * clip.peak();
        if (clip.peak() < 0.7) {
            return 0;
        }
        int runs = 0;
        for (int c = 0; c < clip.channelCount(); c++) {
            float[] x = clip.channel(c);
            int length = 1;
            for (int i = 1; i < x.length; i++) {
                length = x[i] == x[i - 1] && Math.abs(x[i]) >= limit ? length + 1 : 1;
                if (length == 3) {
                    runs++;
                }
            }
        }
        return runs;
    }
}

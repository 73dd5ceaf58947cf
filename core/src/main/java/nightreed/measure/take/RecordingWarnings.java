package nightreed.measure.take;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.measure.partial.NoiseFloor;
import nightreed.sound.Clip;

/** Plain sentences about faults of a recording that colour its numbers. */
public final class RecordingWarnings {
    /** Fall from the loudest 50 ms to the last at which a decay counts as heard to its end [dB]. */
    private static final double WHOLE_DB = 45;

    /** The same for a note that is held: fallen by so much, it has been let go [dB]. */
    private static final double RELEASED_DB = 10;

    private static final double FRAME_SECONDS = 0.05;

    /** Longest fade that is put on the end of a cut recording against a click [s]. */
    private static final double FADE_SECONDS = 0.022;

    /** Peak under which a recording of 16 bits has less than 7 left [dBFS]. */
    private static final double FAINT_DB = -54;

    /** Peak that only files with floating point can have, and hardly one that is meant [dBFS]. */
    private static final double OVER_DB = 6;

    private RecordingWarnings() {}

    /**
     * @param clip   the recording
     * @param x      the note that was measured, to its end
     * @param held   whether it is held and not left to die
     * @param onsets where notes begin [s]
     */
    public static List<String> of(
            Clip clip, double[] x, Onset onset, NoiseFloor floor, boolean held, List<Double> onsets) {
        List<String> out = new ArrayList<>();
        double fs = clip.sampleRateHz();
        String channels = Channels.of(clip).remark();
        if (channels != null) {
            out.add(channels);
        }
        if (onsets.size() > 1) {
            out.add(String.format(
                    Locale.ROOT,
                    "The recording holds %d notes; these are the numbers of the first, up to %.2f s.",
                    onsets.size(),
                    onsets.get(1)));
        }
        if (!onset.hasLeadIn()) {
            out.add(
                    "The clip starts with the note itself: the background noise is not known, and the attack may be cut.");
        }
        double offset = Offset.of(clip.mixed(), clip.sampleRateHz());
        if (Math.abs(offset) > 0.01 * clip.peak()) {
            out.add(String.format(
                    Locale.ROOT,
                    "The recording has a constant offset of %.1f %% of its peak; it was taken off.",
                    100 * offset / clip.peak()));
        }
        Integer hum = hum(x, fs, onset.sample());
        if (hum != null) {
            out.add("There is mains hum at " + hum + " Hz and its multiples; partials close to them are less certain.");
        }
        double peakDb = 20 * Math.log10(clip.peak());
        if (peakDb < FAINT_DB || peakDb > OVER_DB) {
            out.add(String.format(
                    Locale.ROOT,
                    peakDb < FAINT_DB
                            ? "The recording is very soft: its peak is %.0f dBFS. Record it louder if you can."
                            : "The recording goes %.0f dB over full scale: check that its level is meant.",
                    peakDb));
        }
        int clipped = clippedRuns(clip);
        if (clipped > 0) {
            out.add(String.format(
                    Locale.ROOT,
                    "The recording is clipped in %d places: levels of strong partials read low.",
                    clipped));
        }
        if (onsets.size() == 1) {
            end(x, fs, onset.sample(), floor, held, out);
        }
        return out;
    }

    /** What the end of the recording did to the note. */
    private static void end(double[] x, double fs, int onset, NoiseFloor floor, boolean held, List<String> out) {
        int frame = (int) (FRAME_SECONDS * fs);
        int frames = (x.length - onset) / frame;
        if (frames < 4) {
            return;
        }
        double loudest = 0;
        for (int f = 0; f < frames; f++) {
            loudest = Math.max(loudest, power(x, onset + f * frame, onset + (f + 1) * frame));
        }
        // the very end may be faded; what counts is the level before
        int tail = (int) (FADE_SECONDS * fs);
        double before = power(x, x.length - 2 * tail, x.length - tail);
        double fallen = 10 * Math.log10(loudest / (before + 1e-16));
        boolean overFloor = before > 10 * floor.total();
        if (overFloor && fallen < (held ? RELEASED_DB : WHOLE_DB)) {
            out.add(
                    held
                            ? "The recording ends before the note is let go: its release is not known."
                            : String.format(
                                    Locale.ROOT,
                                    "The decay is cut off %.0f dB under the loudest moment: slow decays are read from"
                                            + " their beginning.",
                                    fallen));
        }
        int ms = (int) (0.004 * fs);
        double last = power(x, x.length - ms, x.length);
        if (overFloor && fallen < (held ? RELEASED_DB : WHOLE_DB) && last < 0.02 * before) {
            out.add("It is faded out at its very end.");
        }
    }

    private static double power(double[] x, int from, int to) {
        double sum = 0;
        for (int i = Math.max(0, from); i < Math.min(x.length, to); i++) {
            sum += x[i] * x[i] / (to - from);
        }
        return sum;
    }

    /** Mains frequency [Hz] whose multiples stand out of the background before the note, or null. */
    private static Integer hum(double[] x, double fs, int onset) {
        int length = onset - (int) (0.005 * fs);
        if (length < 0.12 * fs) {
            return null; // two lines 10 Hz apart could not be told from each other
        }
        for (int mains : new int[] {50, 60}) {
            int standing = 0;
            for (int k = 1; k <= 5; k++) {
                double here = line(x, length, k * mains / fs);
                double beside = Math.max(
                        line(x, length, (k * mains - 0.5 * mains) / fs),
                        line(x, length, (k * mains + 0.5 * mains) / fs));
                standing += here > 16 * beside ? 1 : 0;
            }
            if (standing >= 2) {
                return mains;
            }
        }
        return null;
    }

    /** Power of a line of so many cycles a sample in the first samples. */
    private static double line(double[] x, int length, double cycles) {
        double turnRe = Math.cos(2 * Math.PI * cycles);
        double turnIm = Math.sin(2 * Math.PI * cycles);
        double fadeRe = Math.cos(2 * Math.PI / length);
        double fadeIm = Math.sin(2 * Math.PI / length);
        double c = 1;
        double s = 0;
        double fadeC = Math.cos(Math.PI / length);
        double fadeS = Math.sin(Math.PI / length);
        double re = 0;
        double im = 0;
        for (int i = 0; i < length; i++) { // everything that turns is turned on, not computed anew
            double w = (1 - fadeC) * x[i] / length;
            re += w * c;
            im += w * s;
            double t = c * turnRe - s * turnIm;
            s = c * turnIm + s * turnRe;
            c = t;
            double f = fadeC * fadeRe - fadeS * fadeIm;
            fadeS = fadeC * fadeIm + fadeS * fadeRe;
            fadeC = f;
        }
        return re * re + im * im;
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

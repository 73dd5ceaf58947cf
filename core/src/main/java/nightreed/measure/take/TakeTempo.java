package nightreed.measure.take;

import java.util.List;
import nightreed.measure.partial.NoiseFloor;
import nightreed.music.NoteValue;
import nightreed.sound.Clip;

/**
 * Tempo of a recording, from its notes or, if there are too few, from its echo.
 *
 * @param bpm         quarters a minute; null if nothing tells it
 * @param bpmSe       its standard error, null as it is
 * @param odds        share of belief against other tempos, 0 to 1; 0 where there is none
 * @param from        what it was told from, in words
 * @param echoSeconds delay of an echo [s]; null for none
 * @param noteValue   the echo as a note value at that tempo; null if either is not known
 */
public record TakeTempo(Double bpm, Double bpmSe, double odds, String from, Double echoSeconds, String noteValue) {
    /** Note values that echoes are set to, as quarters, with how usual they are. */
    private static final double[] VALUES = {0.5, 0.75, 0.25, 1, 1 / 3.0};

    private static final double[] USUAL = {0.42, 0.26, 0.12, 0.12, 0.08};
    private static final double USUAL_BPM = 110;
    private static final double SPREAD_OCTAVES = 0.45;

    /** A repeat is weaker than what it repeats by this, looked at for so long [s]. */
    private static final double WEAKER = 0.92;

    private static final double PEAK_SECONDS = 0.05;

    /** An error of a delay that is told from the waveform [s]. */
    private static final double DELAY_SE = 0.0005;

    public static TakeTempo of(Clip clip) {
        double[] x = Channels.of(clip).samples();
        double fs = clip.sampleRateHz();
        Onset first = Onset.find(x, fs);
        List<Double> onsets =
                NoteOnsets.find(x, fs, first.sample()).stream().map(s -> s / fs).toList();
        NoiseFloor floor = first.hasLeadIn() ? NoiseFloor.of(x, 0, first.sample(), fs) : NoiseFloor.none(fs);
        Echo echo = Echo.find(x, fs, first.sample(), floor);
        if (echo != null && (onsets.size() < Tempo.LEAST_NOTES || isDyingAway(x, fs, onsets))) {
            return ofEcho(echo.delaySeconds());
        }
        Tempo phrase = Tempo.of(onsets);
        return phrase == null
                ? new TakeTempo(null, null, 0, "", null, null)
                : new TakeTempo(
                        phrase.bpm(), phrase.bpmSe(), phrase.odds(), "from " + phrase.notes() + " notes", null, null);
    }

    /** Whether each note is clearly weaker than the one before, as repeats are and notes of a phrase are not. */
    private static boolean isDyingAway(double[] x, double fs, List<Double> onsets) {
        double before = Double.POSITIVE_INFINITY;
        for (double t : onsets) {
            double peak = 0;
            for (int i = (int) (t * fs); i < Math.min(x.length, (t + PEAK_SECONDS) * fs); i++) {
                peak = Math.max(peak, Math.abs(x[i]));
            }
            if (peak > WEAKER * before) {
                return false;
            }
            before = peak;
        }
        return true;
    }

    private static TakeTempo ofEcho(double delay) {
        double all = 0;
        double most = 0;
        double bpm = 0;
        for (int i = 0; i < VALUES.length; i++) {
            double at = 60 * VALUES[i] / delay;
            double octaves = Math.log(at / USUAL_BPM) / Math.log(2) / SPREAD_OCTAVES;
            double belief = USUAL[i] * Math.exp(-0.5 * octaves * octaves);
            all += belief;
            if (belief > most) {
                most = belief;
                bpm = at;
            }
        }
        return new TakeTempo(
                bpm,
                bpm * DELAY_SE / delay,
                most / all,
                "from the echo alone, if it is a "
                        + NoteValue.nearest(delay, bpm).name(),
                delay,
                NoteValue.nearest(delay, bpm).name());
    }
}

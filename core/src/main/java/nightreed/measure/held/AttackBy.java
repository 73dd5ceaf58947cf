package nightreed.measure.held;

import java.util.Arrays;
import java.util.List;
import nightreed.dsp.LineFit;

/**
 * What opens at the start of a note: its level, or a filter, or both. With the level all harmonics come at once; with a filter one after
 * the other, the lowest first.
 *
 * @param verdict what it is
 * @param odds    how sure, 0 to 1
 * @param apartSeconds how much later the last of the harmonics comes than the first [s]
 */
public record AttackBy(Verdict verdict, double odds, double apartSeconds) {
    /** A verdict. */
    public enum Verdict {
        AMPLITUDE,
        FILTER,
        BOTH,
        OPEN
    }

    /** Weaker harmonics do not tell when they come [dB over noise]. */
    private static final double CLEAR_DB = 30;

    private static final int LEAST_HARMONICS = 4;

    /** Of the latest harmonics so many may be late by chance. */
    private static final double LATEST = 0.85;

    /** What a harmonic's time is known to: a part of it and the length of a window [s]; measured on notes with noise 40 dB under. */
    private static final double TIME_SHARE = 0.05;

    private static final double TIME_SECONDS = 0.0015;

    /** A level that is there sooner is there at once [s]. */
    private static final double AT_ONCE = 0.005;

    /** By how much a filter that opens spreads the harmonics at least: a share of the rise, and more than this [s]. */
    private static final double OPENS_SHARE = 0.3;

    private static final double LEAST_APART = 0.008;

    /** A rise that both have: the first harmonic's against that of the last. */
    private static final double SHARED = 0.22;

    private static final AttackBy UNKNOWN = new AttackBy(Verdict.OPEN, 0, 0);

    public static AttackBy of(HeldNote note) {
        List<HeldHarmonic> clear = note.harmonics().stream()
                .filter(h -> h.delaySeconds() != null && h.snrDb() > CLEAR_DB)
                .toList();
        if (clear.size() < LEAST_HARMONICS) {
            return UNKNOWN;
        }
        double first = clear.get(0).delaySeconds();
        double second = clear.get(1).delaySeconds();
        double[] delays = clear.stream().mapToDouble(HeldHarmonic::delaySeconds).toArray();
        double late = Arrays.stream(delays).sorted().toArray()[(int) Math.floor(LATEST * (delays.length - 1))];
        LineFit trend = new LineFit();
        double jump = 0;
        for (int i = 0; i < delays.length; i++) {
            trend.add(Math.log(clear.get(i).number()) / Math.log(2), delays[i]);
            jump += i == 0 ? 0 : Math.abs(delays[i] - delays[i - 1]) / (delays.length - 1);
        }
        double octaves = Math.log((double) clear.get(delays.length - 1).number()
                        / clear.get(0).number())
                / Math.log(2);
        double apart = Math.max(0, trend.slope() * octaves);
        // neighbours that come in no order, as where voices beat, say how well a trend of them is known
        double chance = Math.max(0, jump - apart / delays.length) * Math.sqrt(3.0 / delays.length);
        double known = Math.hypot(TIME_SECONDS + TIME_SHARE * Math.max(first, late), 2 * chance);
        double opens = apart / known; // in errors
        // where even the first harmonic waits for the filter, one an octave under it would come so much sooner
        double alone = Math.max(0, first - Math.max(0, second - first));
        double threshold = Math.max(AT_ONCE, SHARED * late);
        double rises = (alone - threshold) / (known + 0.1 * threshold);
        if (trend.slope() * octaves < -known) {
            return UNKNOWN; // the low ones come last: beats, not the start
        }
        if (opens < 3) {
            double seen =
                    (Math.max(LEAST_APART, OPENS_SHARE * late) - apart) / known; // what a filter would at least make
            return new AttackBy(Verdict.AMPLITUDE, Math.min(odds(3.5 - opens), odds(seen - 1)), apart);
        }
        return rises > 0
                ? new AttackBy(Verdict.BOTH, Math.min(odds(opens - 2.5), odds(rises)), apart)
                : new AttackBy(Verdict.FILTER, Math.min(odds(opens - 2.5), odds(-rises)), apart);
    }

    /** As the share of a normal curve, which a logistic one of 1.7 comes near to. @param errors how far it is from where the verdict would change */
    private static double odds(double errors) {
        return 1 / (1 + Math.exp(-1.7 * errors));
    }
}

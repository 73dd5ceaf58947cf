package nightreed.match.hearing;

import java.util.List;
import java.util.function.BiFunction;
import java.util.function.ToDoubleFunction;
import nightreed.measure.Typical;
import nightreed.optim.RobustLoss;

/**
 * Thresholds of hearing that differences are counted in.
 *
 * @param pitchCents          5 cents: difference limen of complex tones (B. C. J. Moore, 1973)
 * @param partialFrequency    0.3 %: a partial heard out of a complex (B. C. J. Moore, R. W. Peters, B. R. Glasberg, 1985)
 * @param levelDb             1.5 dB: level of one partial (D. M. Green, "Profile Analysis", 1988)
 * @param decayLonger         1.40: decay that is just heard as longer (T. Tolonen, H. Järveläinen, 2000)
 * @param decayShorter        0.75: decay that is just heard as shorter (same)
 * @param attackShare         0.3: rise time, as a share of it (after J. W. Gordon, 1987)
 * @param attackSeconds       5 ms: least difference in rise time that matters
 * @param noiseDb             2 dB: level of a noise band
 * @param brightnessBark      0.15 Bark: shift of the centroid (after G. von Bismarck, 1974)
 * @param loudnessDb          1 dB: loudness path
 * @param playbackDb          75 dB SPL: level that the strongest partial is assumed to be played back at
 */
public record JndThresholds(
        double pitchCents,
        double partialFrequency,
        double levelDb,
        double decayLonger,
        double decayShorter,
        double attackShare,
        double attackSeconds,
        double noiseDb,
        double brightnessBark,
        double loudnessDb,
        double playbackDb) {
    public static final JndThresholds USUAL = new JndThresholds(5, 0.003, 1.5, 1.40, 0.75, 0.3, 0.005, 2, 0.15, 1, 75);

    /**
     * For a target that is only typical of its family: what instruments of the family differ by counts as one step, and what is finer than
     * that is not asked for.
     */
    public JndThresholds forTypical() {
        double cents = Math.pow(2, Typical.SPREAD_CENTS / 1200) - 1;
        return new JndThresholds(
                Math.max(pitchCents, Typical.SPREAD_CENTS / 2),
                Math.max(partialFrequency, cents),
                Math.max(levelDb, Typical.LEVEL_DB),
                Math.max(decayLonger, Typical.TIME_FACTOR),
                Math.min(decayShorter, 1 / Typical.TIME_FACTOR),
                Math.max(attackShare, Typical.TIME_FACTOR - 1),
                Math.max(attackSeconds, 0.01),
                Math.max(noiseDb, Typical.LEVEL_DB),
                Math.max(brightnessBark, Typical.BRIGHTNESS_BARK),
                Math.max(loudnessDb, Typical.LEVEL_DB / 2),
                playbackDb);
    }

    /**
     * One threshold that can be changed.
     *
     * @param id     name in files and controls
     * @param title  name for people
     * @param unit   its unit
     * @param least  least value that makes sense
     * @param most   greatest one
     * @param source where the usual value is from
     */
    public record Threshold(
            String id,
            String title,
            String unit,
            double least,
            double most,
            String source,
            ToDoubleFunction<JndThresholds> get,
            BiFunction<JndThresholds, Double, JndThresholds> set) {}

    /** All thresholds, for a page of preferences. */
    public static List<Threshold> thresholds() {
        return List.of(
                of("pitch", "pitch", "cents", 0.5, 50, "Moore 1973", 0),
                of("partial", "frequency of a partial", "share", 0.0003, 0.03, "Moore, Peters, Glasberg 1985", 1),
                of("level", "level of a partial", "dB", 0.2, 10, "Green 1988", 2),
                of("decay-longer", "longer decay", "ratio", 1.02, 4, "Tolonen, Järveläinen 2000", 3),
                of("decay-shorter", "shorter decay", "ratio", 0.25, 0.98, "Tolonen, Järveläinen 2000", 4),
                of("attack-share", "attack", "share", 0.02, 2, "after Gordon 1987", 5),
                of("attack-seconds", "attack, at least", "s", 0.0005, 0.1, "after Gordon 1987", 6),
                of("noise", "level of a noise band", "dB", 0.2, 12, "working value", 7),
                of("brightness", "brightness", "Bark", 0.01, 2, "after von Bismarck 1974", 8),
                of("loudness", "loudness over time", "dB", 0.1, 10, "working value", 9),
                of("playback", "playback level", "dB SPL", 40, 100, "working value", 10));
    }

    private static Threshold of(
            String id, String title, String unit, double least, double most, String source, int index) {
        return new Threshold(id, title, unit, least, most, source, h -> h.values()[index], (h, v) -> {
            double[] all = h.values();
            all[index] = v;
            return new JndThresholds(
                    all[0], all[1], all[2], all[3], all[4], all[5], all[6], all[7], all[8], all[9], all[10]);
        });
    }

    private double[] values() {
        return new double[] {
            pitchCents,
            partialFrequency,
            levelDb,
            decayLonger,
            decayShorter,
            attackShare,
            attackSeconds,
            noiseDb,
            brightnessBark,
            loudnessDb,
            playbackDb
        };
    }

    /** Differences beyond this count no more: a thing that is quite wrong cannot get more wrong [JND]. */
    public static final double MOST = 12;

    /**
     * Spreading of a masker over the critical bands [dB re the masker] (E. Terhardt, "Calculating virtual pitch", 1979):
     * 27 dB/Bark towards the bass, 24 + 230/f - 0.2 L dB/Bark towards the treble.
     *
     * @param bark    distance from the masker, positive upward
     * @param hz      frequency of the masker [Hz]
     * @param splDb   level of the masker [dB SPL]
     */
    public static double spread(double bark, double hz, double splDb) {
        return bark < 0 ? 27 * bark : -Math.max(5, 24 + 230 / Math.max(20, hz) - 0.2 * splDb) * bark;
    }

    /** How far under its masker's own level a tone is masked by another tone [dB] (J. D. Johnston, 1988, simplified). */
    public static final double TONE_MASKING_OFFSET_DB = 14;

    /**
     * How far under its masker's own level a band is masked that holds tones and noise together [dB]. J. D. Johnston, 1988, has 14.5
     * dB and more for tones and 5.5 dB for noise; chosen between them.
     */
    public static final double BAND_MASKING_OFFSET_DB = 8;

    /** Level up to which a band is masked by another that is played at a usual level [dB]. @param bark from the masker, upward */
    public static double maskedDb(double maskerPower, double bark, double maskerHz) {
        return 10 * Math.log10(maskerPower + 1e-20) - BAND_MASKING_OFFSET_DB + spread(bark, maskerHz, USUAL.playbackDb);
    }

    /** What is so far under the loudest frame, band or partial counts no more [dB]; chosen: the range of a note in a quiet room. */
    public static final double RANGE_DB = 45;

    /** A partial this far above the masking of the others is heard in full [dB]; chosen. */
    public static final double FULLY_HEARD_DB = 20;

    /** A difference that approaches {@link #MOST} where it is large [JND]. */
    public static double limited(double jnd) {
        return RobustLoss.limited(jnd, MOST);
    }

    /** Threshold in quiet [dB SPL] (E. Terhardt, 1979). */
    public static double quietDb(double hz) {
        double k = Math.max(20, hz) / 1000;
        return 3.64 * Math.pow(k, -0.8) - 6.5 * Math.exp(-0.6 * Math.pow(k - 3.3, 2)) + 1e-3 * Math.pow(k, 4);
    }
}

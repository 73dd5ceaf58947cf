package nightreed.measure.traits;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * One explanation of a harmonic spectrum: a wave and the filter it went through. Slope of a filter and shape of a wave can
 * stand in for each other, which is why several are ranked.
 *
 * @param wave            the wave
 * @param width           share of the period that a pulse is high, 0 to 0.5; null for other waves
 * @param rollOffDbPerOctave slope of the low-pass over its cutoff [dB/octave], 0 if there is none
 * @param cutoffHz        its cutoff [Hz], null if there is none
 * @param resonanceDb     height at the cutoff over that of a filter without resonance [dB], null if it has none
 * @param rmsDb           what it leaves over [dB]
 * @param certainty       share of belief among the explanations, 0 to 1
 */
@RecordBuilder
public record SourceWave(
        Wave wave,
        Double width,
        double rollOffDbPerOctave,
        Double cutoffHz,
        Double resonanceDb,
        double rmsDb,
        double certainty)
        implements SourceWaveBuilder.With {
    /** Waves that are tried. */
    public enum Wave {
        SAW("saw"),
        SQUARE("square"),
        PULSE("pulse"),
        TRIANGLE("triangle"),
        /** None of these: a body with formants explains it better than any wave with a filter. */
        OTHER("other");

        private final String title;

        Wave(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    SourceWave believed(double share) {
        return withCertainty(share);
    }
}

package nightreed.measure.traits;

import java.util.Arrays;

/**
 * Levels of the lines of a harmonic, or nearly harmonic, note by their number; what was not found stands at the level under
 * which it could not have been.
 *
 * @param f0Hz    distance of the lines [Hz]
 * @param db      level of line 1, 2, .. [dB re the strongest]
 * @param floorDb level of the noise at each line [dB re the strongest], no more than {@code db}
 */
public record Spectrum(double f0Hz, double[] db, double[] floorDb) {
    /** Levels further down than this say nothing of a source or a body [dB]. */
    private static final double DEEPEST_DB = -70;

    /** Lines further up are no more than noise and cost time. */
    private static final int MOST_LINES = 160;

    public Spectrum {
        if (db.length != floorDb.length) {
            throw new IllegalArgumentException(
                    db.length + " levels and " + floorDb.length + " floors; each line needs both");
        }
    }

    /**
     * @param f0Hz   pitch [Hz]
     * @param number numbers of the lines that were found, from 1, rising
     * @param db     their levels [dB]
     * @param snrDb  their levels over the noise [dB]
     */
    public static Spectrum of(double f0Hz, int[] number, double[] db, double[] snrDb) {
        int top = number.length == 0 ? 0 : Math.min(MOST_LINES, number[number.length - 1]);
        double most = Arrays.stream(db).max().orElse(0);
        double[] level = new double[top];
        double[] floor = new double[top];
        int k = 0;
        for (int n = 1; n <= top; n++) {
            while (k + 1 < number.length && number[k] < n) {
                k++;
            }
            // where nothing was found, the noise is as high as at the next line that was
            floor[n - 1] = Math.max(DEEPEST_DB, db[k] - most - snrDb[k]);
            level[n - 1] = number[k] == n ? Math.max(floor[n - 1], db[k] - most) : floor[n - 1];
        }
        return new Spectrum(f0Hz, level, floor);
    }

    /** How many lines stand over their floor. */
    public int heard() {
        int n = 0;
        for (int i = 0; i < db.length; i++) {
            n += db[i] > floorDb[i] + 0.1 ? 1 : 0;
        }
        return n;
    }

    int count() {
        return db.length;
    }

    /** Frequency of a line, {@code i} from 0 [Hz]. */
    double hz(int i) {
        return (i + 1) * f0Hz;
    }
}

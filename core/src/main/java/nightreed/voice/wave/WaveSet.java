package nightreed.voice.wave;

import nightreed.dsp.RealFft;
import nightreed.recipe.part.SingleCycle;

/** One cycle of a wave as tables with ever fewer harmonics. Immutable. */
public final class WaveSet {
    private static final int MOST_HARMONICS = 4096;
    private static final double NEXT = Math.pow(2, 1 / 6.0);
    private static final double SIXTH = 1 / 6.0;
    private static final int LEAST_SIZE = 512;
    private static final int LARGEST_SIZE = 32_768;

    private final int[] harmonics; // rising
    private final double[][] tables; // each with one point before and three behind, for the interpolation

    private WaveSet(Harmonic wave) {
        int n = 0;
        int[] counts = new int[256];
        for (double h = 1; h < MOST_HARMONICS * 1.01; h *= NEXT) {
            int c = (int) Math.round(h);
            if (n == 0 || counts[n - 1] != c) {
                counts[n++] = c;
            }
        }
        harmonics = java.util.Arrays.copyOf(counts, n);
        tables = new double[n][];
        for (int i = 0; i < n; i++) {
            int most = Math.min(harmonics[i], wave.most());
            if (i > 0 && Math.min(harmonics[i - 1], wave.most()) == most) {
                tables[i] = tables[i - 1];
                continue;
            }
            int size = Math.max(LEAST_SIZE, Math.min(LARGEST_SIZE, RealFft.powerOfTwoFrom(16 * most)));
            double[] spectrum = new double[size + 2];
            for (int h = 1; h <= most; h++) {
                spectrum[2 * h] = wave.cosine(h) * size / 2;
                spectrum[2 * h + 1] = -wave.sine(h) * size / 2;
            }
            double[] cycle = new RealFft(size).inverse(spectrum);
            double[] padded = new double[size + 4];
            System.arraycopy(cycle, 0, padded, 1, size);
            padded[0] = cycle[size - 1];
            padded[size + 1] = cycle[0];
            padded[size + 2] = cycle[1];
            padded[size + 3] = cycle[2];
            tables[i] = padded;
        }
    }

    /** Amplitudes of the harmonics of a wave. */
    private interface Harmonic {
        double cosine(int n);

        double sine(int n);

        /** Highest harmonic there is. */
        default int most() {
            return Integer.MAX_VALUE;
        }
    }

    /** Waves that need no recording, made when first asked for. */
    private static final class Ideal {
        static final WaveSet SAW = new WaveSet(new Harmonic() {
            @Override
            public double cosine(int n) {
                return 0;
            }

            @Override
            public double sine(int n) {
                return 2 / (Math.PI * n);
            }
        });
        static final WaveSet TRIANGLE = new WaveSet(new Harmonic() {
            @Override
            public double cosine(int n) {
                return 0;
            }

            @Override
            public double sine(int n) {
                return n % 2 == 0 ? 0 : (n % 4 == 1 ? 8 : -8) / (Math.PI * Math.PI * n * n);
            }
        });
        static final WaveSet UNEVEN = new WaveSet(new Harmonic() {
            @Override
            public double cosine(int n) {
                return n == 1 ? 0 : 0.5 / n * Math.sin(n * 12.9898 + n * n * 0.37);
            }

            @Override
            public double sine(int n) {
                return n == 1 ? 0 : 0.5 / n * Math.sin(n * 78.233 + n * n * 0.73);
            }
        });
        static final WaveSet SINE = new WaveSet(new Harmonic() {
            @Override
            public double cosine(int n) {
                return 0;
            }

            @Override
            public double sine(int n) {
                return 1;
            }

            @Override
            public int most() {
                return 1;
            }
        });

        private Ideal() {}
    }

    /** Falls from 1 to -1 over the cycle. */
    public static WaveSet saw() {
        return Ideal.SAW;
    }

    /** Starts at 0 and rises, as the sine does. */
    public static WaveSet triangle() {
        return Ideal.TRIANGLE;
    }

    public static WaveSet sine() {
        return Ideal.SINE;
    }

    /** What an uneven wave has besides, the fundamental left as it is. */
    public static WaveSet uneven() {
        return Ideal.UNEVEN;
    }

    /** One cycle of a recording, brought to a largest sample of about 1. */
    public static WaveSet of(SingleCycle cycle) {
        double power = 0;
        for (double db : cycle.levelsDb()) {
            power += Math.pow(10, db / 10);
        }
        double scale = 1 / Math.sqrt(Math.max(1e-20, power)); // as loud as a sine of 1
        return new WaveSet(new Harmonic() {
            private double amplitude(int n) {
                return n > most()
                        ? 0
                        : scale * Math.pow(10, cycle.harmonics().get(n - 1).levelDb() / 20);
            }

            @Override
            public double cosine(int n) {
                return n > most()
                        ? 0
                        : amplitude(n) * Math.cos(cycle.harmonics().get(n - 1).phaseRad());
            }

            @Override
            public double sine(int n) {
                return n > most()
                        ? 0
                        : -amplitude(n) * Math.sin(cycle.harmonics().get(n - 1).phaseRad());
            }

            @Override
            public int most() {
                return cycle.harmonics().size();
            }
        });
    }

    /** Number of the table with the most harmonics that are no more than so many. @param mostHarmonics at least 1 */
    int level(double mostHarmonics) {
        int low = 0;
        int high = harmonics.length - 1;
        while (low < high) {
            int mid = (low + high + 1) >>> 1;
            if (harmonics[mid] <= mostHarmonics) {
                low = mid;
            } else {
                high = mid - 1;
            }
        }
        return low;
    }

    double[] table(int level) {
        return tables[level];
    }

    /** How far so many harmonics are from those of a table to those of the next, 0 to 1. */
    double between(int level, double mostHarmonics) {
        if (level + 1 == harmonics.length) {
            return 1;
        }
        double span = harmonics[level + 1] - harmonics[level];
        return Math.max(0, Math.min(1, (mostHarmonics - harmonics[level]) / span));
    }

    /** Reads a table. @param phase 0 to 1 */
    static double read(double[] table, double phase) {
        int size = table.length - 4;
        double x = phase * size;
        int i = (int) x;
        double d = x - i;
        double y0 = table[i];
        double y1 = table[i + 1];
        double y2 = table[i + 2];
        double y3 = table[i + 3];
        double a = d - 1;
        double b = d - 2;
        double c = d + 1;
        double near = 0.5 * (c * b); // of the two points that lie around
        double far = SIXTH * (d * a);
        return near * (a * y1 - d * y2) + far * (c * y3 - b * y0);
    }
}

package nightreed.music;

/** The critical-band scale: E. Zwicker (1961) for the band edges, H. Traunmüller (1990) for the continuous scale. */
public final class Bark {
    private static final double[] EDGES = {
        20, 100, 200, 300, 400, 510, 630, 770, 920, 1080, 1270, 1480, 1720, 2000, 2320, 2700, 3150, 3700, 4400, 5300,
        6400, 7700, 9500, 12000, 15500
    };

    private Bark() {}

    /** Number of Zwicker's bands. */
    public static final int BANDS = 24;

    /** Lower edge of band {@code band} [Hz], 0..24; edge 24 closes the last band. */
    public static double edgeHz(int band) {
        return EDGES[band];
    }

    /** Centre of a band [Hz], geometric. */
    public static double centreHz(int band) {
        return Math.sqrt(EDGES[band] * EDGES[band + 1]);
    }

    /** Band that holds a frequency [Hz], or -1 outside 20 Hz to 15.5 kHz. */
    public static int band(double hz) {
        if (!(hz >= EDGES[0]) || hz >= EDGES[BANDS]) {
            return -1;
        }
        int b = 0;
        while (hz >= EDGES[b + 1]) {
            b++;
        }
        return b;
    }

    /** z = 26.81·f/(1960+f) - 0.53, with Traunmüller's corrections below 2 and above 20.1 Bark. */
    public static double of(double hz) {
        double z = 26.81 * hz / (1960 + hz) - 0.53;
        if (z < 2) {
            return z + 0.15 * (2 - z);
        }
        return z > 20.1 ? z + 0.22 * (z - 20.1) : z;
    }

    /** Inverse of {@link #of} [Hz]. */
    public static double hz(double bark) {
        double z = bark;
        if (z < 2) {
            z = (z - 0.3) / 0.85;
        } else if (z > 20.1) {
            z = (z + 4.422) / 1.22;
        }
        return 1960 * (z + 0.53) / (26.28 - z);
    }
}

package nightreed.room;

import nightreed.dsp.Noise;

/**
 * The Ostrel buoy bell: a cast bell, tuned once and worn by the sea since, struck by an iron clapper that the swell swings.
 * No casting is quite round, so that each mode splits into two of slightly different pitch, one with its antinode near the
 * clapper and one near its node (Fletcher &amp; Rossing, "The Physics of Musical Instruments", 1998, chapter 21). Low modes
 * ring on for many seconds, high ones are soon gone.
 */
final class BuoyBell {
    /** Ratios to the prime: hum, prime, tierce, quint, nominal, and the rim modes above, which run as the 1.4th power. */
    private static final double[] RATIOS = {0.5, 1, 1.2, 1.5, 2, 2.55, 2.72, 3.02, 4.08, 5.2, 6.4, 7.7, 9.1};

    /** How strongly each is struck at the sound bow and radiated by it. */
    private static final double[] STRENGTHS = {0.5, 0.75, 1.0, 0.35, 1.1, 0.4, 0.45, 0.6, 0.5, 0.4, 0.32, 0.25, 0.2};

    private final StruckBody body;
    private final Noise chance;

    /**
     * @param primeHz the prime, an octave under what is heard as the strike note's partial, the nominal [Hz]
     * @param chance  differences between castings
     */
    BuoyBell(double primeHz, Noise chance) {
        this.chance = chance;
        int n = RATIOS.length;
        double[] hz = new double[2 * n];
        double[] decay = new double[2 * n];
        double[] shape = new double[2 * n];
        double[] radiated = new double[2 * n];
        for (int k = 0; k < n; k++) {
            double worn = k == 1 ? 1 : 1 + 0.004 * chance.white(); // the prime is where the founder tuned it
            double middle = primeHz * RATIOS[k] * worn;
            double apart = (0.3 + 1.5 * chance.uniform()) * Math.pow(middle / 600, 0.4); // [Hz]
            double angle = 0.3 + 0.9 * chance.uniform(); // of the clapper to the antinode [rad]
            double t60 = 16 * Math.pow(primeHz / 300, -0.35) * Math.pow(RATIOS[k] / 0.5, -1.05);
            for (int side = 0; side < 2; side++) {
                int i = 2 * k + side;
                hz[i] = middle + (side - 0.5) * apart;
                decay[i] = Math.log(1000) / t60 * (1 + 0.12 * chance.white());
                shape[i] = STRENGTHS[k] * (side == 0 ? Math.cos(angle) : Math.sin(angle));
                radiated[i] = 0.5 * hz[i] / (hz[i] + 250) * (0.8 + 0.4 * chance.uniform());
            }
        }
        body = new StruckBody(hz, decay, shape, radiated, 6 * Math.pow(300 / primeHz, 1.2));
    }

    /**
     * The bell's sound from the moment of contact.
     *
     * @param speed   of the clapper [m/s]
     * @param samples wanted
     * @param fs      rate [Hz]
     * @return new array; its scale is that of the bell's velocity
     */
    double[] strike(double speed, int samples, double fs) {
        StruckBody.Hammer clapper = new StruckBody.Hammer(0.9, 4e8 * (0.8 + 0.4 * chance.uniform()), 0.15, speed);
        return body.strike(clapper, new Chain(chance, StruckBody.stepSeconds(fs)), samples, fs);
    }

    /** The chain and shackle of the clapper: a short rattle above a few kHz. */
    private static final class Chain implements StruckBody.Clatter {
        private final Noise chance;
        private final double dt;
        private double shaken;
        private double low;

        Chain(Noise chance, double dt) {
            this.chance = chance;
            this.dt = dt;
        }

        @Override
        public double next(double force) {
            shaken += (1e-4 * force - shaken) * Math.min(1, dt / 0.004) + 1e-4 * force * dt / 0.002;
            double rattle = shaken * chance.white();
            low += (rattle - low) * Math.min(1, 2 * Math.PI * 2500 * dt);
            return 2e-2 * (rattle - low);
        }
    }
}

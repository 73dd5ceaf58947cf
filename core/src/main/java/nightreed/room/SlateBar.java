package nightreed.room;

import nightreed.dsp.Noise;

/** A free bar of slate, struck by a yarn mallet near its middle, on a frame that is not silent. */
final class SlateBar {
    /** Roots of cos(x)·cosh(x) = 1, the bending modes of a free bar. */
    private static final double[] BETA = {
        4.730040745, 7.853204624, 10.995607838, 14.137165491, 17.278759657, 20.420352246, 23.561944902, 26.703537556
    };

    private final StruckBody body;
    private final Noise chance;

    /**
     * @param fundamentalHz first bending mode [Hz]
     * @param chance        small differences from bar to bar
     */
    SlateBar(double fundamentalHz, Noise chance) {
        this.chance = chance;
        double[] hz = new double[BETA.length];
        double[] decay = new double[BETA.length];
        double[] shape = new double[BETA.length];
        double[] radiated = new double[BETA.length];
        double strikeAt = 0.5 + 0.09 * (chance.uniform() - 0.5) + 0.03;
        double listenAt = 0.5 + 0.3 * (chance.uniform() - 0.5);
        double bodyMass = 0.28 * Math.pow(220 / fundamentalHz, 0.7); // [kg] longer bars are heavier
        double loss = 4.2 * Math.pow(fundamentalHz / 220, 0.55);
        for (int k = 0; k < BETA.length; k++) {
            double ideal = fundamentalHz * Math.pow(BETA[k] / BETA[0], 2);
            // shear and rotation lower the upper modes of a thick bar; stone is never quite even
            double thick = 1 / (1 + 0.0025 * k * (k + 1));
            hz[k] = ideal * thick * (1 + (k == 0 ? 0 : 0.006 * chance.white()));
            decay[k] = loss * (1 + 0.25 * chance.uniform()) + 3.2e-4 * Math.pow(hz[k], 1.25) * 0.6;
            shape[k] = shape(k, strikeAt);
            double efficiency = hz[k] / (hz[k] + 900); // a short bar radiates its low modes badly
            radiated[k] = shape(k, listenAt) * efficiency;
        }
        body = new StruckBody(hz, decay, shape, radiated, bodyMass);
    }

    /** Bending shape of a free bar along its length 0..1. */
    private static double shape(int k, double at) {
        double b = BETA[k];
        double sigma = (Math.cosh(b) - Math.cos(b)) / (Math.sinh(b) - Math.sin(b));
        return Math.cosh(b * at) + Math.cos(b * at) - sigma * (Math.sinh(b * at) + Math.sin(b * at));
    }

    /**
     * The bar's sound from the moment of contact.
     *
     * @param speed   of the mallet [m/s]
     * @param samples wanted
     * @param fs      rate [Hz]
     * @return new array; its scale is that of the bar's velocity
     */
    double[] strike(double speed, int samples, double fs) {
        double stiffness = 6e6 * (0.7 + 0.6 * chance.uniform());
        StruckBody.Hammer mallet = new StruckBody.Hammer(0.022, stiffness, 0.35, speed);
        return body.strike(mallet, new Frame(chance, StruckBody.stepSeconds(fs)), samples, fs);
    }

    /** The frame that carries the bar: a few dull resonances and the grain of the contact, driven by the same force. */
    private static final class Frame implements StruckBody.Clatter {
        private static final int MODES = 5;
        private final double[] q = new double[MODES];
        private final double[] v = new double[MODES];
        private final double[] w = new double[MODES];
        private final double[] a = new double[MODES];
        private final Noise chance;
        private final double dt;
        private double grain;
        private double grainLow;

        Frame(Noise chance, double dt) {
            this.chance = chance;
            this.dt = dt;
            for (int i = 0; i < MODES; i++) {
                w[i] = 2 * Math.PI * 300 * Math.pow(2, 0.9 * i + 0.5 * chance.uniform());
                a[i] = 380 + 260 * chance.uniform();
            }
        }

        @Override
        public double next(double force) {
            double sum = 0;
            for (int i = 0; i < MODES; i++) {
                v[i] += (force / 1.6 - w[i] * w[i] * q[i] - 2 * a[i] * v[i]) * dt;
                q[i] += v[i] * dt;
                sum += 0.10 * v[i];
            }
            // roughness of stone and yarn: the force is uneven, which is heard as a rustle up to a few kHz
            double rough = force * chance.white();
            grain += (rough - grain) * Math.min(1, 2 * Math.PI * 5200 * dt);
            grainLow += (grain - grainLow) * Math.min(1, 2 * Math.PI * 700 * dt);
            return sum + 2.6e-3 * (grain - grainLow);
        }
    }
}

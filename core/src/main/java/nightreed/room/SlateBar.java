package nightreed.room;

import nightreed.dsp.Noise;

/**
 * A free bar of slate struck by a mallet: bending modes with damping, pushed by a contact force that grows with the 3/2
 * power of how deep the mallet sinks in (Hertz), less what the contact loses (Hunt &amp; Crossley). A harder blow makes the
 * contact stiffer and shorter, hence brighter: nothing here is told to do so.
 */
final class SlateBar {
    /** Roots of cos(x)·cosh(x) = 1, the bending modes of a free bar. */
    private static final double[] BETA = {
        4.730040745, 7.853204624, 10.995607838, 14.137165491, 17.278759657, 20.420352246, 23.561944902, 26.703537556
    };

    private static final int OVERSAMPLING = 8;

    /** Longest contact that is followed [s]; the mallet has long bounced off by then. */
    private static final double CONTACT_SECONDS = 0.016;

    private final double[] hz = new double[BETA.length];
    private final double[] decay = new double[BETA.length]; // [1/s]
    private final double[] shape = new double[BETA.length]; // of the mode at the strike point
    private final double[] radiated = new double[BETA.length]; // of the mode towards the microphone
    private final double bodyMass;
    private final Noise chance;

    /**
     * @param fundamentalHz first bending mode [Hz]
     * @param chance        small differences from bar to bar
     */
    SlateBar(double fundamentalHz, Noise chance) {
        this.chance = chance;
        double strikeAt = 0.5 + 0.09 * (chance.uniform() - 0.5) + 0.03;
        double listenAt = 0.5 + 0.3 * (chance.uniform() - 0.5);
        bodyMass = 0.28 * Math.pow(220 / fundamentalHz, 0.7); // [kg] longer bars are heavier
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
        int modes = 0;
        while (modes < hz.length && hz[modes] < 0.46 * fs) {
            modes++;
        }
        double dt = 1 / (fs * OVERSAMPLING);
        double[] q = new double[modes];
        double[] v = new double[modes];
        double[] out = new double[samples];
        double malletMass = 0.022; // [kg]
        double stiffness = 6e6 * (0.7 + 0.6 * chance.uniform()); // [N/m^1.5]
        double mallet = 0;
        double malletSpeed = speed;
        int contactSteps = (int) (CONTACT_SECONDS * fs * OVERSAMPLING);
        Frame frame = new Frame(chance, dt);
        double clatter = 0;
        for (int step = 0; step < contactSteps; step++) {
            double bar = 0;
            double barSpeed = 0;
            for (int k = 0; k < modes; k++) {
                bar += shape[k] * q[k];
                barSpeed += shape[k] * v[k];
            }
            double depth = mallet - bar;
            double force = 0;
            if (depth > 0) {
                double closing = malletSpeed - barSpeed;
                force = Math.max(0, stiffness * depth * Math.sqrt(depth) * (1 + 0.35 * closing));
            }
            malletSpeed -= force / malletMass * dt;
            mallet += malletSpeed * dt;
            for (int k = 0; k < modes; k++) {
                double w = 2 * Math.PI * hz[k];
                v[k] += (shape[k] * force / bodyMass - w * w * q[k] - 2 * decay[k] * v[k]) * dt;
                q[k] += v[k] * dt;
            }
            clatter += frame.next(force);
            if (step % OVERSAMPLING == OVERSAMPLING - 1) {
                int i = step / OVERSAMPLING;
                if (i < samples) {
                    out[i] += clatter / OVERSAMPLING;
                    for (int k = 0; k < modes; k++) {
                        out[i] += radiated[k] * v[k];
                    }
                }
                clatter = 0;
            }
        }
        ringOn(q, v, modes, out, contactSteps / OVERSAMPLING, fs);
        return out;
    }

    /** Free ringing after the contact, in closed form. */
    private void ringOn(double[] q, double[] v, int modes, double[] out, int from, double fs) {
        for (int k = 0; k < modes; k++) {
            double w = Math.sqrt(Math.pow(2 * Math.PI * hz[k], 2) - decay[k] * decay[k]);
            // q(t) = e^(-at) (q0 cos wt + (v0 + a q0)/w sin wt); the microphone hears its rate of change
            double c = q[k];
            double s = (v[k] + decay[k] * q[k]) / w;
            for (int i = from; i < out.length; i++) {
                double t = (i - from + 1) / fs;
                double e = Math.exp(-decay[k] * t);
                if (e < 1e-7) {
                    break;
                }
                double cos = Math.cos(w * t);
                double sin = Math.sin(w * t);
                double rate = e * ((s * w - decay[k] * c) * cos - (c * w + decay[k] * s) * sin);
                out[i] += radiated[k] * rate;
            }
        }
    }

    /** The frame that carries the bar: a few dull resonances and the grain of the contact, driven by the same force. */
    private static final class Frame {
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

        double next(double force) {
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

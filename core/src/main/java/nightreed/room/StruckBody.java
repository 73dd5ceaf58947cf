package nightreed.room;

/**
 * A body of many modes struck by a hammer: each mode is a damped spring, pushed by a contact force that grows with the 3/2
 * power of how deep the hammer sinks in (Hertz), less what the contact loses (Hunt &amp; Crossley). A harder blow makes the
 * contact stiffer and shorter, hence brighter: nothing here is told to do so.
 *
 * @param hz       frequencies of the modes [Hz], the lowest first
 * @param decay    their dampings [1/s]: amplitude falls as e^(-decay t)
 * @param shape    how far each mode moves where it is struck, for a unit of its amplitude
 * @param radiated how much of each mode's velocity reaches the microphone
 * @param massKg   modal mass, the same for all
 */
record StruckBody(double[] hz, double[] decay, double[] shape, double[] radiated, double massKg) {
    private static final int OVERSAMPLING = 8;

    /** Longest contact that is followed [s]; the hammer has long bounced off by then. */
    private static final double CONTACT_SECONDS = 0.016;

    /**
     * What strikes.
     *
     * @param massKg    mass [kg]
     * @param stiffness of the contact [N/m^1.5]
     * @param loss      share of the force that is lost per m/s of closing speed
     * @param speed     at the moment of contact [m/s]
     */
    record Hammer(double massKg, double stiffness, double loss, double speed) {}

    /** What else sounds while the contact lasts. */
    interface Clatter {
        /** @param force contact force [N] @return sound of one oversampled step */
        double next(double force);
    }

    /** Time of one step of the contact [s] at a sample rate [Hz]. */
    static double stepSeconds(double fs) {
        return 1 / (fs * OVERSAMPLING);
    }

    /**
     * The body's sound from the moment of contact.
     *
     * @param samples wanted
     * @param fs      rate [Hz]
     * @return new array; its scale is that of the body's velocity
     */
    double[] strike(Hammer hammer, Clatter frame, int samples, double fs) {
        int modes = 0;
        while (modes < hz.length && hz[modes] < 0.46 * fs) {
            modes++;
        }
        double dt = stepSeconds(fs);
        double[] q = new double[modes];
        double[] v = new double[modes];
        double[] out = new double[samples];
        double at = 0;
        double speed = hammer.speed;
        int contactSteps = (int) (CONTACT_SECONDS * fs * OVERSAMPLING);
        double clatter = 0;
        for (int step = 0; step < contactSteps; step++) {
            double body = 0;
            double bodySpeed = 0;
            for (int k = 0; k < modes; k++) {
                body += shape[k] * q[k];
                bodySpeed += shape[k] * v[k];
            }
            double depth = at - body;
            double force = 0;
            if (depth > 0) {
                double closing = speed - bodySpeed;
                force = Math.max(0, hammer.stiffness * depth * Math.sqrt(depth) * (1 + hammer.loss * closing));
            }
            speed -= force / hammer.massKg * dt;
            at += speed * dt;
            for (int k = 0; k < modes; k++) {
                double w = 2 * Math.PI * hz[k];
                v[k] += (shape[k] * force / massKg - w * w * q[k] - 2 * decay[k] * v[k]) * dt;
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
}

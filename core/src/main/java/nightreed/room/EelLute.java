package nightreed.room;

import nightreed.dsp.Noise;

/**
 * The eel lute: a plucked gut string whose two planes of motion see the bridge differently, so that each partial is two that
 * beat and die at two paces; stiff, as gut is; on a body with a few resonances. Partials of a plucked string: N. H. Fletcher,
 * T. D. Rossing, "The Physics of Musical Instruments", 1998, chapter 2.
 */
final class EelLute {
    private static final double[][] BODY = {
        {118, 30, 0.25}, {225, 36, 0.5}, {410, 40, 0.6}, {720, 90, 0.5}, {1500, 260, 0.35}
    };

    private final double hz;
    private final Noise chance;

    EelLute(double hz, Noise chance) {
        this.hz = hz;
        this.chance = chance;
    }

    /** @param strength 0 to 1 @param samples wanted @param fs rate [Hz] */
    double[] pluck(double strength, int samples, double fs) {
        double beta = 0.13 + 0.05 * chance.uniform();
        double stiffness = 1.1e-4 * Math.pow(hz / 110, 0.8) * (0.8 + 0.4 * chance.uniform());
        double soft = 0.012 * (1.6 - strength); // width of the fingertip over the string's length
        double[] force = new double[samples];
        double slant = 0.35 + 0.5 * chance.uniform(); // of the pluck between the two planes [rad]
        for (int plane = 0; plane < 2; plane++) {
            double part = plane == 0 ? Math.cos(slant) : Math.sin(slant);
            double f0 = hz * (plane == 0 ? 1 : 1 + 4e-4 + 5e-4 * chance.uniform());
            double loss = plane == 0 ? 1.5 : 0.55; // across the body the bridge takes more
            for (int n = 1; n < 120; n++) {
                double f = n * f0 * Math.sqrt(1 + stiffness * n * n);
                if (f > 0.45 * fs) {
                    break;
                }
                double shape = Math.sin(Math.PI * n * beta) / n * Math.exp(-Math.pow(n * soft * Math.PI, 2));
                double decay = loss * Math.pow(hz / 110, 0.4) + 0.55 * f / 1000 + 0.06 * f * f / 1e6;
                ring(force, 0.5 * strength * part * shape, f, decay, fs);
            }
        }
        double let = 1; // the finger lets go within a millisecond or two
        double slip = Math.exp(-1 / (0.0015 * fs));
        for (int i = 0; i < samples; i++) {
            let *= slip;
            force[i] *= 1 - let;
        }
        return body(force, fs);
    }

    private static void ring(double[] out, double amplitude, double f, double decay, double fs) {
        double r = Math.exp(-decay / fs);
        double c = 2 * r * Math.cos(2 * Math.PI * f / fs);
        double y1 = amplitude; // a plucked string starts from where it was pulled to: cosines
        double y2 = amplitude * Math.cos(2 * Math.PI * f / fs) / r;
        for (int i = 0; i < out.length; i++) {
            out[i] += y1;
            double y = c * y1 - r * r * y2;
            y2 = y1;
            y1 = y;
            if (Math.abs(y1) + Math.abs(y2) < 1e-9) {
                break;
            }
        }
    }

    private double[] body(double[] force, double fs) {
        double[] sound = new double[force.length];
        for (double[] mode : BODY) {
            double w = 2 * Math.PI * mode[0] * (1 + 0.03 * chance.white()) / fs;
            double r = Math.exp(-Math.PI * mode[1] / fs);
            double y1 = 0;
            double y2 = 0;
            for (int i = 0; i < force.length; i++) {
                double x = i < 2 ? force[i] : force[i] - force[i - 2];
                double y = (1 - r) * x + 2 * r * Math.cos(w) * y1 - r * r * y2;
                y2 = y1;
                y1 = y;
                sound[i] += mode[2] * y;
            }
        }
        double before = 0;
        for (int i = 0; i < force.length; i++) {
            sound[i] = 0.9 * sound[i] + 0.25 * (force[i] - 0.9 * before);
            before = force[i];
        }
        return sound;
    }
}

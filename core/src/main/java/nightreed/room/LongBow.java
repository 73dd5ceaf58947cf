package nightreed.room;

import nightreed.dsp.Noise;

/**
 * The long bow: a bowed string on a wooden body. The bow either holds the string or lets it slip, by a friction that falls
 * with speed, and which of the two follows from the waves that arrive under it (M. E. McIntyre, R. T. Schumacher, J.
 * Woodhouse, JASA 74(5), 1983). The player's hand rolls on the string: vibrato, after the note has settled.
 */
final class LongBow {
    /** Resonances of the body [Hz], their widths [Hz] and strengths. */
    private static final double[][] BODY = {
        {196, 22, 0.6},
        {285, 30, 1.0},
        {460, 38, 1.0},
        {560, 45, 0.7},
        {880, 80, 0.5},
        {1350, 140, 0.5},
        {2600, 500, 0.9}
    };

    private final double hz;
    private final Noise chance;

    LongBow(double hz, Noise chance) {
        this.hz = hz;
        this.chance = chance;
    }

    /** @param force 0 to 1 @param seconds how long the bow moves @param samples wanted @param fs rate [Hz] */
    double[] bow(double force, double seconds, int samples, double fs) {
        double beta = 0.11 + 0.03 * chance.uniform();
        double[] nut = new double[(int) (fs / 20)];
        double[] bridge = new double[nut.length];
        double[] out = new double[samples];
        double speed = 0;
        double top = 0.06 + 0.2 * force;
        double press = 0.25 + 0.6 * force;
        double low = 0;
        double rate = 5.1 + 0.6 * chance.uniform();
        double unsteady = 0;
        for (int i = 0; i < samples; i++) {
            double t = i / fs;
            double wanted = t < seconds ? top * (1 + unsteady) : 0;
            unsteady += (0.25 * chance.white() - unsteady) * 6 / fs;
            speed += (wanted - speed) / ((t < seconds ? 0.06 : 0.03) * fs);
            double normal = t < seconds ? press : press * Math.exp(-(t - seconds) / 0.02);
            double roll = Math.min(1, Math.max(0, (t - 0.45) / 0.4));
            double cents = 17 * roll * Math.sin(2 * Math.PI * rate * t);
            double period = fs / (hz * Math.pow(2, cents / 1200)) - 0.72; // less what the bridge's loss delays
            double fromNut = -read(nut, i, (1 - beta) * period);
            low += (read(bridge, i, beta * period) - low) * 0.58;
            double fromBridge = -0.985 * low;
            double arriving = fromNut + fromBridge;
            double added = friction(speed - arriving, normal * (1 + 0.03 * chance.white()));
            nut[i % nut.length] = fromBridge + added;
            bridge[i % bridge.length] = fromNut + added;
            out[i] = fromNut + added; // force on the bridge
        }
        return body(out, fs);
    }

    /**
     * What the bow adds to the string's speed: all that is missing while it holds; else what the friction, falling with the
     * speed of slipping, still pushes.
     */
    private static double friction(double missing, double normal) {
        double hold = 0.8 * normal;
        if (Math.abs(missing) <= hold) {
            return missing;
        }
        double sign = Math.signum(missing);
        double slip = Math.abs(missing) - hold; // a first guess, made better twice
        for (int k = 0; k < 3; k++) {
            double push = normal * (0.18 + 0.62 / (1 + slip / 0.04));
            slip = Math.max(0, Math.abs(missing) - push);
        }
        return sign * normal * (0.18 + 0.62 / (1 + slip / 0.04));
    }

    private static double read(double[] line, int now, double delay) {
        double place = now - delay;
        int k = (int) Math.floor(place);
        double f = place - k;
        double a = line[Math.floorMod(k, line.length)];
        return a + f * (line[Math.floorMod(k + 1, line.length)] - a);
    }

    private double[] body(double[] force, double fs) {
        double[] sound = new double[force.length];
        for (double[] mode : BODY) {
            double w = 2 * Math.PI * mode[0] * (1 + 0.02 * chance.white()) / fs;
            double r = Math.exp(-Math.PI * mode[1] / fs);
            double y1 = 0;
            double y2 = 0;
            for (int i = 0; i < force.length; i++) {
                double x = i < 2 ? 0 : force[i] - force[i - 2];
                double y = (1 - r) * x + 2 * r * Math.cos(w) * y1 - r * r * y2;
                y2 = y1;
                y1 = y;
                sound[i] += mode[2] * y;
            }
        }
        for (int i = 1; i < force.length; i++) {
            sound[i] = 0.5 * sound[i] + 0.12 * (force[i] - force[i - 1]);
        }
        return sound;
    }
}

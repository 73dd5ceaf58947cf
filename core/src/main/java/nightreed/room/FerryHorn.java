package nightreed.room;

import nightreed.dsp.Noise;

/**
 * The night ferry's horn: lips that open and close at the note let air through by Bernoulli's law into a bore, whose answer
 * comes back from the bell; on its way out a loud wave steepens, as pressure travels faster where it is high (A. Hirschberg
 * et al., JASA 99(3), 1996). So brightness follows loudness: nothing here is told to do so.
 */
final class FerryHorn {
    private static final int OVERSAMPLING = 4;
    private final double hz;
    private final Noise chance;

    FerryHorn(double hz, Noise chance) {
        this.hz = hz;
        this.chance = chance;
    }

    /**
     * @param breath  0 to 1
     * @param seconds how long it is blown
     * @param samples wanted
     * @param fs      rate [Hz]
     * @return new array
     */
    double[] blow(double breath, double seconds, int samples, double fs) {
        double rate = fs * OVERSAMPLING;
        int bore = (int) Math.round(0.5 * rate / hz); // there and back again lasts one period of the note
        double[] back = new double[bore + 1];
        int far = 1024;
        double[] out = new double[far * 2];
        double[] sound = new double[samples];
        double steepness = 900 * rate / 192_000; // samples by which full pressure comes early
        double pressure = 0;
        double rise = 0.03 + 0.05 * (1 - breath);
        double phase = 0;
        double wander = 0;
        double low = 0;
        double radiatedLast = 0;
        double still = 0;
        double sum = 0;
        for (int i = 0; i < samples * OVERSAMPLING; i++) {
            double t = i / rate;
            double wanted = t < seconds ? 0.03 + 0.97 * breath * breath : 0;
            pressure += (wanted - pressure) / ((t < seconds ? rise : 0.04) * rate);
            wander += (0.004 * chance.white() - wander) * 20 / rate;
            // lips find the note within a few periods, from below
            double pull = 1 - 0.02 * Math.exp(-t / 0.03);
            phase += hz * pull * (1 + wander) / rate;
            phase -= Math.floor(phase);
            double area = 0.35 * (1 + Math.sin(2 * Math.PI * phase)); // lips that just touch
            int at = i % back.length;
            double returning = back[at];
            double mouth = pressure * (1 + 0.004 * chance.white());
            double drop = Math.max(0, mouth - 2 * returning);
            double a2 = area * area;
            double flow = (-a2 + Math.sqrt(a2 * a2 + 4 * a2 * drop)) / 2;
            double going = returning + flow;
            low += (going - low) * 0.18; // the bell sends back the lows
            back[at] = -0.55 * low;
            // steepening: what is at high pressure arrives early
            still += (going - still) * Math.min(1, 8 / rate * 2 * Math.PI);
            out[i % out.length] = going - still; // steady air does not steepen
            double early = steepness * out[Math.floorMod(i - far / 2, out.length)];
            double place = i - far / 2.0 + Math.max(-far / 2.0 + 2, Math.min(far / 2.0 - 2, early));
            int k = (int) Math.floor(place);
            double f = place - k;
            double arrived = (1 - f) * out[Math.floorMod(k, out.length)] + f * out[Math.floorMod(k + 1, out.length)];
            double radiated = arrived - radiatedLast; // what leaves the bell is the change of pressure
            radiatedLast += (arrived - radiatedLast) * Math.min(1, 2 * Math.PI * 700 / rate);
            sum += radiated;
            if (i % OVERSAMPLING == OVERSAMPLING - 1) {
                sound[i / OVERSAMPLING] = 0.35 * sum / OVERSAMPLING;
                sum = 0;
            }
        }
        return sound;
    }
}

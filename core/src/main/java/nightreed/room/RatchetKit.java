package nightreed.room;

import nightreed.dsp.Noise;

/**
 * The ratchet kit: blocks of wood up to middle C and plates of metal above, struck with a stick. A hollowed block has few
 * modes, which die within a tenth of a second; a plate has many, evenly spread in frequency, the high ones soon gone.
 */
final class RatchetKit {
    /** Highest key that is wood. */
    static final int HIGHEST_WOOD = 60;

    private static final double[] WOOD = {1, 2.41, 2.86, 4.35, 5.2, 7.6, 9.1};

    private final StruckBody body;
    private final Noise chance;
    private final boolean wood;

    RatchetKit(double hz, boolean wood, Noise chance) {
        this.chance = chance;
        this.wood = wood;
        int n = wood ? WOOD.length : 28;
        double[] mode = new double[n];
        double[] decay = new double[n];
        double[] shape = new double[n];
        double[] radiated = new double[n];
        double at = hz;
        for (int k = 0; k < n; k++) {
            mode[k] = wood ? hz * WOOD[k] * (1 + (k == 0 ? 0 : 0.02 * chance.white())) : at;
            at += hz * (0.35 + 0.5 * chance.uniform());
            decay[k] = wood
                    ? 45 + 0.035 * mode[k] * (0.8 + 0.4 * chance.uniform())
                    : 2.2 + 9e-4 * mode[k] * (0.7 + 0.6 * chance.uniform());
            shape[k] = 0.5 + 0.6 * chance.uniform();
            radiated[k] = (0.5 + 0.5 * chance.uniform()) * mode[k] / (mode[k] + 500);
        }
        body = new StruckBody(mode, decay, shape, radiated, wood ? 0.12 : 0.35);
    }

    double[] strike(double speed, int samples, double fs) {
        StruckBody.Hammer stick = new StruckBody.Hammer(0.018, wood ? 3e7 : 9e7, 0.3, speed);
        double dt = StruckBody.stepSeconds(fs);
        double[] grain = new double[2];
        return body.strike(
                stick,
                force -> { // splinters and edges under the stick
                    grain[0] += (force * chance.white() - grain[0]) * Math.min(1, 2 * Math.PI * 7000 * dt);
                    grain[1] += (grain[0] - grain[1]) * Math.min(1, 2 * Math.PI * 900 * dt);
                    return (wood ? 2.2e-3 : 6e-4) * (grain[0] - grain[1]);
                },
                samples,
                fs);
    }
}

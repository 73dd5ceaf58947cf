package nightreed.measure.held;

import nightreed.dsp.SincReader;

/** Harmonics of a held note by themselves, each with the level and the phase that it has in the recording at every moment. */
public final class HeldSound {
    private HeldSound() {}

    /**
     * @param x       recording
     * @param fs      its rate [Hz]
     * @param note    what was measured in it
     * @param numbers harmonics wanted, from 1
     * @return as many samples as the recording
     */
    public static double[] harmonics(double[] x, double fs, HeldNote note, int[] numbers) {
        PitchPath path = new PitchPath(note.pathSeconds(), note.pathHz());
        Harmonics h =
                Harmonics.along(new SincReader(x), fs, path, Math.max(0, note.onsetSeconds() - 0.05), x.length / fs);
        double[] out = new double[x.length];
        for (int f = 0; f + 1 < h.frames(); f++) {
            int from = (int) Math.ceil(h.seconds(f) * fs);
            int to = (int) Math.min(out.length, Math.ceil(h.seconds(f + 1) * fs));
            for (int i = Math.max(0, from); i < to; i++) {
                double u = (i / fs - h.seconds(f)) / (h.seconds(f + 1) - h.seconds(f));
                double turn = 2 * Math.PI * path.cyclesAt(i / fs);
                for (int n : numbers) {
                    if (n >= 1 && n <= h.count()) {
                        double re = h.re(n, f) + u * (h.re(n, f + 1) - h.re(n, f));
                        double im = h.im(n, f) + u * (h.im(n, f + 1) - h.im(n, f));
                        out[i] += re * Math.cos(n * turn) - im * Math.sin(n * turn);
                    }
                }
            }
        }
        return out;
    }
}

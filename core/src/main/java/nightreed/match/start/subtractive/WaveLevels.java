package nightreed.match.start.subtractive;

import nightreed.dsp.RealFft;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.voice.note.MovingFilter;
import nightreed.voice.wave.WaveOscillator;

/** How loud the harmonics of an ideal wave are, as the voices play it. */
final class WaveLevels {
    /** Samples of one cycle. */
    private static final int CYCLE = 1024;

    private WaveLevels() {}

    /** Levels of the harmonics of a wave, bent by a drive [dB]. */
    static double[] of(Wave wave, double width, double imperfection, double driveDb, int harmonics) {
        double fs = CYCLE * 50;
        WaveOscillator o = new WaveOscillator(fs, null);
        o.start(0);
        o.step(wave, 50, 0.49 * fs, width, imperfection, CYCLE);
        double[] x = new double[CYCLE];
        o.render(x, CYCLE);
        if (driveDb > 0.05) { // under this nothing is driven
            double drive = Math.pow(10, driveDb / 20);
            for (int i = 0; i < CYCLE; i++) {
                x[i] = MovingFilter.softClipped(x[i] * drive);
            }
        }
        double[] s = new RealFft(CYCLE).forward(x);
        double[] out = new double[harmonics];
        for (int k = 0; k < harmonics; k++) {
            double re = s[2 * (k + 1)];
            double im = s[2 * (k + 1) + 1];
            out[k] = 10 * Math.log10(re * re + im * im + 1e-9);
        }
        return out;
    }
}

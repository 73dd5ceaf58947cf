package nightreed.measure.law;

import java.util.ArrayList;
import java.util.List;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.Partial;
import org.hipparchus.special.BesselJ;

/**
 * One sine that modulates the frequency of another: A e^(-t/τ) sin(2π c t + φc + I(t) sin(2π m t + φm)), I(t) = I e^(-t/τi), t
 * from the onset (J. Chowning, JAES 21(7), 1973).
 *
 * @param carrierHz    c [Hz]
 * @param modulatorHz  m [Hz]
 * @param t60Seconds   T60 of the whole [s]
 * @param index        I at the onset
 * @param indexSeconds τi, the time in which the index falls to 1/e [s]
 * @param amplitude    A, as a peak [1 = full scale]
 * @param carrierRad   φc [rad]
 * @param modulatorRad φm [rad]
 * @param carrierVar   variance of c [Hz²]
 * @param covariance   covariance of c and m [Hz²]
 * @param modulatorVar variance of m [Hz²]
 */
public record FmLaw(
        double carrierHz,
        double modulatorHz,
        double t60Seconds,
        double index,
        double indexSeconds,
        double amplitude,
        double carrierRad,
        double modulatorRad,
        double carrierVar,
        double covariance,
        double modulatorVar) {
    private static final int MOST_ORDERS = 40;

    /** Lines that are weaker than this are not told [dB]. */
    private static final double LOWEST_DB = -75;

    /** Ratio over the noise that a line needs, as every partial. */
    private static final double LEAST_RATIO = 32;

    /** Steps in which the energy of a line is summed. */
    private static final int STEPS = 60;

    public SidebandLattice lattice() {
        return new SidebandLattice(carrierHz, modulatorHz, carrierVar, covariance, modulatorVar);
    }

    /** Modulator over carrier. */
    public double ratio() {
        return modulatorHz / carrierHz;
    }

    /** Adds {@code gain} times the waveform to samples, the first of which lies so many samples after the onset. */
    public void addTo(double[] y, double sinceOnset, double fs, double gain) {
        double decay = Math.log(1000) / t60Seconds / fs;
        double fall = 1 / indexSeconds / fs;
        for (int i = 0; i < y.length; i++) {
            double t = i + sinceOnset;
            double swing = index * Math.exp(-fall * t) * Math.sin(2 * Math.PI * modulatorHz / fs * t + modulatorRad);
            y[i] += gain
                    * amplitude
                    * Math.exp(-decay * t)
                    * Math.sin(2 * Math.PI * carrierHz / fs * t + carrierRad + swing);
        }
    }

    /** Amplitude of the strongest line at the onset [1 = full scale]. */
    public double strongest() {
        double most = 0;
        for (double v : BesselJ.rjBesl(index, 0, MOST_ORDERS + 1).getVals()) {
            most = Math.max(most, Math.abs(v));
        }
        return amplitude * most;
    }

    /** A partial for every line that stands out of the noise over so many seconds, by rising frequency. */
    public List<Partial> partials(double seconds, double fs, NoiseFloor floor) {
        double[] j = BesselJ.rjBesl(index, 0, MOST_ORDERS + 1).getVals();
        double strongest = 1e-12;
        for (double v : j) {
            strongest = Math.max(strongest, Math.abs(v));
        }
        double[] energy = energies(seconds, fs);
        List<Partial> out = new ArrayList<>();
        for (int k = -MOST_ORDERS; k <= MOST_ORDERS; k++) {
            double signed = carrierHz + k * modulatorHz;
            double hz = Math.abs(signed);
            double level = Math.abs(j[Math.abs(k)]);
            double db = 20 * Math.log10(level / strongest + 1e-12);
            if (hz < 20 || hz > 0.48 * fs) {
                continue;
            }
            double ratio = energy[Math.abs(k)] / floor.at(hz);
            if (ratio < LEAST_RATIO || db < LOWEST_DB) {
                continue;
            }
            double odd = k < 0 && k % 2 != 0 ? Math.PI : 0;
            double sign = j[Math.abs(k)] < 0 ? Math.PI : 0;
            double phase = carrierRad + k * modulatorRad + odd + sign - Math.PI / 2; // of a cosine
            out.add(new Partial(
                    hz,
                    1,
                    db,
                    amplitude * level,
                    Math.IEEEremainder(signed > 0 ? phase : -phase, 2 * Math.PI),
                    null,
                    null,
                    null,
                    null,
                    Math.sqrt(Math.max(0, carrierVar + 2 * k * covariance + (double) k * k * modulatorVar)),
                    null,
                    10 * Math.log10(ratio),
                    true));
        }
        return out;
    }

    /** Energy of each order over a time, in the unit of a ratio over the variance of the noise. */
    private double[] energies(double seconds, double fs) {
        double[] sum = new double[MOST_ORDERS + 1];
        double step = seconds / STEPS;
        for (int i = 0; i < STEPS; i++) {
            double t = (i + 0.5) * step;
            double size = amplitude * Math.exp(-t * Math.log(1000) / t60Seconds);
            double[] j = BesselJ.rjBesl(index * Math.exp(-t / indexSeconds) + 1e-9, 0, MOST_ORDERS + 1)
                    .getVals();
            for (int k = 0; k < sum.length; k++) {
                sum[k] += size * size * j[k] * j[k] / 4 * step * fs;
            }
        }
        return sum;
    }
}

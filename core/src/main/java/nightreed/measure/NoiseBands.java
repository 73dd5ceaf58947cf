package nightreed.measure;

import java.util.ArrayList;
import java.util.List;
import nightreed.dsp.LineFit;
import nightreed.dsp.RealFft;
import nightreed.dsp.Windows;
import nightreed.measure.partial.NoiseFloor;
import nightreed.music.Bark;
import nightreed.sound.Clip;

/**
 * What is left of a recording without its partials, by critical bands over time: breath, bow, strike and room.
 *
 * @param hopSeconds       time between two frames [s]
 * @param levelDb          [band][frame] level from the onset on [dB re the strongest partial at the onset]; NaN where it is
 *                         under the background
 * @param startDb          level of each band in its loudest frame [dB], NaN where there is none
 * @param t60Seconds       time in which each band falls by 60 dB, from its loudest frame on [s]; NaN where it does not fall,
 *                         or not for long enough to say
 * @param slopeDbPerOctave colour over all frames: of the density, so that white noise has 0 [dB/octave]; NaN if too few
 *                         bands stand out
 */
public record NoiseBands(
        double hopSeconds, double[][] levelDb, double[] startDb, double[] t60Seconds, double slopeDbPerOctave) {
    private static final double HOP_SECONDS = 0.010;
    private static final double FRAME_SECONDS = 0.024;
    private static final int MOST_FRAMES = 600;

    /** Power over the background that a frame of a band needs: estimates of noise scatter. */
    private static final double CLEAR = 2;

    /** A fall that is shorter than this says little of a decay [dB]. */
    private static final double LEAST_FALL_DB = 10;

    private static final int LEAST_FRAMES = 4;

    /** What is left of a recording without the partials that were measured in it. */
    public static NoiseBands of(Clip clip, Measurement m) {
        double fs = clip.sampleRateHz();
        double[] rest = PartialSounds.rest(clip, m).mixed();
        int onset = (int) Math.round(m.onsetSeconds() * fs);
        NoiseFloor floor =
                onset > 0.05 * fs ? NoiseFloor.of(rest, 0, onset - (int) (0.002 * fs), fs) : NoiseFloor.none(fs);
        double strongest = m.strongest() == null ? 1 : m.strongest().amplitude();
        return of(rest, fs, onset, floor, strongest * strongest / 2);
    }

    public static NoiseBands of(double[] rest, double fs, int onset, NoiseFloor floor, double reference) {
        int hop = (int) (HOP_SECONDS * fs);
        int length = (int) (FRAME_SECONDS * fs);
        int frames = Math.max(0, Math.min(MOST_FRAMES, (rest.length - onset - length) / hop));
        RealFft fft = new RealFft(RealFft.powerOfTwoFrom(length));
        double[][] power = new double[Bark.BANDS][frames];
        double[] background = background(floor, fs);
        for (int f = 0; f < frames; f++) {
            double[] p = frame(rest, onset + f * hop, length, fft);
            for (int k = 1; k < p.length; k++) {
                int band = Bark.band(k * fs / fft.length());
                if (band >= 0) {
                    power[band][f] += p[k];
                }
            }
        }
        double[][] db = new double[Bark.BANDS][frames];
        double[] start = new double[Bark.BANDS];
        double[] t60 = new double[Bark.BANDS];
        for (int b = 0; b < Bark.BANDS; b++) {
            for (int f = 0; f < frames; f++) {
                double clean = power[b][f] - background[b];
                db[b][f] = clean > (CLEAR - 1) * background[b] ? 10 * Math.log10(clean / reference) : Double.NaN;
            }
            int loudest = loudest(db[b]);
            start[b] = loudest < 0 ? Double.NaN : db[b][loudest];
            t60[b] = loudest < 0 ? Double.NaN : decay(db[b], loudest);
        }
        return new NoiseBands(HOP_SECONDS, db, start, t60, slope(start, fs));
    }

    /** Mean power per bin of a stretch, so scaled that the bins add up to its mean square. */
    private static double[] frame(double[] x, int from, int length, RealFft fft) {
        double[] frame = new double[length];
        double norm = 0;
        for (int i = 0; i < length; i++) {
            double w = Windows.hann(i, length);
            frame[i] = w * x[from + i];
            norm += w * w;
        }
        double[] p = RealFft.power(fft.forward(frame));
        for (int k = 0; k < p.length; k++) {
            p[k] *= 2 / (norm * fft.length());
        }
        return p;
    }

    private static double[] background(NoiseFloor floor, double fs) {
        double[] out = new double[Bark.BANDS];
        for (int b = 0; b < out.length; b++) {
            double width = Math.max(0, Math.min(fs / 2, Bark.edgeHz(b + 1)) - Bark.edgeHz(b));
            out[b] = floor.at(Bark.centreHz(b)) * width / (fs / 2);
        }
        return out;
    }

    private static int loudest(double[] db) {
        int best = -1;
        for (int f = 0; f < db.length; f++) {
            if (!Double.isNaN(db[f]) && (best < 0 || db[f] > db[best])) {
                best = f;
            }
        }
        return best;
    }

    /** Straight line through the levels from the loudest frame on, as long as they stand clear. */
    private static double decay(double[] db, int loudest) {
        LineFit line = new LineFit();
        for (int f = loudest; f < db.length && !Double.isNaN(db[f]); f++) {
            line.add(f - loudest, db[f]);
        }
        if (line.count() < LEAST_FRAMES) {
            return Double.NaN;
        }
        double perFrame = line.slope();
        return -perFrame * line.count() < LEAST_FALL_DB ? Double.NaN : -60 / perFrame * HOP_SECONDS;
    }

    /** Of the density in the loudest frames, over the bands that stand within 30 dB of the loudest. */
    private static double slope(double[] start, double fs) {
        double most = Double.NEGATIVE_INFINITY;
        for (double s : start) {
            most = Double.isNaN(s) ? most : Math.max(most, s);
        }
        LineFit line = new LineFit();
        for (int b = 0; b < start.length; b++) {
            double width = Math.min(fs / 2, Bark.edgeHz(b + 1)) - Bark.edgeHz(b);
            if (start[b] > most - 30 && width > 0) {
                line.add(Math.log(Bark.centreHz(b)) / Math.log(2), start[b] - 10 * Math.log10(width));
            }
        }
        return line.count() < 4 ? Double.NaN : line.slope();
    }

    /**
     * Median of the decays of the bands that start within 20 dB of the loudest [s]; NaN if most of them do not die. Bands in
     * which a partial lies keep some of it, which is why no single band decides.
     */
    public double t60() {
        double most = Double.NEGATIVE_INFINITY;
        for (double s : startDb) {
            most = Double.isNaN(s) ? most : Math.max(most, s);
        }
        List<Double> decays = new ArrayList<>();
        int counted = 0;
        for (int b = 0; b < startDb.length; b++) {
            if (startDb[b] > most - 20) {
                counted++;
                if (!Double.isNaN(t60Seconds[b])) {
                    decays.add(t60Seconds[b]);
                }
            }
        }
        decays.sort(null);
        return decays.isEmpty() || 2 * decays.size() < counted ? Double.NaN : decays.get(decays.size() / 2);
    }
}

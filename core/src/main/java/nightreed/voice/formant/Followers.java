package nightreed.voice.formant;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.sound.Clip;
import nightreed.voice.note.Section;

/** Bands that take their levels from a recording, so that one sound moves the bands of another. */
public final class Followers {
    private static final double LEAST_DB = -90;
    private static final int BLOCK = 32;

    private Followers() {}

    /**
     * The recipe with its bands' levels over time taken from a recording: the level of each band there, against the loudest
     * that any reaches.
     *
     * @param clip        recording; all channels are mixed
     * @param fromSeconds where the note begins in it [s]
     * @return a recipe whose bands follow; where the recording ends they go on falling as they fell
     */
    public static FormantRecipe follow(FormantRecipe recipe, Clip clip, double fromSeconds) {
        double[][] power = powers(recipe, clip, fromSeconds);
        int n = recipe.bands().size();
        double most = 1e-20;
        for (double[] p : power) {
            for (double v : p) {
                most = Math.max(most, v);
            }
        }
        List<FormantBand> out = new ArrayList<>();
        for (int b = 0; b < n; b++) {
            List<Double> path = new ArrayList<>();
            for (double v : power[b]) {
                path.add(Math.max(LEAST_DB, 10 * Math.log10(v / most + 1e-12)));
            }
            FormantBand is = recipe.bands().get(b);
            out.add(new FormantBand(
                    is.centreHz(),
                    is.widthHz(),
                    is.levelDb(),
                    is.noiseShare(),
                    is.pan(),
                    is.drone(),
                    is.envelope(),
                    path));
        }
        return recipe.withBands(out);
    }

    /** Mean power that each band takes out of a sound [band][step of the recipe]. */
    public static double[][] powers(FormantRecipe recipe, Clip clip, double fromSeconds) {
        double[] x = clip.mixed();
        double fs = clip.sampleRateHz();
        int first = (int) Math.max(0, fromSeconds * fs);
        int step = (int) Math.max(BLOCK, Math.rint(recipe.stepSeconds() * fs / BLOCK) * BLOCK);
        int steps = Math.min(4000, Math.max(1, (x.length - first) / step));
        double[][] power = new double[recipe.bands().size()][steps];
        if (recipe.bank() == Bank.SIDE_BY_SIDE) {
            split(recipe, x, fs, first, step, power);
        } else {
            resonate(recipe, x, fs, first, step, power);
        }
        return power;
    }

    private static void split(FormantRecipe r, double[] x, double fs, int first, int step, double[][] power) {
        SplitBank bank = new SplitBank(power.length, fs);
        for (int i = 0; i <= power.length; i++) {
            bank.edge(i, BankResponse.edgeHz(r, i) * Math.pow(2, r.shiftCents() / 1200));
        }
        double[] rest = new double[BLOCK];
        double[] low = new double[BLOCK];
        for (int at = first; at + BLOCK <= x.length; at += BLOCK) {
            int k = (at - first) / step;
            if (k >= power[0].length) {
                break;
            }
            System.arraycopy(x, at, rest, 0, BLOCK);
            bank.split(0, rest, low, BLOCK);
            for (int b = 0; b < power.length; b++) {
                bank.split(b + 1, rest, low, BLOCK);
                for (double v : low) {
                    power[b][k] += v * v / step;
                }
            }
        }
    }

    private static void resonate(FormantRecipe r, double[] x, double fs, int first, int step, double[][] power) {
        for (int b = 0; b < power.length; b++) {
            Section s = new Section();
            double f = Math.pow(2, r.shiftCents() / 1200);
            s.bandPass(r.bands().get(b).centreHz() * f, r.bands().get(b).widthHz() * f, fs);
            for (int i = first; i < x.length && (i - first) / step < power[b].length; i++) {
                double y = s.next(x[i]);
                power[b][(i - first) / step] += y * y / step;
            }
        }
    }
}

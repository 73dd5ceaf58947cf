package nightreed.match.fit;

import java.util.ArrayList;
import java.util.List;
import nightreed.match.fit.RenderedLeastSquares.Candidate;
import nightreed.match.sound.AnalysedSound;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.sound.Clip;
import nightreed.voice.formant.Followers;

/** Levels of bands that follow a recording: each is moved by what it lacks there, render by render. */
final class BandLevelFit {
    private static final int ROUNDS = 3;

    private BandLevelFit() {}

    /** What sounds beside them leaves the less for them to do. A recipe without bands stays as it is. */
    static Candidate levelled(RenderedLeastSquares polish, OneNote note, Candidate start) {
        if (!(start.recipe() instanceof FormantRecipe recipe)) {
            return start;
        }
        Clip backing = note.backing();
        Candidate best = start;
        FormantRecipe r = recipe;
        AnalysedSound recording = note.recording();
        double[][] wanted =
                Followers.powers(r, recording.clip(), recording.measurement().onsetSeconds());
        if (backing != null) {
            double[][] there = Followers.powers(r, backing, 0);
            for (int b = 0; b < wanted.length; b++) {
                for (int k = 0; k < Math.min(wanted[b].length, there[b].length); k++) {
                    wanted[b][k] = Math.max(0.02 * wanted[b][k], wanted[b][k] - there[b][k]);
                }
            }
        }
        for (int round = 0; round < ROUNDS; round++) {
            Clip clip = note.render(r);
            r = moved(r, wanted, Followers.powers(r, clip, 0), backing == null);
            Candidate p = polish.at(r);
            best = p.total() < best.total() ? p : best;
        }
        return best;
    }

    /** @param free whether only the balance of the bands counts, and not how loud they are together */
    private static FormantRecipe moved(FormantRecipe r, double[][] wanted, double[][] has, boolean free) {
        double all = 0;
        double mine = 0;
        for (int b = 0; b < has.length; b++) {
            for (int k = 0; k < Math.min(has[b].length, wanted[b].length); k++) {
                all += wanted[b][k];
                mine += has[b][k];
            }
        }
        double gain = free && mine > 0 ? all / mine : 1;
        double limit = free ? 9 : 24;
        double floor = 1e-7 * all / Math.max(1, has[0].length);
        List<FormantBand> out = new ArrayList<>();
        for (int b = 0; b < has.length; b++) {
            FormantBand band = r.bands().get(b);
            int steps = band.pathDb().size();
            List<Double> path = new ArrayList<>();
            double sum = 0;
            double theirs = 0;
            for (int k = 0; k < Math.min(has[b].length, wanted[b].length); k++) {
                sum += wanted[b][k] + floor;
                theirs += gain * has[b][k] + floor;
            }
            for (int k = 0; k < steps; k++) {
                double db = band.pathDb().get(k);
                if (k < has[b].length && k < wanted[b].length) {
                    // over three steps, as noise and beats of one are chance
                    double w = floor;
                    double h = floor;
                    for (int i = Math.max(0, k - 1);
                            i <= Math.min(Math.min(has[b].length, wanted[b].length) - 1, k + 1);
                            i++) {
                        w += wanted[b][i];
                        h += gain * has[b][i];
                    }
                    db += Math.max(-limit, Math.min(limit, 0.7 * 10 * Math.log10(w / h)));
                }
                path.add(Math.max(-110, Math.min(30, db)));
            }
            double by = steps > 0 ? 0 : 10 * Math.log10(sum / theirs);
            out.add(band.withLevelDb(Math.max(-60, Math.min(24, band.levelDb() + by)))
                    .withPathDb(path));
        }
        return r.withBands(out);
    }
}

package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.music.Bark;
import nightreed.recipe.part.Structure;

/** Where the bands of a bank stand. The spacing decides which notes and which of their partials it favours. */
public enum BandSpacing {
    /** One for each critical band of hearing (E. Zwicker, 1961). */
    CRITICAL_BANDS,
    /** Two for each. */
    HALF_CRITICAL_BANDS,
    OCTAVES,
    THIRDS_OF_AN_OCTAVE;

    /** Least and largest centre [Hz]: under it bands are too narrow to be told, over it there is little to hear. */
    private static final double LOWEST_HZ = 60;

    private static final double HIGHEST_HZ = 12_000;

    /** Such as "critical bands". */
    public String title() {
        return name().toLowerCase(Locale.ROOT).replace('_', ' ');
    }

    /**
     * Centres [Hz], ascending, up to {@link FormantRecipe#MOST_BANDS}.
     *
     * @param anchorHz one of them, for octaves and thirds: the pitch that the bank is tuned to
     */
    public double[] centresHz(double anchorHz) {
        List<Double> out = new ArrayList<>();
        double step = this == CRITICAL_BANDS ? 1 : 0.5;
        if (this == CRITICAL_BANDS || this == HALF_CRITICAL_BANDS) {
            double from = this == CRITICAL_BANDS
                    ? 0.5
                    : 4.5; // halves below it would fill the bank before it has reached the top
            for (double z = from; Bark.hz(z) <= HIGHEST_HZ && out.size() < FormantRecipe.MOST_BANDS; z += step) {
                if (Bark.hz(z) >= LOWEST_HZ - 20) {
                    out.add(Bark.hz(z));
                }
            }
        } else {
            double ratio = this == OCTAVES ? 2 : Math.cbrt(2);
            double hz = anchorHz;
            while (hz / ratio >= LOWEST_HZ) {
                hz /= ratio;
            }
            while (hz < LOWEST_HZ) {
                hz *= ratio;
            }
            for (; hz <= HIGHEST_HZ && out.size() < FormantRecipe.MOST_BANDS; hz *= ratio) {
                out.add(hz);
            }
        }
        return out.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /**
     * A recipe with bands at other centres, each as wide as the way to its neighbours. Levels are those that the bank had
     * there, so that its colour stays.
     *
     * @throws IllegalArgumentException if centres are not ascending, out of range, or too many
     */
    public static FormantRecipe in(FormantRecipe recipe, double[] centresHz) {
        List<FormantBand> now = new ArrayList<>();
        for (int i = 0; i < centresHz.length; i++) {
            double c = centresHz[i];
            double below = i > 0 ? c - centresHz[i - 1] : 0;
            double above = i + 1 < centresHz.length ? centresHz[i + 1] - c : below;
            double width = Math.max(5, Math.min(12_000, below == 0 ? above : (below + above) / 2));
            FormantBand like = nearest(recipe, c);
            now.add(new FormantBand(
                    c,
                    width == 0 ? like.widthHz() : width,
                    like.levelDb(),
                    like.noiseShare(),
                    like.pan(),
                    like.drone(),
                    like.envelope(),
                    List.of()));
        }
        return Structure.filled(recipe, "band", now);
    }

    private static FormantBand nearest(FormantRecipe recipe, double hz) {
        FormantBand best = recipe.bands().get(0);
        for (FormantBand b : recipe.bands()) {
            best = Math.abs(Math.log(b.centreHz() / hz)) < Math.abs(Math.log(best.centreHz() / hz)) ? b : best;
        }
        return best;
    }
}

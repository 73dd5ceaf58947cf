package nightreed.desktop.stage.build;

import java.util.HashMap;
import java.util.Locale;
import java.util.Map;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.voice.fm.FmColour;

/** How harmonic and how rough pairs are, in words. What is said of pairs that are as they were is not worked out again. */
final class PairWords {
    private record Said(FmPair pair, double hz, String words) {}

    private final Map<Integer, Said> said = new HashMap<>();

    /**
     * Such as "ratio 1.4100, index 4.00: 83 % of the power off the harmonics, 0.52 asper".
     *
     * @param number of the pair, from 1
     */
    String of(FmRecipe r, int number) {
        FmPair p = r.pairs().get(number - 1);
        Said s = said.get(number);
        if (s == null || s.hz != r.f0Hz() || !s.pair.equals(p)) {
            s = new Said(p, r.f0Hz(), words(p, r.f0Hz()));
            said.put(number, s);
        }
        return s.words;
    }

    private static String words(FmPair p, double hz) {
        FmColour c = FmColour.of(p, p.index(), hz);
        return String.format(
                Locale.ROOT,
                "ratio %.4f, index %.2f: %.0f %% of the power off the harmonics, %.2f asper",
                p.modulatorRatio(),
                p.index(),
                100 * c.offHarmonics(),
                c.asper());
    }
}

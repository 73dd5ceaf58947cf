package nightreed.match.compare;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;

/**
 * Can it be heard which is which? X is one of two sounds, another one each time, and the listener says which (W. A. Munson,
 * M. B. Gardner, JASA 22, 1950). Immutable.
 *
 * @param hidden  whether X is the imitation, trial by trial
 * @param answers whether the listener said so, as far as they have come
 */
public record BlindTest(List<Boolean> hidden, List<Boolean> answers) {
    public static final int LEAST_TRIALS = 10;

    /** A result that guessing brings less often than this means that the difference is heard. */
    private static final double LEVEL = 0.05;

    public BlindTest {
        hidden = List.copyOf(hidden);
        answers = List.copyOf(answers);
        if (hidden.size() < LEAST_TRIALS || answers.size() > hidden.size()) {
            throw new IllegalArgumentException("a blind test has at least " + LEAST_TRIALS
                    + " trials and no more answers than trials, got " + hidden.size() + " and " + answers.size());
        }
    }

    /** A new one. @param trials at least {@link #LEAST_TRIALS} */
    public static BlindTest of(int trials, long seed) {
        Random chance = new Random(seed);
        List<Boolean> hidden = new ArrayList<>();
        for (int i = 0; i < trials; i++) {
            hidden.add(chance.nextBoolean());
        }
        return new BlindTest(hidden, List.of());
    }

    public boolean over() {
        return answers.size() == hidden.size();
    }

    /** Number of the trial under way, from 0. */
    public int trial() {
        return answers.size();
    }

    /** Whether X is the imitation now. */
    public boolean xIsImitation() {
        return hidden.get(trial());
    }

    public BlindTest answered(boolean imitation) {
        List<Boolean> more = new ArrayList<>(answers);
        more.add(imitation);
        return new BlindTest(hidden, more);
    }

    /** Answers that were right. */
    public int right() {
        int n = 0;
        for (int i = 0; i < answers.size(); i++) {
            n += answers.get(i).equals(hidden.get(i)) ? 1 : 0;
        }
        return n;
    }

    /** How often guessing would get at least as many right, 0 to 1. */
    public double chance() {
        int n = answers.size();
        double term = Math.pow(0.5, n);
        double sum = 0;
        for (int k = 0; k <= n; k++) {
            sum += k >= right() ? term : 0;
            term *= (double) (n - k) / (k + 1);
        }
        return Math.min(1, sum);
    }

    /** The result in plain words. */
    public String verdict() {
        return String.format(
                Locale.ROOT,
                "%d of %d right; guessing gets as many in %.1f %% of all tests: %s.",
                right(),
                answers.size(),
                100 * chance(),
                chance() < LEVEL ? "the difference is heard" : "no difference was shown");
    }
}

package nightreed.claim;

import java.util.LinkedHashMap;
import java.util.Map;

/**
 * What a recording says of a claim.
 *
 * @param claim  that was tested
 * @param answer what came out
 * @param odds   how sure the answer is, 0 to 1; 0 where it cannot be told
 * @param best   values of what explains the recording best, by name: numbers and words
 * @param why    in a sentence; where it cannot be told, what recording would tell
 */
public record Verdict(Claim claim, Answer answer, double odds, Map<String, Object> best, String why) {
    /** An answer. */
    public enum Answer {
        SUPPORTED("supported"),
        REFUTED("refuted"),
        OPEN("cannot be told");

        private final String title;

        Answer(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /** Less sure than this, it cannot be told. */
    static final double SURE = 0.95;

    public Verdict {
        best = new LinkedHashMap<>(best);
    }

    static Verdict open(Claim c, Map<String, Object> best, String why) {
        return new Verdict(c, Answer.OPEN, 0, best, why);
    }

    /** By the odds that the claim is true. @param otherwise what is said besides where they are too even */
    static Verdict of(Claim c, double odds, Map<String, Object> best, String why, String otherwise) {
        return odds >= SURE
                ? new Verdict(c, Answer.SUPPORTED, odds, best, why)
                : odds <= 1 - SURE
                        ? new Verdict(c, Answer.REFUTED, 1 - odds, best, why)
                        : open(c, best, why + " " + otherwise);
    }
}

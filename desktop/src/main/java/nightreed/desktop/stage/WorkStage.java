package nightreed.desktop.stage;

import java.util.Locale;
import nightreed.desktop.workspace.MethodNames;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.match.compare.PartialDifference;
import nightreed.recipe.ResonatorRecipe;

/** The six stages in the order of the work. */
public enum WorkStage {
    BRIEF("Brief"),
    MEASURE("Measure"),
    BUILD("Build"),
    COMPARE("Compare"),
    PLAY("Play"),
    KEEP("Keep");

    private final String title;

    WorkStage(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }

    /** What stands or is open at this stage, in a word or two; empty if nothing. */
    public String concern(WorkspaceState s) {
        return switch (this) {
            case BRIEF -> s.recording() == null ? "no recording" : "";
            case MEASURE ->
                s.recording() == null
                        ? ""
                        : s.recording().measurement().reliablePartials().size()
                                + (s.isTypical() ? " typical" : " partials");
            case BUILD ->
                s.recipe() == null
                        ? s.recording() == null ? "" : "not fitted"
                        : s.recipe() instanceof ResonatorRecipe r
                                ? "Resonators, " + r.modes().size()
                                : MethodNames.of(s.recipe().method());
            case COMPARE -> s.comparison() == null ? "" : compare(s);
            case PLAY -> "";
            case KEEP ->
                s.takes().isEmpty() ? "" : s.takes().size() + (s.takes().size() == 1 ? " take" : " takes");
        };
    }

    /** Whether what {@link #concern} says would be heard. */
    public boolean audible(WorkspaceState s) {
        return this == COMPARE && s.comparison() != null && !s.comparison().withinHearing();
    }

    private static String compare(WorkspaceState s) {
        long out = s.comparison().partials().stream()
                .filter(d -> d.heardJnd() > 1)
                .map(PartialDifference::either)
                .count();
        if (s.comparison().withinHearing() && out == 0) {
            return "within hearing";
        }
        return String.format(Locale.ROOT, "%.1f JND", s.comparison().totalJnd());
    }
}

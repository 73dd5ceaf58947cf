package nightreed.desktop.stage.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import nightreed.desktop.stage.BackgroundTask;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.NoiseBands;

/** What is left of the shown recording without its partials, worked out once for all who show it. On the FX thread. */
final class ResidualNoise {
    private static final String NOTHING = "Nothing but the background is left without the partials.";
    private static final String WORKING = "Taking the partials out ...";
    private static final String FAILED = "The partials could not be taken out: see the log.";

    private final List<BiConsumer<NoiseBands, String>> waiting = new ArrayList<>();
    private AnalysedSound of;
    private NoiseBands noise;

    /**
     * @param side null for nothing
     * @param show given the bands, or null and what is to be said instead; again when they are there
     */
    void ask(AnalysedSound side, BiConsumer<NoiseBands, String> show) {
        if (side == null) {
            show.accept(null, "");
        } else if (side == of && noise != null) {
            show.accept(noise, NOTHING);
        } else {
            boolean asked = side == of && !waiting.isEmpty();
            if (side != of) {
                of = side;
                noise = null;
                waiting.clear();
            }
            if (!waiting.contains(show)) {
                waiting.add(show);
            }
            show.accept(null, WORKING);
            if (!asked) {
                BackgroundTask.work(
                        () -> NoiseBands.of(side.clip(), side.measurement()),
                        n -> done(side, n, NOTHING),
                        () -> done(side, null, FAILED));
            }
        }
    }

    private void done(AnalysedSound side, NoiseBands n, String words) {
        if (side == of) {
            noise = n;
            waiting.forEach(w -> w.accept(n, words));
            waiting.clear();
        }
    }
}

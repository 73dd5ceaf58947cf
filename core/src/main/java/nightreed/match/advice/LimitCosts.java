package nightreed.match.advice;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.machine.Feature;
import nightreed.machine.Machine;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.Fits;
import nightreed.match.fit.Fitted;
import nightreed.match.sound.AnalysedSound;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/** What each thing that a machine lacks costs in nearness to a recording. */
public final class LimitCosts {
    /** Share of the usual renders for each limit by itself. */
    private static final double EFFORT = 0.25;

    private LimitCosts() {}

    /**
     * Price of one limit.
     *
     * @param jnd   how much further away the best imitation is that is limited in this alone [JND]; 0 if it is no further
     * @param words in plain words, with numbers
     */
    public record Price(Feature feature, double jnd, String words) {}

    /**
     * Fits the method without limits, then with each limit by itself.
     *
     * @param fitted best result within all limits
     * @param plan   with the machine whose limits are priced
     * @return the dearest first; empty if the machine can play what is best without limits
     */
    public static List<Price> of(AnalysedSound recording, Fitted fitted, FitOptions plan, Progress progress)
            throws UnusableSound {
        Machine machine = plan.machine();
        Fitted free = Fits.of(fitted.method(), recording, plan.on(Machine.ANY), progress.part(0, 0.5));
        List<Feature> missing = machine.missing(free.recipe());
        double nearest =
                Math.min(free.comparison().totalJnd(), fitted.comparison().totalJnd());
        List<Price> out = new ArrayList<>();
        for (int i = 0; i < missing.size(); i++) {
            Feature f = missing.get(i);
            Progress part = progress.part(0.5 + 0.5 * i / missing.size(), 0.5 + 0.5 * (i + 1) / missing.size());
            Machine only = machine.only(f);
            FitOptions alone = plan.on(only)
                    .from(only.limited(free.recipe()), plan.locked())
                    .trying(EFFORT);
            double with = Fits.of(fitted.method(), recording, alone, part)
                    .comparison()
                    .totalJnd();
            double jnd = Math.max(0, with - nearest);
            out.add(new Price(f, jnd, words(machine, f, jnd)));
        }
        out.sort(Comparator.comparingDouble(p -> -p.jnd));
        return List.copyOf(out);
    }

    private static String words(Machine machine, Feature f, double jnd) {
        String has = machine.has(f);
        String limit = has.equals("none") ? "no " + f.title() : f.title() + ": " + has;
        return jnd < 0.05
                ? limit + " costs nothing on this note"
                : String.format(Locale.ROOT, "%s costs %.1f JND", limit, jnd);
    }
}

package nightreed.bench;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import nightreed.match.compare.ImitationRenderer;
import nightreed.match.fit.FitOptions;
import nightreed.match.fit.JointFit;
import nightreed.match.fit.JointFit.Note;
import nightreed.match.frontier.Frontier;
import nightreed.match.frontier.Frontier.Point;
import nightreed.match.frontier.JointPatches;
import nightreed.match.frontier.Patches;
import nightreed.match.frontier.Patches.Found;
import nightreed.match.hearing.Use;
import nightreed.match.sound.AnalysedSound;
import nightreed.music.Pitch;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.VelocityMap;
import nightreed.work.Progress;

/**
 * Patches fitted to one note or two of an instrument, judged on its other notes: what they make of keys that nobody showed them.
 * <pre>java -cp 'bench/target/*:bench/target/lib/*' nightreed.bench.HeldOutKeys METHOD,METHOD NOTE NOTE NOTE...</pre>
 */
public final class HeldOutKeys {
    private HeldOutKeys() {}

    public static void main(String[] args) throws Exception {
        List<String> methods = Arrays.asList(args[0].split(","));
        List<String> names = Arrays.asList(args).subList(1, args.length);
        List<Note> notes = new ArrayList<>();
        for (String name : names) {
            AnalysedSound side = ImitationRenderer.side(MatchTable.clip(name), Progress.NONE);
            notes.add(
                    new Note(side, Pitch.nearestKey(side.measurement().f0Hz()), VelocityMap.USUAL.reference(), false));
        }
        for (int i = 0; i < notes.size(); i++) {
            List<Frontier> all = new ArrayList<>();
            for (Found f : Patches.of(methods, notes.get(i).recording(), FitOptions.USUAL, Progress.NONE)) {
                all.add(f.frontier());
            }
            Frontier over = Frontier.over(all);
            say(names, notes, List.of(notes.get(i)), over.recommended(Use.ALONE));
            say(names, notes, List.of(notes.get(i)), over.nearest());
        }
        for (int i = 0; i < notes.size(); i++) {
            for (int k = i + 1; k < notes.size(); k++) {
                List<Note> two = List.of(notes.get(i), notes.get(k));
                JointPatches.Found f = JointPatches.best(methods, two, FitOptions.USUAL, Progress.NONE);
                say(names, notes, two, f.frontier().recommended(Use.ALONE));
                say(names, notes, two, f.frontier().nearest());
            }
        }
    }

    private static void say(List<String> names, List<Note> notes, List<Note> shown, Point p) throws Exception {
        Recipe recipe = p.recipe();
        Note reference = shown.size() == 1 ? shown.get(0) : JointFit.middle(shown);
        List<Note> rest = notes.stream().filter(n -> !shown.contains(n)).toList();
        StringBuilder others = new StringBuilder();
        for (Note n : rest) {
            // the reference beside it, since its tuning is the recipe's
            List<JointFit.Heard> heard = JointFit.judged(recipe, List.of(reference, n), reference, FitOptions.USUAL)
                    .notes();
            JointFit.Heard h = heard.get(1);
            others.append(String.format(
                    Locale.ROOT,
                    "  %s %.2f (%s %.1f)",
                    name(names, notes, n),
                    h.comparison().totalJnd(),
                    h.comparison().worst().title(),
                    h.comparison().worstJnd()));
        }
        System.out.printf(
                Locale.ROOT,
                "fitted on %-40s %-11s %3d values %5.2f; held out:%s%n",
                shown.stream().map(n -> name(names, notes, n)).collect(Collectors.joining(" ")),
                p.method(),
                p.size(),
                p.totalJnd(),
                others);
    }

    private static String name(List<String> names, List<Note> notes, Note n) {
        return Path.of(names.get(notes.indexOf(n))).getFileName().toString().replace(".wav", "");
    }
}

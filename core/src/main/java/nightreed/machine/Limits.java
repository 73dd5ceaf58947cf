package nightreed.machine;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.ToDoubleFunction;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.recipe.Mode;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterAccess.Found;
import nightreed.recipe.part.Route;

/** What one limit of a machine makes of a recipe: the nearest that is left. The recipe itself where it keeps to it. */
final class Limits {
    private Limits() {}

    static Recipe of(Machine m, Feature f, Recipe r) {
        return switch (f) {
            case RESONATORS -> m.resonators() == null ? r : modes(r, m.resonators());
            case BANDS -> m.bands() == null ? r : bands(r, m.bands());
            case FOLLOWERS -> lacks(m.followers()) ? withoutPaths(r) : r;
            case LOOPS -> m.loops() != null && m.loops() < 2 ? r.withoutPart("second") : r;
            case OSCILLATORS -> m.oscillators() == null ? r : oscillators(r, m.oscillators());
            case FEEDBACK -> lacks(m.feedback()) ? withoutFeedback(r) : r;
            case WAVES -> m.waves() == null ? r : waves(r, m.waves());
            case UNISON -> lacks(m.unison()) ? r.withoutPart("unison") : r;
            case FILTERS -> m.filters() == null ? r : filters(r, m.filters());
            case SLOPES -> m.slopes() == null ? r : slopes(r, m.slopes());
            case ENVELOPES -> m.envelopes() == null ? r : envelopes(r, m.envelopes());
            case LFOS -> m.lfos() == null ? r : lfos(r, m.lfos());
            case LFO_SHAPES -> m.lfoShapes() == null ? r : shapes(r, m.lfoShapes());
            case NOISE -> lacks(m.noise()) ? withoutNoise(r) : r;
            case KEY_TRACKING -> lacks(m.keyTracking()) ? withoutTracking(r) : r;
            case MODULATION, RING -> r; // without them the whole method is not there
        };
    }

    private static boolean lacks(Boolean has) {
        return Boolean.FALSE.equals(has);
    }

    /** Every part of a kind changed. */
    private static <T extends Record> Recipe each(Recipe r, Class<T> kind, UnaryOperator<T> change) {
        Record out = (Record) r;
        for (Found<T> part : ParameterAccess.parts(out, kind)) {
            T by = change.apply(part.part());
            if (!by.equals(part.part())) {
                out = ParameterAccess.exchanged(out, part.part(), by);
            }
        }
        return (Recipe) out;
    }

    private static Recipe modes(Recipe r, int most) {
        if (!(r instanceof ResonatorRecipe bank) || bank.modes().size() <= Math.max(1, most)) {
            return r;
        }
        // what is loud for long is heard most
        Comparator<Mode> byWeight = Comparator.comparingDouble(m -> -(m.levelDb() + 5 * Math.log10(m.t60Seconds())));
        Set<Mode> kept = new HashSet<>(
                bank.modes().stream().sorted(byWeight).limit(Math.max(1, most)).toList());
        return bank.withModes(bank.modes().stream()
                .filter(kept::contains)
                .limit(Math.max(1, most))
                .toList());
    }

    private static Recipe bands(Recipe r, int most) {
        if (!(r instanceof FormantRecipe f) || f.bands().size() <= Math.max(1, most)) {
            return r;
        }
        List<FormantBand> all = new ArrayList<>(f.bands());
        while (all.size() > Math.max(1, most)) {
            if (f.bank() == Bank.FORMANTS) {
                all.remove(all.stream()
                        .min(Comparator.comparingDouble(FormantBand::levelDb))
                        .orElseThrow());
                continue;
            }
            int least = 0;
            for (int i = 1; i + 1 < all.size(); i++) {
                least = apart(all, i) < apart(all, least) ? i : least;
            }
            all.set(least, together(all.get(least), all.get(least + 1)));
            all.remove(least + 1);
        }
        return f.withBands(all);
    }

    /** How unlike two neighbours are; wide ones are left alone longer. */
    private static double apart(List<FormantBand> all, int i) {
        FormantBand a = all.get(i);
        FormantBand b = all.get(i + 1);
        double octaves = Math.log((a.widthHz() + b.widthHz()) / Math.sqrt(a.centreHz() * b.centreHz()) + 1);
        return Math.abs(a.levelDb() - b.levelDb()) + 40 * octaves;
    }

    private static FormantBand together(FormantBand a, FormantBand b) {
        List<Double> path = IntStream.range(
                        0, Math.min(a.pathDb().size(), b.pathDb().size()))
                .mapToObj(i -> meanDb(a.pathDb().get(i), b.pathDb().get(i)))
                .toList();
        return new FormantBand(
                Math.sqrt(a.centreHz() * b.centreHz()),
                Math.min(12_000, a.widthHz() + b.widthHz()),
                meanDb(a.levelDb(), b.levelDb()),
                (a.noiseShare() + b.noiseShare()) / 2,
                (a.pan() + b.pan()) / 2,
                a.drone() && b.drone(),
                a.levelDb() >= b.levelDb() ? a.envelope() : b.envelope(),
                path);
    }

    private static double meanDb(double a, double b) {
        return 10 * Math.log10((Math.pow(10, a / 10) + Math.pow(10, b / 10)) / 2);
    }

    /** Bands that followed a recording get envelopes like what they followed. */
    private static Recipe withoutPaths(Recipe r) {
        if (!(r instanceof FormantRecipe f)
                || f.bands().stream().allMatch(b -> b.pathDb().isEmpty())) {
            return r;
        }
        return f.withBands(f.bands().stream()
                .map(b -> b.pathDb().isEmpty()
                        ? b
                        : b.withEnvelope(alike(b.pathDb(), f.stepSeconds())).withPathDb(List.of()))
                .toList());
    }

    private static Envelope alike(List<Double> pathDb, double step) {
        int top = 0;
        for (int i = 1; i < pathDb.size(); i++) {
            top = pathDb.get(i) > pathDb.get(top) ? i : top;
        }
        int last = top;
        while (last + 1 < pathDb.size() && pathDb.get(last + 1) > pathDb.get(top) - 40) {
            last++;
        }
        double fallen = pathDb.get(top) - pathDb.get(last);
        double seconds = Math.max(step, (last - top) * step);
        double attack = Math.max(0.001, Math.min(5, 0.7 * top * step));
        return fallen / seconds > 6
                ? Envelope.struck(attack, Math.max(0.01, Math.min(60, 60 * seconds / Math.max(1, fallen))), 0.1)
                : Envelope.held(attack, 0.1);
    }

    private static Recipe oscillators(Recipe r, int most) {
        if (r instanceof FmRecipe fm && 2 * fm.pairs().size() > most) {
            return fm.withPairs(loudest(fm.pairs(), Math.max(1, most / 2), FmPair::levelDb));
        }
        if (r instanceof SubtractiveRecipe s && s.oscillators().size() > most) {
            return s.withOscillators(loudest(s.oscillators(), Math.max(1, most), Oscillator::levelDb));
        }
        return r;
    }

    private static <T> List<T> loudest(List<T> all, int n, ToDoubleFunction<T> level) {
        List<Integer> order = IntStream.range(0, all.size())
                .boxed()
                .sorted(Comparator.comparingDouble(i -> -level.applyAsDouble(all.get(i))))
                .limit(n)
                .sorted()
                .toList();
        return order.stream().map(all::get).toList();
    }

    private static Recipe withoutFeedback(Recipe r) {
        Recipe out = r;
        for (Found<FmPair> p : ParameterAccess.parts((Record) r, FmPair.class)) {
            out = p.part().feedback() > 0 ? out.with(p.id() + ".feedback", 0) : out;
        }
        return out;
    }

    private static Recipe waves(Recipe r, Set<Wave> there) {
        Recipe out = r;
        for (Found<Oscillator> o : ParameterAccess.parts((Record) r, Oscillator.class)) {
            Wave w = o.part().wave();
            if (!there.contains(w) && !o.part().silent()) {
                Wave near =
                        likeness(w).stream().filter(there::contains).findFirst().orElseThrow();
                out = (Recipe) ParameterAccess.exchanged((Record) out, o.part(), (Record) ParameterAccess.with(
                        o.part(), "wave", Arrays.asList(Wave.values()).indexOf(near)));
            }
        }
        return out;
    }

    /** Waves by how much they sound like one. */
    private static List<Wave> likeness(Wave w) {
        return switch (w) {
            case SINE -> List.of(Wave.TRIANGLE, Wave.PULSE, Wave.SAW, Wave.MEASURED);
            case TRIANGLE -> List.of(Wave.SINE, Wave.PULSE, Wave.SAW, Wave.MEASURED);
            case SAW, MEASURED -> List.of(Wave.SAW, Wave.PULSE, Wave.TRIANGLE, Wave.SINE, Wave.MEASURED);
            case PULSE -> List.of(Wave.SAW, Wave.TRIANGLE, Wave.SINE, Wave.MEASURED);
        };
    }

    private static Recipe filters(Recipe r, Set<Filter.Kind> there) {
        Recipe out = r;
        for (Found<Filter> f : ParameterAccess.parts((Record) r, Filter.class)) {
            out = there.contains(f.part().kind()) ? out : out.withoutPart(f.id());
        }
        return out;
    }

    private static Recipe slopes(Recipe r, Set<Filter.Slope> there) {
        return each(r, Filter.class, f -> {
            List<Filter.Slope> all = Arrays.asList(Filter.Slope.values());
            Filter.Slope nearest = EnumSet.copyOf(there).stream()
                    .min(Comparator.comparingInt(s -> Math.abs(all.indexOf(s) - all.indexOf(f.slope()))))
                    .orElseThrow();
            return ParameterAccess.with(f, "slope", all.indexOf(nearest));
        });
    }

    /** Envelopes beyond those there are become one of them: of the same part if there is one, otherwise the first. */
    private static Recipe envelopes(Recipe r, int most) {
        if (r instanceof FormantRecipe f) {
            return bandEnvelopes(f, most);
        }
        List<Found<Envelope>> kept = new ArrayList<>();
        Record out = (Record) r;
        for (Found<Envelope> e : ParameterAccess.parts(out, Envelope.class)) {
            if (kept.stream().anyMatch(k -> k.part().equals(e.part()))) {
                continue;
            }
            if (kept.size() < most) {
                kept.add(e);
                continue;
            }
            Envelope like = kept.stream()
                    .filter(k -> role(k).equals(role(e)))
                    .findFirst()
                    .orElse(kept.get(0))
                    .part();
            out = ParameterAccess.exchanged(out, e.part(), like);
        }
        return (Recipe) out;
    }

    private static String role(Found<Envelope> e) {
        return e.id().substring(e.id().lastIndexOf('.') + 1);
    }

    /** Neighbouring bands share; with one envelope for all, the level has it. */
    private static Recipe bandEnvelopes(FormantRecipe f, int most) {
        List<Integer> own = IntStream.range(0, f.bands().size())
                .filter(i -> f.bands().get(i).envelope() != null)
                .boxed()
                .toList();
        long distinct =
                own.stream().map(i -> f.bands().get(i).envelope()).distinct().count();
        if (distinct + 1 <= most) {
            return f;
        }
        int groups = Math.max(1, most - 1);
        List<FormantBand> out = new ArrayList<>(f.bands());
        Envelope all = null;
        for (int g = 0; g < groups; g++) {
            List<Integer> members = own.subList(g * own.size() / groups, (g + 1) * own.size() / groups);
            if (members.isEmpty()) {
                continue;
            }
            Envelope loudest = members.stream()
                    .map(i -> f.bands().get(i))
                    .max(Comparator.comparingDouble(FormantBand::levelDb))
                    .orElseThrow()
                    .envelope();
            all = loudest;
            for (int i : members) {
                out.set(i, out.get(i).withEnvelope(most == 1 ? null : loudest));
            }
        }
        FormantRecipe shared = f.withBands(out);
        return most == 1 && all != null
                ? (Recipe) ParameterAccess.exchanged((Record) shared, shared.amplitude(), all)
                : shared;
    }

    private static Recipe lfos(Recipe r, int most) {
        Recipe out = most < 2 ? without(r, "lfo.2", Route.Source.LFO_2) : r;
        return most < 1 ? without(out, "lfo.1", Route.Source.LFO_1) : out;
    }

    private static Recipe without(Recipe r, String lfo, Route.Source source) {
        Common c = r.withoutPart(lfo).common();
        List<Route> left = c.routes().stream().filter(t -> t.source() != source).toList();
        return left.size() == c.routes().size() && c.equals(r.common())
                ? r
                : r.withoutPart(lfo).withCommon(c.withRoutes(left));
    }

    private static Recipe shapes(Recipe r, Set<Lfo.Shape> there) {
        return each(r, Lfo.class, l -> {
            if (there.contains(l.shape())) {
                return l;
            }
            List<Lfo.Shape> round = List.of(Lfo.Shape.SINE, Lfo.Shape.TRIANGLE, Lfo.Shape.ZIGZAG, Lfo.Shape.SQUARE);
            Lfo.Shape near = round.stream()
                    .filter(there::contains)
                    .findFirst()
                    .orElseGet(() -> EnumSet.copyOf(there).iterator().next());
            return ParameterAccess.with(
                    l, "shape", Arrays.asList(Lfo.Shape.values()).indexOf(near));
        });
    }

    private static Recipe withoutNoise(Recipe r) {
        Recipe out = each(
                r.withoutPart("breath"),
                Exciter.class,
                e -> e.noisy() ? ParameterAccess.with(e, "noise.level", -100) : e);
        if (out instanceof FormantRecipe f) {
            out = f.noiseDb() > FormantRecipe.OFF_DB ? f.with("noise", -80) : f;
            out = each(out, FormantBand.class, b -> b.noiseShare() > 0 ? ParameterAccess.with(b, "noiseShare", 0) : b);
        }
        if (out instanceof StringRecipe s) {
            StringRecipe.Drive d = s.drive() == StringRecipe.Drive.BURST
                    ? StringRecipe.Drive.PULSE
                    : s.drive() == StringRecipe.Drive.ZIGZAG ? StringRecipe.Drive.FRICTION : s.drive();
            out = d == s.drive()
                    ? s
                    : s.with("drive", Arrays.asList(StringRecipe.Drive.values()).indexOf(d));
        }
        return out;
    }

    private static Recipe withoutTracking(Recipe r) {
        Recipe out = each(r, Filter.class, f -> f.keyTracking() != 0 ? ParameterAccess.with(f, "keyTracking", 0) : f);
        out = each(out, KeyTracking.class, k -> new KeyTracking(0, 0));
        return out instanceof FmRecipe f && f.decayPower() != 0 ? f.with("track.decay", 0) : out;
    }
}

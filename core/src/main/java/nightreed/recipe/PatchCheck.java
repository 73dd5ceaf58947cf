package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Effects;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;

/** Looks for what is forgotten in a recipe: silent sources, ways that lead nowhere, one dead side, clicks. */
public final class PatchCheck {
    /** A level that rises faster than this from nothing is heard as a click [s]. */
    private static final double CLICK_SECONDS = 0.0005;

    private final Recipe written;
    private final Recipe recipe; // as its macros have it
    private final List<Finding> findings = new ArrayList<>();

    /**
     * Something to look at.
     *
     * @param parameterId value it is about; empty for the whole
     * @param text        what is off, and what to do
     * @param mended      the recipe without it, null where only its maker can say what is meant
     */
    public record Finding(String parameterId, String text, Recipe mended) {}

    /** What takes a finding away. */
    private interface Mend {
        Recipe on(Recipe written);
    }

    private PatchCheck(Recipe written) {
        this.written = written;
        this.recipe = written.played();
    }

    /** All findings; none if the recipe is in order. */
    public static List<Finding> of(Recipe recipe) {
        PatchCheck c = new PatchCheck(recipe);
        c.method();
        c.filters();
        c.movement();
        c.sides();
        c.macros();
        c.stillMoving();
        return List.copyOf(c.findings);
    }

    private void say(String id, Mend mend, String format, Object... values) {
        findings.add(new Finding(id, String.format(Locale.ROOT, format, values), mended(mend)));
    }

    /** Null where the recipe cannot be so. */
    private Recipe mended(Mend mend) {
        try {
            Recipe r = mend == null ? null : mend.on(written);
            return written.equals(r) ? null : r;
        } catch (IllegalArgumentException needed) {
            return null;
        }
    }

    private static Mend set(String id, double value) {
        return r -> r.with(id, value);
    }

    private static Mend takeOut(String list, int at) {
        return r -> ListChange.remove(list, at).on(r);
    }

    private static Mend without(String part) {
        return r -> r.withoutPart(part);
    }

    private void macros() {
        for (int i = 0; i < written.common().macros().size(); i++) {
            Macro m = written.common().macros().get(i);
            Mend out = takeOut("macro", i + 1);
            List<String> held = m.targets().stream()
                    .map(Macro.Aim::parameter)
                    .filter(id -> written.settings().stream()
                            .anyMatch(v -> v.parameter().id().equals(id)))
                    .toList();
            if (held.isEmpty()) {
                say("", out, "%s moves nothing that this recipe has: take it out.", m.name());
            } else {
                say(
                        held.get(0),
                        out,
                        "%s holds %s: their own rulers move nothing until it is taken out.",
                        m.name(),
                        named(held));
            }
        }
    }

    private String named(List<String> ids) {
        List<String> names = ids.stream()
                .limit(3)
                .map(id -> recipe.setting(id).parameter().name())
                .toList();
        return String.join(", ", names) + (ids.size() > 3 ? " and " + (ids.size() - 3) + " more" : "");
    }

    private void method() {
        if (recipe instanceof ResonatorRecipe r) {
            resonators(r);
        } else if (recipe instanceof FmRecipe r) {
            fm(r);
        } else if (recipe instanceof RingRecipe r) {
            ring(r);
        } else if (recipe instanceof FormantRecipe r) {
            formant(r);
        } else if (recipe instanceof StringRecipe r) {
            string(r);
        } else if (recipe instanceof SubtractiveRecipe r) {
            subtractive(r);
        }
    }

    private void resonators(ResonatorRecipe r) {
        if (r.modes().stream().allMatch(m -> m.levelDb() <= -79)) {
            say("mode.1.level", set("mode.1.level", 0), "All modes are silent: raise one of them.");
        }
    }

    private void fm(FmRecipe r) {
        boolean heard = false;
        for (int i = 0; i < r.pairs().size(); i++) {
            FmPair p = r.pairs().get(i);
            String id = "pair." + (i + 1);
            if (p.levelDb() <= FmPair.OFF_DB) {
                say(id + ".level", takeOut("pair", i + 1), "Pair %d is silent: raise its level or take it out.", i + 1);
            } else {
                heard = true;
                clicks(id + ".amp.attack", p.amplitude(), p.carrierPhaseRad() == 0 && !p.free());
            }
            if (p.index() == 0 && p.feedback() > 0) {
                say(
                        id + ".index",
                        set(id + ".index", 1),
                        "The modulator of pair %d feeds itself, but its index is 0: it is not heard.",
                        i + 1);
            }
            if (p.index() > 0 && never(p.bend())) {
                say(
                        id + ".bend.sustain",
                        set(id + ".bend.sustain", 1),
                        "The envelope of the index of pair %d never rises.",
                        i + 1);
            }
        }
        if (!heard) {
            say("pair.1.level", set("pair.1.level", 0), "No pair sounds.");
        }
    }

    private void ring(RingRecipe r) {
        boolean product = r.ringDb() > RingRecipe.OFF_DB;
        boolean dry = r.dryDb() > RingRecipe.OFF_DB;
        if (!product && !dry) {
            say("ring", set("ring", 0), "Product and dry path are both silent.");
        }
        if (r.a().silent()) {
            say("a.level", set("a.level", 0), "The first oscillator is silent, and everything with it.");
        }
        if (product && r.b().silent()) {
            say("b.level", set("b.level", 0), "The second oscillator is silent: the product is nothing.");
        }
        if (!product && (r.filterB() != null || r.driftCents() > 0)) {
            say("ring", set("ring", -6), "The second oscillator's filter or drift is set, but the product is silent.");
        }
        clicks("amp.attack", r.amplitude(), r.a().phaseRad() == 0 && !r.a().free());
    }

    private void formant(FormantRecipe r) {
        boolean tone = !r.source().silent();
        boolean noise = r.noiseDb() > FormantRecipe.OFF_DB;
        if (!tone && !noise && r.exciter() == null) {
            say("source.level", set("source.level", 0), "Wave and noise are both silent, and there is no strike.");
        }
        for (int i = 0; i < r.bands().size(); i++) {
            FormantBand b = r.bands().get(i);
            if (b.levelDb() <= FormantRecipe.OFF_DB) {
                say("band." + (i + 1) + ".level", takeOut("band", i + 1), "Band %d is silent.", i + 1);
            } else if (b.noiseShare() > 0.98 && !noise) {
                say(
                        "band." + (i + 1) + ".noiseShare",
                        set("noise", -12),
                        "Band %d is driven by noise only, and the noise is silent.",
                        i + 1);
            } else if (b.noiseShare() < 0.02 && !tone && r.exciter() == null) {
                say(
                        "band." + (i + 1) + ".noiseShare",
                        set("source.level", 0),
                        "Band %d is driven by the wave only, and the wave is silent.",
                        i + 1);
            }
        }
        clicks("amp.attack", r.amplitude(), true);
    }

    private void string(StringRecipe r) {
        if (r.drive() == StringRecipe.Drive.BURST && !r.exciter().noisy()) {
            say(
                    "noise.level",
                    set("noise.level", 0),
                    "The string is driven by a burst of noise, and its noise is off.");
        }
        if (r.gainOctaves() != 0 && r.gainEnvelope() == null) {
            say("gain.depth", set("gain.depth", 0), "The decay has a depth for an envelope, but no envelope.");
        }
        if (r.bow() != null && r.drive() != StringRecipe.Drive.ZIGZAG && r.drive() != StringRecipe.Drive.FRICTION) {
            say("drive", without("bow"), "A bow is set, but the string is not bowed.");
        }
    }

    private void subtractive(SubtractiveRecipe r) {
        boolean heard = r.breath() != null && r.breath().levelDb() > -79;
        for (int i = 0; i < r.oscillators().size(); i++) {
            Oscillator o = r.oscillators().get(i);
            if (o.silent()) {
                say("osc." + (i + 1) + ".level", takeOut("osc", i + 1), "Oscillator %d is silent.", i + 1);
            } else {
                heard = true;
            }
            if (o.wave() == Oscillator.Wave.MEASURED && r.cycle() == null) {
                say(
                        "osc." + (i + 1) + ".wave",
                        set(
                                "osc." + (i + 1) + ".wave",
                                List.of(Oscillator.Wave.values()).indexOf(Oscillator.Wave.SAW)),
                        "Oscillator %d plays a measured wave, but none is there: a saw is heard.",
                        i + 1);
            }
        }
        if (!heard) {
            say("osc.1.level", set("osc.1.level", 0), "No oscillator sounds.");
        }
        clicks(
                "amp.attack",
                r.amplitude(),
                r.oscillators().get(0).phaseRad() == 0
                        && !r.oscillators().get(0).free());
    }

    /** Each filter with what moves it, and whether it lets the tone through. */
    private void filters() {
        double f0 = recipe.f0Hz();
        for (ParameterAccess.Found<Filter> found : ParameterAccess.parts((Record) recipe, Filter.class)) {
            Filter f = found.part();
            String id = found.id();
            String name = "The " + found.name();
            if (f.envelope() != null && f.envelopeOctaves() == 0) {
                say(id + ".envelope", without(id + ".envelope"), "%s has an envelope, but it moves nothing.", name);
            }
            if (f.envelope() == null && f.envelopeOctaves() != 0) {
                say(
                        id + ".envelope",
                        r -> r.withPart(id + ".envelope"),
                        "%s has a depth for an envelope, but no envelope.",
                        name);
            }
            double widest = f.cutoffHz() * Math.pow(2, Math.max(0, f.envelopeOctaves()));
            if (f.kind() == Filter.Kind.LOW && widest < 0.5 * f0) {
                say(
                        id + ".cutoff",
                        set(id + ".cutoff", 2 * f0),
                        "%s stays under the fundamental: nearly nothing passes.",
                        name);
            }
            double lowest = f.cutoffHz() * Math.pow(2, Math.min(0, f.envelopeOctaves()));
            if (f.kind() == Filter.Kind.HIGH && lowest > 2 * f0) {
                say(id + ".cutoff", set(id + ".cutoff", 0.5 * f0), "%s cuts the fundamental away.", name);
            }
        }
    }

    /** Movement that was perhaps left on while something else was listened to. */
    private void stillMoving() {
        List<String> moving = new ArrayList<>();
        Recipe still = written;
        for (Recipe.Setting s : recipe.settings()) {
            String id = s.parameter().id();
            boolean drift = id.endsWith(".drift") || id.equals("drift.depth");
            if (drift && s.value() > 0) {
                moving.add(s.parameter().name() + " " + s.parameter().formatWithUnit(s.value()));
                still = still.with(id, 0);
            }
        }
        for (int i = 1; i <= recipe.common().routes().size(); i++) {
            Route r = recipe.common().routes().get(i - 1);
            boolean wobble = r.source() == Source.LFO_1 || r.source() == Source.LFO_2;
            if (wobble && r.depth() != 0 && moved(r.target())) {
                Recipe.Setting s = recipe.setting("route." + i + ".depth");
                moving.add(words(r.source()) + " on " + words(r.target()) + " "
                        + s.parameter().formatWithUnit(s.value()));
                still = still.with("route." + i + ".depth", 0);
            }
        }
        if (!moving.isEmpty()) {
            Recipe without = still;
            say("", r -> without, "Still moving: %s. If that is not meant, Mend stops it.", String.join(", ", moving));
        }
    }

    private static String words(Enum<?> e) {
        return e.name().toLowerCase(Locale.ROOT).replace('_', ' ').replace("lfo", "LFO");
    }

    /** @param fromNothing whether the wave itself begins at 0 */
    private void clicks(String id, Envelope e, boolean fromNothing) {
        String head = id.replace(".attack", "");
        if (never(e)) {
            say(id, set(head + ".sustain", 1), "The envelope of the level never rises: nothing is heard.");
        } else if (e.attackSeconds() < CLICK_SECONDS && !fromNothing) {
            say(
                    id,
                    set(id, CLICK_SECONDS),
                    "The level jumps up in the middle of a wave: it clicks. Give it half a millisecond.");
        }
        if (e.releaseSeconds() < CLICK_SECONDS && e.sustain() > 0) {
            say(head + ".release", set(head + ".release", 0.01), "The level is cut off at key-up: it clicks.");
        }
    }

    private static boolean never(Envelope e) {
        return e.attackSeconds() == 0 && e.holdSeconds() == 0 && e.decaySeconds() == 0 && e.sustain() == 0;
    }

    private void movement() {
        Common c = recipe.common();
        for (int i = 0; i < c.routes().size(); i++) {
            Route r = c.routes().get(i);
            String id = "route." + (i + 1) + ".depth";
            if (r.depth() == 0) {
                say(id, takeOut("route", i + 1), "Route %d has no depth.", i + 1);
            } else if (r.source() == Source.LFO_1 && c.first() == null
                    || r.source() == Source.LFO_2 && c.second() == null
                    || r.source() == Source.ENVELOPE && c.envelope() == null) {
                say(id, with -> with.withPart(source(r)), "Route %d comes from something that is not there.", i + 1);
            } else if (!moved(r.target())) {
                say(id, takeOut("route", i + 1), "Route %d moves something that this method does not have.", i + 1);
            }
        }
        unused(c.first() != null, Source.LFO_1, "lfo.1.rate", "The first LFO moves nothing.");
        unused(c.second() != null, Source.LFO_2, "lfo.2.rate", "The second LFO moves nothing.");
        unused(c.envelope() != null, Source.ENVELOPE, "movement.attack", "The envelope for movement moves nothing.");
        for (Macro m : c.macros()) {
            for (Macro.Aim a : m.targets()) {
                boolean there = recipe.settings().stream()
                        .anyMatch(s -> s.parameter().id().equals(a.parameter()));
                if (!there) {
                    say("", null, "The macro '%s' moves '%s', which is not there.", m.name(), a.parameter());
                }
            }
        }
    }

    private static String source(Route r) {
        return r.source() == Source.LFO_1 ? "lfo.1" : r.source() == Source.LFO_2 ? "lfo.2" : "movement";
    }

    private void unused(boolean there, Source source, String id, String text) {
        boolean used = recipe.common().routes().stream().anyMatch(r -> r.source() == source && r.depth() != 0);
        if (there && !used) {
            say(id, without(id.substring(0, id.lastIndexOf('.'))), "%s", text);
        }
    }

    private boolean moved(Target t) {
        Common c = recipe.common();
        boolean filter = c.before() != null || c.after() != null;
        return switch (t) {
            case PITCH, LEVEL, PAN, LFO_1_DEPTH, LFO_1_RATE -> true;
            case SWEEP ->
                ParameterAccess.parts((Record) recipe, Filter.class).stream()
                        .anyMatch(f -> f.part().envelope() != null);
            case CUTOFF ->
                filter || !ParameterAccess.parts((Record) recipe, Filter.class).isEmpty();
            case INDEX -> recipe instanceof FmRecipe;
            case INTERVAL ->
                recipe instanceof FmRecipe
                        || recipe instanceof RingRecipe
                        || recipe instanceof SubtractiveRecipe s
                                && s.oscillators().size() > 1;
            case WIDTH -> !(recipe instanceof ResonatorRecipe || recipe instanceof StringRecipe);
            case SHIFT -> recipe instanceof FormantRecipe;
            case DECAY -> recipe instanceof ResonatorRecipe || recipe instanceof StringRecipe;
            case NOISE -> true;
        };
    }

    private void sides() {
        Common c = recipe.common();
        if (Math.abs(c.pan()) > 0.95) {
            say("pan", set("pan", 0), "Only the %s side sounds.", c.pan() < 0 ? "left" : "right");
        }
        Effects.Delay d = c.effects().delay();
        if (d != null && d.mix() == 0) {
            say("delay.mix", without("delay"), "The delay is there, but its level is 0.");
        }
        Effects.Reverb v = c.effects().reverb();
        if (v != null && v.mix() == 0) {
            say("reverb.mix", without("reverb"), "The reverb is there, but its level is 0.");
        }
        if (recipe.levelDb() <= -79) {
            say("level", set("level", -12), "The recipe's level is at its lowest.");
        }
    }
}

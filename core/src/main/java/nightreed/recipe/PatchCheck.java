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
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;

/** Looks for what is forgotten in a recipe: silent sources, ways that lead nowhere, one dead side, clicks. */
public final class PatchCheck {
    /** A level that rises faster than this from nothing is heard as a click [s]. */
    private static final double CLICK_SECONDS = 0.0005;

    private final Recipe recipe;
    private final List<Finding> findings = new ArrayList<>();

    /**
     * Something to look at.
     *
     * @param parameterId value it is about; empty for the whole
     * @param text        what is off, and what to do
     */
    public record Finding(String parameterId, String text) {}

    private PatchCheck(Recipe recipe) {
        this.recipe = recipe;
    }

    /** All findings; none if the recipe is in order. */
    public static List<Finding> of(Recipe recipe) {
        PatchCheck c = new PatchCheck(recipe.played());
        c.method();
        c.movement();
        c.sides();
        c.macros(recipe);
        return List.copyOf(c.findings);
    }

    private void say(String id, String format, Object... values) {
        findings.add(new Finding(id, String.format(Locale.ROOT, format, values)));
    }

    private void macros(Recipe written) {
        for (Macro m : written.common().macros()) {
            List<String> held = m.targets().stream()
                    .map(Macro.Aim::parameter)
                    .filter(id -> written.settings().stream()
                            .anyMatch(v -> v.parameter().id().equals(id)))
                    .toList();
            if (held.isEmpty()) {
                say("", "%s moves nothing that this recipe has: take it out.", m.name());
            } else {
                say(
                        held.get(0),
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
            say("mode.1.level", "All modes are silent: raise one of them.");
        }
    }

    private void fm(FmRecipe r) {
        boolean heard = false;
        for (int i = 0; i < r.pairs().size(); i++) {
            FmPair p = r.pairs().get(i);
            String id = "pair." + (i + 1);
            if (p.levelDb() <= FmPair.OFF_DB) {
                say(id + ".level", "Pair %d is silent: raise its level or take it out.", i + 1);
            } else {
                heard = true;
                clicks(id + ".amp.attack", p.amplitude(), p.carrierPhaseRad() == 0 && !p.free());
            }
            if (p.index() == 0 && p.feedback() > 0) {
                say(
                        id + ".index",
                        "The modulator of pair %d feeds itself, but its index is 0: it is not heard.",
                        i + 1);
            }
            if (p.index() > 0 && never(p.bend())) {
                say(id + ".bend.sustain", "The envelope of the index of pair %d never rises.", i + 1);
            }
        }
        if (!heard) {
            say("pair.1.level", "No pair sounds.");
        }
    }

    private void ring(RingRecipe r) {
        boolean product = r.ringDb() > RingRecipe.OFF_DB;
        boolean dry = r.dryDb() > RingRecipe.OFF_DB;
        if (!product && !dry) {
            say("ring", "Product and dry path are both silent.");
        }
        if (r.a().silent()) {
            say("a.level", "The first oscillator is silent, and everything with it.");
        }
        if (product && r.b().silent()) {
            say("b.level", "The second oscillator is silent: the product is nothing.");
        }
        if (!product && (r.filterB() != null || r.driftCents() > 0)) {
            say("ring", "The second oscillator's filter or drift is set, but the product is silent.");
        }
        clicks("amp.attack", r.amplitude(), r.a().phaseRad() == 0 && !r.a().free());
    }

    private void formant(FormantRecipe r) {
        boolean tone = !r.source().silent();
        boolean noise = r.noiseDb() > FormantRecipe.OFF_DB;
        if (!tone && !noise && r.exciter() == null) {
            say("source.level", "Wave and noise are both silent, and there is no strike.");
        }
        for (int i = 0; i < r.bands().size(); i++) {
            FormantBand b = r.bands().get(i);
            if (b.levelDb() <= FormantRecipe.OFF_DB) {
                say("band." + (i + 1) + ".level", "Band %d is silent.", i + 1);
            } else if (b.noiseShare() > 0.98 && !noise) {
                say(
                        "band." + (i + 1) + ".noiseShare",
                        "Band %d is driven by noise only, and the noise is silent.",
                        i + 1);
            } else if (b.noiseShare() < 0.02 && !tone && r.exciter() == null) {
                say(
                        "band." + (i + 1) + ".noiseShare",
                        "Band %d is driven by the wave only, and the wave is silent.",
                        i + 1);
            }
        }
        clicks("amp.attack", r.amplitude(), true);
    }

    private void string(StringRecipe r) {
        if (r.drive() == StringRecipe.Drive.BURST && !r.exciter().noisy()) {
            say("noise.level", "The string is driven by a burst of noise, and its noise is off.");
        }
        if (r.gainOctaves() != 0 && r.gainEnvelope() == null) {
            say("gain.depth", "The decay has a depth for an envelope, but no envelope.");
        }
        if (r.bow() != null && r.drive() != StringRecipe.Drive.ZIGZAG && r.drive() != StringRecipe.Drive.FRICTION) {
            say("drive", "A bow is set, but the string is not bowed.");
        }
    }

    private void subtractive(SubtractiveRecipe r) {
        boolean heard = r.breath() != null && r.breath().levelDb() > -79;
        for (int i = 0; i < r.oscillators().size(); i++) {
            Oscillator o = r.oscillators().get(i);
            if (o.silent()) {
                say("osc." + (i + 1) + ".level", "Oscillator %d is silent.", i + 1);
            } else {
                heard = true;
            }
            if (o.wave() == Oscillator.Wave.MEASURED && r.cycle() == null) {
                say(
                        "osc." + (i + 1) + ".wave",
                        "Oscillator %d plays a measured wave, but none is there: a saw is heard.",
                        i + 1);
            }
        }
        if (!heard) {
            say("osc.1.level", "No oscillator sounds.");
        }
        Filter f = r.filter();
        if (f != null && f.envelope() != null && f.envelopeOctaves() == 0) {
            say("filter.envelope", "The filter has an envelope, but it moves nothing.");
        }
        if (f != null && f.envelope() == null && f.envelopeOctaves() != 0) {
            say("filter.envelope", "The filter has a depth for an envelope, but no envelope.");
        }
        if (f != null
                && f.kind() == Filter.Kind.LOW
                && f.cutoffHz() * Math.pow(2, Math.max(0, f.envelopeOctaves())) < 0.3 * r.f0Hz()) {
            say("filter.cutoff", "The filter stays far under the pitch: nearly nothing passes.");
        }
        clicks(
                "amp.attack",
                r.amplitude(),
                r.oscillators().get(0).phaseRad() == 0
                        && !r.oscillators().get(0).free());
    }

    /** @param fromNothing whether the wave itself begins at 0 */
    private void clicks(String id, Envelope e, boolean fromNothing) {
        if (never(e)) {
            say(id, "The envelope of the level never rises: nothing is heard.");
        } else if (e.attackSeconds() < CLICK_SECONDS && !fromNothing) {
            say(id, "The level jumps up in the middle of a wave: it clicks. Give it half a millisecond.");
        }
        if (e.releaseSeconds() < CLICK_SECONDS && e.sustain() > 0) {
            say(id.replace("attack", "release"), "The level is cut off at key-up: it clicks.");
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
                say(id, "Route %d has no depth.", i + 1);
            } else if (r.source() == Source.LFO_1 && c.first() == null
                    || r.source() == Source.LFO_2 && c.second() == null
                    || r.source() == Source.ENVELOPE && c.envelope() == null) {
                say(id, "Route %d comes from something that is not there.", i + 1);
            } else if (!moved(r.target())) {
                say(id, "Route %d moves something that this method does not have.", i + 1);
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
                    say("", "The macro '%s' moves '%s', which is not there.", m.name(), a.parameter());
                }
            }
        }
    }

    private void unused(boolean there, Source source, String id, String text) {
        boolean used = recipe.common().routes().stream().anyMatch(r -> r.source() == source && r.depth() != 0);
        if (there && !used) {
            say(id, "%s", text);
        }
    }

    private boolean moved(Target t) {
        Common c = recipe.common();
        boolean filter = c.before() != null || c.after() != null;
        return switch (t) {
            case PITCH, LEVEL, PAN, LFO_1_DEPTH, LFO_1_RATE -> true;
            case CUTOFF ->
                filter
                        || recipe instanceof SubtractiveRecipe s && s.filter() != null
                        || recipe instanceof RingRecipe r && (r.filterA() != null || r.filterB() != null);
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
            say("pan", "Only the %s side sounds.", c.pan() < 0 ? "left" : "right");
        }
        Effects.Delay d = c.effects().delay();
        if (d != null && d.mix() == 0) {
            say("delay.mix", "The delay is there, but its level is 0.");
        }
        Effects.Reverb v = c.effects().reverb();
        if (v != null && v.mix() == 0) {
            say("reverb.mix", "The reverb is there, but its level is 0.");
        }
        if (recipe.levelDb() <= -79) {
            say("level", "The recipe's level is at its lowest.");
        }
    }
}

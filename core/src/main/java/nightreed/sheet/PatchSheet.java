package nightreed.sheet;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import nightreed.match.advice.Tolerances;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.PartialDifference;
import nightreed.match.hearing.Aspect;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.recipe.Layer;
import nightreed.recipe.Patch;
import nightreed.recipe.Recipe;
import nightreed.recipe.ResonatorRecipe;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.size.FreeValue;
import nightreed.recipe.size.FreeValues;
import nightreed.recipe.size.PatchSize;

/**
 * One page to build the sound from anywhere: every value with its unit and how far it may move, the partials of the
 * recording, what a listener would still notice, and the maker's own note. Self-contained HTML that prints well.
 */
public final class PatchSheet {
    private PatchSheet() {}

    /**
     * @param project     name of the project
     * @param imitation   name of the imitation
     * @param measurement what was imitated
     * @param measurement of the recording; null if there is none
     * @param patch       the imitation
     * @param fitted      the recipe as fitted, to tell values set by hand; null if unknown
     * @param tolerances  from {@link Tolerances#of}
     * @param comparison  recording against imitation; null if there is no recording
     * @param note        the maker's note, may be empty
     */
    public static String html(
            String project,
            String imitation,
            Measurement measurement,
            Patch patch,
            Recipe fitted,
            Map<String, Tolerances.Span> tolerances,
            Comparison comparison,
            String note) {
        Recipe recipe = patch.first();
        StringBuilder h = new StringBuilder(16_000);
        h.append("<!DOCTYPE html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><title>")
                .append(escape(imitation + ", patch sheet"))
                .append("</title>\n<style>\n")
                .append(STYLE)
                .append("</style></head><body>\n");
        h.append("<p class=\"quiet\">").append(escape(project)).append("</p>\n");
        h.append("<h1>")
                .append(escape(imitation))
                .append("</h1>\n<p>Method: ")
                .append(method(recipe))
                .append(". Values hold for key ")
                .append(Pitch.name(recipe.key()))
                .append(" (MIDI ")
                .append(recipe.key())
                .append(") at velocity ")
                .append(number(recipe.velocity().reference(), 2))
                .append(".</p>\n");
        if (measurement != null && measurement.typical() != null) {
            h.append("<p>Built against a typical target, not a recording: ")
                    .append(escape(measurement.typical().words()))
                    .append(". ")
                    .append(escape(String.join("; ", measurement.typical().sources())))
                    .append(".</p>\n");
        }
        if (!note.isBlank()) {
            h.append("<h2>Note</h2>\n<p class=\"note\">").append(escape(note)).append("</p>\n");
        }
        if (comparison != null) {
            comparison(h, comparison);
        }
        free(h, recipe);
        h.append("<h2>All values</h2>\n");
        values(h, recipe, fitted, tolerances);
        layers(h, patch);
        if (measurement != null && comparison != null) {
            partials(h, measurement, comparison);
        }
        h.append(
                "<p class=\"quiet\">Resonant sounds can jump in level. Start low, rest your ears, and follow the rules on"
                        + " noise exposure where you are.</p>\n</body></html>\n");
        return h.toString();
    }

    /** The fewest values that give the recipe, a line each. */
    private static void free(StringBuilder h, Recipe recipe) {
        List<FreeValue> free = FreeValues.of(recipe);
        h.append("<h2>What sets it: ").append(free.size()).append(" values</h2>\n");
        if (PatchSize.followsRecording(recipe)) {
            h.append("<p>It follows the recording: stored courses do the rest, and no hand can set them.</p>\n");
        }
        h.append("<table><tr><th class=\"l\">value</th><th>set to</th><th>unit</th></tr>\n");
        for (FreeValue v : free) {
            Parameter p = v.parameter();
            h.append("<tr><td class=\"l\">")
                    .append(escape(v.name()))
                    .append("</td><td>")
                    .append(escape(p.format(v.value(recipe))))
                    .append("</td><td>")
                    .append(escape(p.unit()))
                    .append("</td></tr>\n");
        }
        h.append(
                        "</table>\n<p class=\"quiet\">What is neutral, makes no difference, or follows from these is left out; level, tuning")
                .append(" and what follows key and strength stand below.</p>\n");
    }

    private static void layers(StringBuilder h, Patch patch) {
        if (patch.isOne()) {
            return;
        }
        List<Layer> all = patch.layers();
        h.append("<h2>Layers</h2>\n<table><tr><th class=\"l\">value</th>");
        for (int i = 1; i <= all.size(); i++) {
            h.append("<th>layer ").append(i).append("</th>");
        }
        h.append("</tr>\n<tr><td class=\"l\">method</td>");
        all.forEach(l -> h.append("<td>").append(method(l.recipe())).append("</td>"));
        h.append("</tr>\n");
        List<ParameterAccess.Reading> names = ParameterAccess.of(all.get(0));
        for (int v = 0; v < names.size(); v++) {
            h.append("<tr><td class=\"l\">")
                    .append(escape(names.get(v).parameter().name()))
                    .append("</td>");
            for (Layer l : all) {
                ParameterAccess.Reading r = ParameterAccess.of(l).get(v);
                h.append("<td>")
                        .append(escape(r.parameter().formatWithUnit(r.value())))
                        .append("</td>");
            }
            h.append("</tr>\n");
        }
        h.append("</table>\n<p>Cross-fade at ")
                .append(number(patch.crossFade(), 2))
                .append(".</p>\n");
        for (int i = 1; i < all.size(); i++) {
            h.append("<h2>Layer ")
                    .append(i + 1)
                    .append(": ")
                    .append(method(all.get(i).recipe()))
                    .append("</h2>\n");
            values(h, all.get(i).recipe(), all.get(i).recipe(), Map.of());
        }
    }

    private static void comparison(StringBuilder h, Comparison c) {
        h.append("<h2>What a listener would notice</h2>\n<p>")
                .append(
                        c.withinHearing()
                                ? "Nothing: no aspect is more than one just-noticeable difference (JND) off."
                                : "First of all the " + c.worst().title() + ".")
                .append(" All together ")
                .append(number(c.totalJnd(), 2))
                .append(" JND.</p>\n<table><tr>");
        for (Aspect a : Aspect.values()) {
            h.append("<th>").append(a.title()).append("</th>");
        }
        h.append("</tr><tr>");
        for (Aspect a : Aspect.values()) {
            h.append("<td>").append(number(c.jnd(a), 2)).append(" JND</td>");
        }
        h.append("</tr></table>\n");
    }

    private static void values(StringBuilder h, Recipe recipe, Recipe fitted, Map<String, Tolerances.Span> tolerances) {
        h.append("<table><tr><th class=\"l\">value</th><th>set to</th><th>unit</th>")
                .append("<th>may move from</th><th>to</th><th class=\"l\">origin</th></tr>\n");
        Parameter.Group group = null;
        for (Recipe.Setting s : recipe.settings()) {
            Parameter p = s.parameter();
            if (p.group() != group) {
                group = p.group();
                h.append("<tr><th class=\"l\" colspan=\"6\">")
                        .append(group.title())
                        .append("</th></tr>\n");
            }
            Tolerances.Span span = tolerances.get(p.id());
            h.append("<tr><td class=\"l\">")
                    .append(escape(p.name()))
                    .append("</td><td>")
                    .append(p.format(s.value()))
                    .append("</td><td>")
                    .append(escape(p.unit()))
                    .append("</td><td>")
                    .append(span == null ? "" : p.format(span.low()))
                    .append("</td><td>")
                    .append(span == null ? "" : p.format(span.high()))
                    .append("</td><td class=\"l\">")
                    .append(origin(p, s.value(), fitted))
                    .append("</td></tr>\n");
        }
        h.append("</table>\n<p class=\"quiet\">\"May move\": each value alone, before anyone would hear it.</p>\n");
    }

    private static String method(Recipe recipe) {
        return recipe instanceof ResonatorRecipe r
                ? "resonators, " + r.modes().size() + (r.body() == ResonatorRecipe.Body.MODES ? " modes" : " combs")
                : recipe.method();
    }

    private static String origin(Parameter p, double value, Recipe fitted) {
        if (p.group() == Parameter.Group.PLAYING) {
            return "usual value, one note cannot tell";
        }
        if (fitted == null) {
            return "set by hand";
        }
        try {
            boolean same = Math.abs(fitted.value(p.id()) - value) <= 1e-9 * Math.max(1, Math.abs(value));
            return same ? "fitted" : "set by hand (fitted: " + p.format(fitted.value(p.id())) + ")";
        } catch (IllegalArgumentException modeAddedByHand) {
            return "set by hand";
        }
    }

    private static void partials(StringBuilder h, Measurement m, Comparison c) {
        h.append(
                m.typical() == null
                        ? "<h2>Partials of the recording</h2>\n<p>"
                        : "<h2>Partials of the target</h2>\n<p>");
        if (m.f0Hz() != null) {
            h.append("Sounds ")
                    .append(m.nearestNote())
                    .append(", ")
                    .append(String.format(Locale.ROOT, "%+.1f", m.centsFromConcert()))
                    .append(" cents (")
                    .append(number(m.f0Hz(), 2))
                    .append(" Hz). ");
        }
        if (m.series() != null) {
            h.append("Nearest series: ")
                    .append(m.series().series().name())
                    .append(", ")
                    .append(number(m.series().deviationCents(), 0))
                    .append(" cents off.");
        }
        h.append("</p>\n<table><tr><th class=\"l\">partial</th><th>Hz</th><th>&plusmn;</th><th>ratio</th><th>dB</th>")
                .append("<th>T60 s</th><th>&plusmn;</th><th>imitation dB</th><th>imitation T60 s</th>")
                .append("<th>off by JND</th></tr>\n");
        for (PartialDifference d : c.partials()) {
            Partial p = d.recording();
            if (p == null) {
                continue;
            }
            String name = m.series() == null ? null : m.series().nameOf(p.frequencyHz());
            Partial i = d.imitation();
            h.append("<tr><td class=\"l\">")
                    .append(name == null ? "" : name)
                    .append("</td>")
                    .append(cell(p.frequencyHz(), 2))
                    .append(cell(p.frequencySeHz(), 3))
                    .append(cell(p.ratio(), 4))
                    .append(cell(p.levelDb(), 1))
                    .append(cell(p.t60Seconds(), 3))
                    .append(cell(p.t60SeSeconds(), 3))
                    .append(i == null ? "<td>none</td>" : cell(p.levelDb() + d.levelDb(), 1))
                    .append(cell(i == null ? null : i.t60Seconds(), 3))
                    .append(cell(d.heardJnd(), 2))
                    .append("</tr>\n");
        }
        h.append("</table>\n");
    }

    private static String cell(Double v, int decimals) {
        return "<td>" + (v == null || !Double.isFinite(v) ? "" : number(v, decimals)) + "</td>";
    }

    private static String number(double v, int decimals) {
        return String.format(Locale.ROOT, "%." + decimals + "f", v);
    }

    private static String escape(String text) {
        return text.replace("&", "&amp;")
                .replace("<", "&lt;")
                .replace(">", "&gt;")
                .replace("\"", "&quot;");
    }

    private static final String STYLE = """
            body { font: 14px/1.5 'IBM Plex Sans', sans-serif; color: #1b2a2e; max-width: 52rem; margin: 2rem auto; padding: 0 1rem }
            h1 { font-size: 1.7rem; margin: 0 } h2 { font-size: 1.1rem; margin: 1.6rem 0 .4rem }
            table { border-collapse: collapse; width: 100% } th { font-weight: 500; color: #4c6064; text-align: right }
            td { text-align: right; font-variant-numeric: tabular-nums } td, th { padding: .15rem .5rem; border-bottom: 1px solid #d8dfdd }
            .l { text-align: left } .quiet { color: #4c6064 } .note { border-left: 3px solid #c97f1c; padding-left: .8rem; white-space: pre-wrap }
            @media print { body { margin: 0; max-width: none } }
            """;
}

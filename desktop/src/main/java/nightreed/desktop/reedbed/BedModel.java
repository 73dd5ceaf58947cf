package nightreed.desktop.reedbed;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.match.compare.Comparison;
import nightreed.match.compare.PartialDifference;
import nightreed.match.sound.AnalysedSound;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.recipe.Patch;

/**
 * What a reedbed shows.
 *
 * @param reeds      partials of the recording with their names, null for none
 * @param mirror     partials of the imitation, with levels that compare to the recording's; empty for no reflection
 * @param ripples    audible differences
 * @param axis       frequency axis, null while there is nothing to show
 * @param seriesText which series it comes closest to, empty if none
 */
public record BedModel(List<Reed> reeds, List<Reed> mirror, List<Ripple> ripples, Axis axis, String seriesText) {
    public static final BedModel EMPTY = new BedModel(List.of(), List.of(), List.of(), null, "");

    /** Leaves are drawn on this many of the strongest only, or many reeds would hide each other. */
    private static final int LEAVES = 12;

    /**
     * One partial.
     *
     * @param partial  its numbers
     * @param levelDb  level to draw [dB re the recording's strongest]
     * @param name     its name in the nearest series, null if it has none
     * @param leaf     whether its T60 is drawn
     */
    public record Reed(Partial partial, double levelDb, String name, boolean leaf) {
        /** Level a time after the onset [dB]. */
        double levelAt(double seconds) {
            return levelDb + partial.levelDbAt(seconds) - partial.levelDb();
        }
    }

    /** A difference that would be heard [JND] at a frequency [Hz]. */
    public record Ripple(double hz, double jnd) {}

    /** The recording alone, or with its imitation. @param comparison null for the recording alone */
    public static BedModel of(Measurement m, Comparison comparison, Axis.Kind kind) {
        List<Partial> sure = new ArrayList<>(m.reliablePartials());
        if (sure.isEmpty()) {
            return EMPTY;
        }
        sure.sort(Comparator.comparingDouble(p -> -p.levelDb()));
        List<Reed> reeds = new ArrayList<>();
        for (int i = 0; i < sure.size(); i++) {
            Partial p = sure.get(i);
            String name = m.series() == null ? null : m.series().nameOf(p.frequencyHz());
            reeds.add(new Reed(p, p.levelDb(), name, i < LEAVES));
        }
        List<Reed> mirror = new ArrayList<>();
        List<Ripple> ripples = new ArrayList<>();
        if (comparison != null) {
            double strongest = sure.get(0).amplitude();
            for (PartialDifference d : comparison.partials()) {
                if (d.imitation() != null) {
                    double db = 20 * Math.log10(d.imitation().amplitude() / strongest) + comparison.gainDb();
                    mirror.add(new Reed(d.imitation(), db, null, false));
                }
                if (d.heardJnd() > 1) {
                    ripples.add(new Ripple(d.either().frequencyHz(), d.heardJnd()));
                }
            }
            mirror.sort(Comparator.comparingDouble(r -> -r.levelDb));
            for (int i = 0; i < Math.min(LEAVES, mirror.size()); i++) {
                Reed r = mirror.get(i);
                mirror.set(i, new Reed(r.partial, r.levelDb, null, true));
            }
        }
        return new BedModel(reeds, mirror, ripples, axis(m, kind), seriesText(m));
    }

    /** What an imitation sounds like where there is no recording: its partials below the water only. @param sound may be null */
    public static BedModel by(AnalysedSound sound, Patch patch) {
        BedModel own = sound == null || patch == null ? EMPTY : of(sound.measurement(), null, Axis.Kind.RATIO);
        if (own == EMPTY) {
            return own;
        }
        Axis a = own.axis;
        double f0 = Pitch.hz(patch.key() + patch.first().tuningCents() / 100);
        double low = Math.min(a.lowHz(), 0.8 * f0);
        return new BedModel(List.of(), own.reeds, List.of(), new Axis(a.kind(), f0, low, a.highHz()), own.seriesText);
    }

    private static Axis axis(Measurement m, Axis.Kind kind) {
        List<Partial> sure = m.reliablePartials();
        double low = sure.stream().mapToDouble(Partial::frequencyHz).min().orElse(100);
        double high = sure.stream()
                .filter(p -> p.levelDb() > -60)
                .mapToDouble(Partial::frequencyHz)
                .max()
                .orElse(1000);
        double f0 = m.f0Hz() == null ? low : m.f0Hz();
        double span = Math.max(4, high / low);
        double margin = Math.pow(span, 0.11);
        return new Axis(kind, f0, low / margin, low * span * margin);
    }

    private static String seriesText(Measurement m) {
        return m.series() == null
                ? ""
                : String.format(
                        java.util.Locale.ROOT,
                        "%s, %.0f cents off",
                        m.series().series().name(),
                        m.series().deviationCents());
    }
}

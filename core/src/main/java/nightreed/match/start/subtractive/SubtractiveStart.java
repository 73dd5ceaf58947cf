package nightreed.match.start.subtractive;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.match.start.StartContext;
import nightreed.measure.Brightness;
import nightreed.measure.Measurement;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.traits.SourceWave;
import nightreed.recipe.Breath;
import nightreed.recipe.SubtractiveRecipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Filter.Kind;
import nightreed.recipe.part.Filter.Slope;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Feet;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.SingleCycle;
import nightreed.recipe.part.VelocityMap;

/** The likeliest source, or one cycle of the recording itself; the filter's path from that of the brightness. */
public final class SubtractiveStart {
    /**
     * How far a cutoff follows the key where one note is all that is known: half way between a body that stays where it is and harmonics that
     * all keep their levels. Instruments lie between the two; a flute's centroid rises by a quarter of its pitch.
     */
    static final double KEY_TRACKING = 0.5;

    private SubtractiveStart() {}

    /** The likeliest source, then the recording's own cycle, then the plain waves, through filters of either slope. */
    public static List<SubtractiveRecipe> several(StartContext g) {
        SubtractiveRecipe first = of(g);
        List<SubtractiveRecipe> out = new ArrayList<>(List.of(first));
        for (FilterCourse.Source s : FilterCourse.of(g)) {
            out.add(moving(g, s));
        }
        Envelope amplitude = first.amplitude();
        if (first.cycle() != null && first.oscillators().get(0).wave() != Wave.MEASURED) {
            out.add(recipe(g, Wave.MEASURED, 0.5, filter(g, null, Wave.MEASURED), amplitude));
        }
        Filter f = filter(g, null, Wave.SAW);
        for (Slope slope : List.of(Slope.DB_12, Slope.DB_24)) {
            Filter bent = new Filter(
                    f.kind(),
                    slope,
                    f.cutoffHz(),
                    f.q(),
                    f.keyTracking(),
                    f.envelopeOctaves(),
                    f.velocityOctaves(),
                    f.driveDb(),
                    f.envelope());
            out.add(recipe(g, Wave.SAW, 0.5, bent, amplitude));
            out.add(recipe(g, Wave.PULSE, 0.5, bent, amplitude));
            out.add(recipe(g, Wave.PULSE, 0.2, bent, amplitude));
        }
        out.add(recipe(g, Wave.TRIANGLE, 0.5, f, amplitude));
        StartContext.Line top = g.lines().get(0);
        for (StartContext.Line l : g.lines()) {
            top = l.db() > top.db() ? l : top;
        }
        if (top.hz() > 1.5 * g.f0()) { // a low-pass alone leaves the fundamental the strongest
            Filter band = new Filter(
                    Kind.BAND, Slope.DB_12, StartContext.limited(top.hz(), 20, 15_000), 1, 0, 0, 0, 0, f.envelope());
            out.add(recipe(g, Wave.SAW, 0.5, band, amplitude));
            out.add(recipe(g, Wave.PULSE, 0.2, band, amplitude));
        }
        return out;
    }

    /** A wave, or two a little apart around the pitch, through a filter that moves as the harmonics do. */
    private static SubtractiveRecipe moving(StartContext g, FilterCourse.Source s) {
        Oscillator o = new Oscillator(s.wave(), Feet.FEET_8, 1, 0, 0, s.width(), 0, false, 0, 0, 0);
        SubtractiveRecipe one = recipe(g, o, g.cycle(), s.filter(), s.amplitude());
        if (s.beatHz() == 0) {
            return one;
        }
        double apart = 1200 * log2(1 + s.beatHz() / g.f0());
        return one.with(b -> b.tuningCents(StartContext.limited(g.cents() - apart / 2, -100, 100))
                .oscillators(List.of(o, o.withDetuneCents(StartContext.limited(apart, -100, 100))))
                .common(g.movementWithoutTremolo()));
    }

    public static SubtractiveRecipe of(StartContext g) {
        Measurement m = g.measurement();
        SourceWave source =
                m.traits().sources().isEmpty() ? null : m.traits().sources().get(0);
        SingleCycle cycle = g.cycle();
        Wave wave = Wave.SAW;
        double width = 0.5;
        if (source != null) {
            switch (source.wave()) {
                case SAW -> wave = Wave.SAW;
                case SQUARE, PULSE -> {
                    wave = Wave.PULSE;
                    width = source.width() == null ? 0.5 : StartContext.limited(source.width(), 0.02, 0.98);
                }
                case TRIANGLE -> wave = Wave.TRIANGLE;
                case OTHER -> wave = cycle == null ? Wave.SAW : Wave.MEASURED;
            }
            g.say(
                    "osc.1",
                    true,
                    String.format(
                            Locale.ROOT,
                            "likeliest source: %s, %.0f %%",
                            source.wave().title(),
                            100 * source.certainty()));
        } else if (cycle != null) {
            wave = Wave.MEASURED;
            g.say("osc.1", true, "one cycle of the recording");
        }
        return recipe(g, wave, width, filter(g, source, wave), g.amplitude("amp"));
    }

    private static SubtractiveRecipe recipe(
            StartContext g, Wave wave, double width, Filter filter, Envelope amplitude) {
        Oscillator o = new Oscillator(wave, Feet.FEET_8, 1, 0, 0, width, 0, false, 0, 0, 0);
        return recipe(g, o, g.cycle(), filter, amplitude);
    }

    private static SubtractiveRecipe recipe(
            StartContext g, Oscillator wave, SingleCycle cycle, Filter filter, Envelope amplitude) {
        return new SubtractiveRecipe(
                g.key(),
                g.cents(),
                -12,
                List.of(wave),
                cycle,
                null,
                breath(g),
                filter,
                amplitude,
                g.strike(),
                new VelocityMap(0.7, 24, 1),
                g.movement(true));
    }

    private static Breath breath(StartContext g) {
        if (!g.isHeld() || g.measurement().held().noiseDb() < -70) {
            return null;
        }
        double db = StartContext.limited(g.measurement().held().noiseDb(), -60, -6);
        g.say("breath.level", true, "measured noise between the harmonics");
        return new Breath(db, StartContext.limited(g.f0(), 20, 5000), 8000, null);
    }

    private static Filter filter(StartContext g, SourceWave source, Wave wave) {
        Brightness path = g.measurement().brightness();
        boolean held = g.isHeld();
        double attack = held
                ? g.measurement().held().harmonics().stream()
                        .map(HeldHarmonic::attackSeconds)
                        .filter(a -> a != null)
                        .mapToDouble(Double::doubleValue)
                        .max()
                        .orElse(g.attack())
                : 0.0005;
        if (wave == Wave.MEASURED) {
            // the wave has the spectrum already: the filter only moves what the brightness moves
            double octaves = path == null ? 0 : StartContext.limited(log2(path.startHz() / path.endHz()), 0, 6);
            double t60 = path == null ? 1 : StartContext.limited(path.halfTimeSeconds() * 10, 0.02, 100);
            g.say("filter", path != null, "path of the brightness");
            return new Filter(
                    Kind.LOW,
                    Slope.DB_12,
                    StartContext.limited(held ? 12_000 : 4 * g.f0(), 50, 18_000),
                    0.71,
                    KEY_TRACKING,
                    held ? 0 : octaves + 1,
                    1,
                    0,
                    held ? null : Envelope.struck(0.0005, t60, 0.5));
        }
        double cutoff = source != null && source.cutoffHz() != null
                ? source.cutoffHz()
                : path == null ? 4 * g.f0() : 1.5 * (held ? path.endHz() : path.startHz());
        double q = source == null || source.resonanceDb() == null
                ? 0.71
                : StartContext.limited(0.71 * Math.pow(10, source.resonanceDb() / 20), 0.5, 20);
        g.say(
                "filter.cutoff",
                true,
                source != null && source.cutoffHz() != null ? "measured with the source" : "path of the brightness");
        Slope slope = source != null && source.cutoffHz() != null && source.rollOffDbPerOctave() < -18
                ? Slope.DB_24
                : Slope.DB_12;
        double fall = path == null || held ? 2 : StartContext.limited(log2(path.startHz() / path.endHz()), 0.3, 6);
        g.say("filter.envelope", held || path != null, held ? "rise of the upper harmonics" : "path of the brightness");
        Envelope course = held
                ? Envelope.held(StartContext.limited(attack / 0.8, 0.001, 5), 0.3)
                : Envelope.struck(
                        0.0005,
                        path == null ? g.t60() : StartContext.limited(path.halfTimeSeconds() * 10, 0.02, 100),
                        0.5);
        // the envelope is at its top when the note is as bright as measured
        return new Filter(
                Kind.LOW,
                slope,
                StartContext.limited(cutoff / Math.pow(2, fall), 20, 18_000),
                q,
                KEY_TRACKING,
                fall,
                1,
                0,
                course);
    }

    private static double log2(double v) {
        return Math.log(Math.max(1, v)) / Math.log(2);
    }
}

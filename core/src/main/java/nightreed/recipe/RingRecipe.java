package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Filter;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.PartlyIdle;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.SingleCycle;
import nightreed.recipe.part.VelocityMap;

/**
 * Two oscillators multiplied, the first of them dry beside the product, a low-pass on each before they meet. Slow drift of
 * the second makes them beat; strength closes the interval, which is exactly that of the two ratios at full force.
 *
 * @param a          first oscillator, which is also the dry path
 * @param b          second oscillator
 * @param filterA    on the first, null for none
 * @param filterB    on the second, null for none
 * @param cycle      one cycle of the recording, for oscillators of that wave; null if there is none
 * @param productFilter on the product, null for none
 * @param dryFilter  on the dry path beside it, null for none
 * @param amplitude  level over time
 * @param exciter    noise of the strike beside them, null for none
 */
@RecordBuilder
public record RingRecipe(
        int key,

        @ParameterSpec(
                id = "tune",
                name = "tuning",
                unit = "cents",
                least = -100,
                most = 100,
                decimals = 1,
                meaning = "Offset from the key at A4 = 440 Hz.")
        double tuningCents,

        @ParameterSpec(
                name = "level",
                unit = "dBFS",
                least = -80,
                most = 6,
                decimals = 1,
                meaning = "Level of everything.")
        double levelDb,

        @Part(id = "a", name = "first", group = Group.SOURCE)
        Oscillator a,

        @Part(id = "b", name = "second", group = Group.SOURCE)
        Oscillator b,

        @Part(group = Group.SOURCE) SingleCycle cycle,

        @Part(id = "a.filter", name = "first filter", group = Group.SHAPING)
        Filter filterA,

        @Part(id = "b.filter", name = "second filter", group = Group.SHAPING)
        Filter filterB,

        @ParameterSpec(
                name = "product",
                unit = "dB",
                least = -80,
                most = 12,
                decimals = 1,
                neutral = 0,
                meaning = "Level of the product; -80 is silent.")
        double ringDb,

        @ParameterSpec(
                name = "dry",
                unit = "dB",
                least = -80,
                most = 12,
                decimals = 1,
                neutral = -80,
                meaning = "Level of the first oscillator beside it; -80 is silent.")
        double dryDb,

        @ParameterSpec(
                id = "drift.rate",
                name = "drift rate",
                unit = "Hz",
                least = 0.01,
                most = 10,
                law = Law.LOGARITHMIC,
                group = Group.MOVEMENT,
                meaning = "How fast the second oscillator drifts to and fro.")
        double driftRateHz,

        @ParameterSpec(
                id = "drift.depth",
                name = "drift depth",
                unit = "cents",
                most = 100,
                law = Law.ROOT,
                decimals = 1,
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "How far it drifts either way: the beat follows.")
        double driftCents,

        @ParameterSpec(
                id = "velocity.interval",
                name = "soft interval",
                unit = "cents",
                least = -2400,
                most = 2400,
                decimals = 0,
                group = Group.PLAYING,
                neutral = 0,
                meaning = "How far the second lies off when struck softest; nothing at full force.")
        double velocityCents,

        @ParameterSpec(
                id = "drift.sweep",
                name = "drift to filter",
                unit = "oct",
                least = -4,
                most = 4,
                group = Group.MOVEMENT,
                neutral = 0,
                meaning = "How far the drift moves the second's filter along with its pitch.")
        Double driftOctaves,

        @Part(id = "product.filter", name = "product filter", group = Group.SHAPING)
        Filter productFilter,

        @Part(id = "dry.filter", name = "dry filter", group = Group.SHAPING)
        Filter dryFilter,

        @Part(id = "amp", name = "level", group = Group.SHAPING)
        Envelope amplitude,

        @Part(group = Group.EXCITER) Exciter exciter,
        @Part(id = "velocity", group = Group.PLAYING) VelocityMap velocity,
        @Part Common common)
        implements Recipe, RingRecipeBuilder.With, PartlyIdle {
    public static final double OFF_DB = -79.5;

    /** Q with which a filter only tilts the spectrum. */
    public static final double EVEN_Q = 0.6;

    /** Q with which single partials stand out as the filter passes them: 19 dB over the rest. */
    public static final double STANDING_OUT_Q = 9;

    public RingRecipe {
        driftOctaves = driftOctaves == null ? 0 : driftOctaves;
        common = common == null ? Common.NONE : common;
        velocity = velocity == null ? VelocityMap.USUAL : velocity;
        if (a == null || b == null || amplitude == null) {
            throw new IllegalArgumentException("a ring recipe needs two oscillators and an envelope");
        }
        Range.check("key", key, 0, 127, "");
        ParameterAccess.check(
                RingRecipe.class,
                key,
                tuningCents,
                levelDb,
                a,
                b,
                cycle,
                filterA,
                filterB,
                ringDb,
                dryDb,
                driftRateHz,
                driftCents,
                velocityCents,
                driftOctaves);
    }

    /** Without filters behind the product and the dry path. */
    public RingRecipe(
            int key,
            double tuningCents,
            double levelDb,
            Oscillator a,
            Oscillator b,
            SingleCycle cycle,
            Filter filterA,
            Filter filterB,
            double ringDb,
            double dryDb,
            double driftRateHz,
            double driftCents,
            double velocityCents,
            Envelope amplitude,
            Exciter exciter,
            VelocityMap velocity,
            Common common) {
        this(
                key,
                tuningCents,
                levelDb,
                a,
                b,
                cycle,
                filterA,
                filterB,
                ringDb,
                dryDb,
                driftRateHz,
                driftCents,
                velocityCents,
                0.0,
                null,
                null,
                amplitude,
                exciter,
                velocity,
                common);
    }

    @Override
    public String method() {
        return "ring";
    }

    /** With the same Q in every filter. */
    public RingRecipe withQ(double q) {
        RingRecipe r = this;
        for (ParameterAccess.Found<Filter> f : ParameterAccess.parts(this, Filter.class)) {
            r = ParameterAccess.with(r, f.id() + ".q", q);
        }
        return r;
    }

    /** Frequency of the second over that of the first, at a strength, without drift. */
    public double interval(double strength) {
        double soft = 1 - Math.max(0, Math.min(1, strength));
        return b.frequencyRatio() / a.frequencyRatio() * Math.pow(2, velocityCents * soft / 1200);
    }

    @Override
    public RingRecipe withCommon(Common c) {
        return with(b -> b.common(c));
    }

    @Override
    public RingRecipe with(String id, double value) {
        return Recipe.changed(this, id, value);
    }

    @Override
    public RingRecipe played() {
        return Recipe.withMacros(this);
    }

    @Override
    public boolean inEffect(String id) {
        boolean measured = a.wave() == Oscillator.Wave.MEASURED || b.wave() == Oscillator.Wave.MEASURED;
        if (id.startsWith("harmonic.")) {
            return measured;
        }
        if (id.startsWith("product.")) {
            return ringDb > OFF_DB;
        }
        return id.startsWith("dry.") ? dryDb > OFF_DB : !id.startsWith("drift.") || driftCents > 0;
    }
}

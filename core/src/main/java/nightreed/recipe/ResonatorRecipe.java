package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.PartlyIdle;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.VelocityMap;

/**
 * A bank of decaying modes struck by a pulse, with the noise of the strike beside it.
 *
 * @param key          key whose sound the values describe, 0..127
 * @param tuningCents  offset of that key from A4 = 440 Hz [cents], -100 to 100
 * @param levelDb      amplitude of a mode of level 0 at the reference velocity [dBFS], -80 to 6
 * @param exciter      strike
 * @param riseMs       time in which the body answers; 0 in older files [ms]
 * @param modes        1 to {@link #MOST_MODES} modes
 * @param keyTracking  over the keyboard
 * @param velocity     over the dynamics
 * @param damperT60Seconds T60 of all modes after key-up [s], 0.01 to 100; a bar without dampers rings on
 * @param body         what resonates; null in older files, for modes
 * @param feed         a recording that drives the body with the strike, null for none
 * @param common       what every method can have
 */
@RecordBuilder
public record ResonatorRecipe(
        int key,

        @ParameterSpec(
                id = "tune",
                name = "tuning",
                unit = "cents",
                least = -100,
                most = 100,
                decimals = 1,
                group = Group.BODY,
                meaning = "Offset from the key at A4 = 440 Hz.")
        double tuningCents,

        @ParameterSpec(
                name = "level",
                unit = "dBFS",
                least = -80,
                most = 6,
                decimals = 1,
                group = Group.BODY,
                meaning = "Level of everything.")
        double levelDb,

        @ParameterSpec(
                name = "body",
                group = Group.BODY,
                neutral = 0,
                meaning = "What resonates: a mode for each ratio, or a tuned comb with harmonics of its own.")
        Body body,

        @Part(group = Group.EXCITER) Exciter exciter,

        @ParameterSpec(
                id = "rise",
                name = "rise",
                unit = "ms",
                most = 200,
                law = Law.ROOT,
                decimals = 1,
                group = Group.EXCITER,
                neutral = 0,
                meaning = "Time the body takes to answer the strike; 0 for at once.")
        double riseMs,

        @Part(id = "mode", name = "mode", group = Group.BODY, least = 1, most = ResonatorRecipe.MOST_MODES)
        List<Mode> modes,

        @Part(id = "track", group = Group.PLAYING) KeyTracking keyTracking,
        @Part(id = "velocity", group = Group.PLAYING) VelocityMap velocity,

        @ParameterSpec(
                id = "damper.t60",
                name = "damper T60",
                unit = "s",
                least = 0.01,
                most = 100,
                law = Law.LOGARITHMIC,
                group = Group.PLAYING,
                meaning = "Decay after the key is let go.")
        double damperT60Seconds,

        ExcitationSample feed,

        @ParameterSpec(
                id = "polarity",
                name = "comb polarity",
                group = Group.BODY,
                neutral = 0,
                meaning = "Inverted combs sound odd harmonics only, as a stopped pipe does. Modes have none.")
        Polarity polarity,

        @Part Common common)
        implements Recipe, ResonatorRecipeBuilder.With, PartlyIdle {
    public static final int MOST_MODES = 64;

    public ResonatorRecipe {
        modes = List.copyOf(modes);
        if (modes.isEmpty() || modes.size() > MOST_MODES) {
            throw new IllegalArgumentException(
                    "a resonator recipe has 1 to " + MOST_MODES + " modes, got " + modes.size());
        }
        body = body == null ? Body.MODES : body;
        polarity = polarity == null ? Polarity.STRAIGHT : polarity;
        common = common == null ? Common.NONE : common;
        velocity = velocity == null ? VelocityMap.USUAL : velocity;
        keyTracking = keyTracking == null ? KeyTracking.USUAL : keyTracking;
        if (exciter == null) {
            throw new IllegalArgumentException("a resonator recipe needs a strike");
        }
        Range.check("key", key, 0, 127, "");
        ParameterAccess.check(
                ResonatorRecipe.class,
                key,
                tuningCents,
                levelDb,
                body,
                exciter,
                riseMs,
                modes,
                keyTracking,
                velocity,
                damperT60Seconds,
                feed,
                polarity,
                common);
    }

    /** With straight combs, if any. */
    public ResonatorRecipe(
            int key,
            double tuningCents,
            double levelDb,
            Body body,
            Exciter exciter,
            double riseMs,
            List<Mode> modes,
            KeyTracking keyTracking,
            VelocityMap velocity,
            double damperT60Seconds,
            ExcitationSample feed,
            Common common) {
        this(
                key,
                tuningCents,
                levelDb,
                body,
                exciter,
                riseMs,
                modes,
                keyTracking,
                velocity,
                damperT60Seconds,
                feed,
                Polarity.STRAIGHT,
                common);
    }

    /** A struck bank of modes and nothing else. */
    public ResonatorRecipe(
            int key,
            double tuningCents,
            double levelDb,
            Exciter exciter,
            List<Mode> modes,
            KeyTracking keyTracking,
            VelocityMap velocity,
            double damperT60Seconds) {
        this(
                key,
                tuningCents,
                levelDb,
                Body.MODES,
                exciter,
                0,
                modes,
                keyTracking,
                velocity,
                damperT60Seconds,
                null,
                Common.NONE);
    }

    @Override
    public String method() {
        return "resonators";
    }

    /** What resonates. */
    public enum Body {
        /** A mode for each ratio. */
        MODES,
        /** A tuned comb for each ratio, with all harmonics of its own. */
        COMBS
    }

    /** What a comb makes of its own sound each time round. */
    public enum Polarity {
        /** All harmonics. */
        STRAIGHT,
        /** Turned over: odd harmonics only. */
        INVERTED,
        /** The first straight, the second inverted, and so on. */
        ALTERNATING
    }

    /** Whether a comb, from 0, is turned over each time round. */
    public boolean isInverted(int comb) {
        return polarity == Polarity.INVERTED || polarity == Polarity.ALTERNATING && comb % 2 == 1;
    }

    /** The same sound, described as belonging to another key: the tuning takes up what lies between, or the ratios do. */
    public ResonatorRecipe onKey(int newKey) {
        double cents = tuningCents + 100 * (key - newKey);
        boolean near = Math.abs(cents) <= 100;
        double factor = Math.pow(2, (key - newKey) / 12.0);
        List<Mode> moved = near
                ? modes
                : modes.stream().map(m -> m.withRatio(m.ratio() * factor)).toList();
        return with(b -> b.key(newKey).tuningCents(near ? cents : tuningCents).modes(moved));
    }

    @Override
    public ResonatorRecipe withCommon(Common c) {
        return with(b -> b.common(c));
    }

    @Override
    public ResonatorRecipe with(String id, double value) {
        return Recipe.changed(this, id, value);
    }

    @Override
    public ResonatorRecipe played() {
        return Recipe.withMacros(this);
    }

    @Override
    public boolean inEffect(String id) {
        return !id.equals("polarity") || body == Body.COMBS;
    }
}

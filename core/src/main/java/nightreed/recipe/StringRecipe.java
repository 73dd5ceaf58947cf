package nightreed.recipe;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.Macro;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.part.ParameterSpec;
import nightreed.recipe.part.Part;
import nightreed.recipe.part.PartlyIdle;
import nightreed.recipe.part.Range;
import nightreed.recipe.part.VelocityMap;

/**
 * A delay loop tuned to the key (K. Karplus, A. Strong; D. A. Jaffe, J. O. Smith, Computer Music Journal 7(2), 1983), driven
 * by a burst, a pulse or a bow.
 *
 * @param drive       what sets it going
 * @param exciter     pulse and burst
 * @param bow         the bow; null for the usual one, if it is bowed
 * @param loss        how the loop loses
 * @param second      a second loop beside the first, null for none
 * @param gainEnvelope what moves the decay while the key is held, null for none
 * @param amplitude   level over time, null if it only dies by itself
 */
@RecordBuilder
public record StringRecipe(
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

        @ParameterSpec(
                id = "drive",
                name = "drive",
                group = Group.EXCITER,
                neutral = 0,
                meaning = "What sets the string going.")
        Drive drive,

        @Part(group = Group.EXCITER) Exciter exciter,

        @Part(id = "bow", name = "bow", group = Group.EXCITER)
        Bow bow,

        @Part(id = "loss", group = Group.BODY) LoopLoss loss,

        @ParameterSpec(
                id = "stiffness",
                name = "stiffness B",
                most = 0.02,
                law = Law.ROOT,
                decimals = 6,
                group = Group.BODY,
                neutral = 0,
                meaning = "Stretches the upper partials: n·sqrt(1 + B·n²).")
        double stiffness,

        @ParameterSpec(
                id = "pluck",
                name = "pluck point",
                most = 0.5,
                decimals = 3,
                group = Group.EXCITER,
                neutral = 0,
                meaning = "Where it is plucked, as a share of its length; 0 leaves no partial out.")
        double pluckPoint,

        @ParameterSpec(
                id = "inverted",
                name = "inverted loop",
                group = Group.BODY,
                neutral = 0,
                meaning = "On: odd partials only, as in a closed pipe.")
        boolean inverted,

        @Part(id = "second", name = "second string", group = Group.BODY)
        SecondString second,

        @ParameterSpec(
                id = "gain.depth",
                name = "decay envelope",
                unit = "oct",
                least = -6,
                most = 6,
                group = Group.SHAPING,
                neutral = 0,
                meaning = "How far its envelope moves the decay.")
        double gainOctaves,

        @Part(id = "gain", name = "decay", group = Group.SHAPING)
        Envelope gainEnvelope,

        @Part(id = "amp", name = "level", group = Group.SHAPING)
        Envelope amplitude,

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

        @Part(id = "track", group = Group.PLAYING) KeyTracking keyTracking,
        @Part(id = "velocity", group = Group.PLAYING) VelocityMap velocity,
        @Part Common common)
        implements Recipe, StringRecipeBuilder.With, PartlyIdle {
    /** What sets a string going. */
    public enum Drive {
        /** Noise of the exciter, which is what the string is filled with. */
        BURST,
        /** The exciter's contact pulse, and its noise beside it. */
        PULSE,
        /** Noise that swells and falls with each stroke of the bow. */
        ZIGZAG,
        /** A bow that sticks and slips. */
        FRICTION
    }

    public StringRecipe {
        common = common == null ? Common.NONE : common;
        velocity = velocity == null ? VelocityMap.USUAL : velocity;
        keyTracking = keyTracking == null ? KeyTracking.USUAL : keyTracking;
        exciter = exciter == null ? Exciter.USUAL : exciter;
        if (loss == null) {
            throw new IllegalArgumentException("a string needs its loss");
        }
        Range.check("key", key, 0, 127, "");
        ParameterAccess.check(
                StringRecipe.class,
                key,
                tuningCents,
                levelDb,
                drive,
                exciter,
                bow,
                loss,
                stiffness,
                pluckPoint,
                inverted,
                second,
                gainOctaves,
                gainEnvelope,
                amplitude,
                damperT60Seconds);
    }

    /** A plucked string and nothing else. */
    public StringRecipe(
            int key,
            double tuningCents,
            double levelDb,
            Drive drive,
            Exciter exciter,
            LoopLoss loss,
            double pluckPoint) {
        this(
                key,
                tuningCents,
                levelDb,
                drive,
                exciter,
                null,
                loss,
                0,
                pluckPoint,
                false,
                null,
                0,
                null,
                null,
                0.1,
                KeyTracking.USUAL,
                VelocityMap.USUAL,
                Common.NONE);
    }

    /**
     * Under a bow of zigzag noise, with a macro "pluck to bow" that goes from a plucked string at 0 to a bowed one at 1, where
     * it stands. The body stays as it is.
     */
    public StringRecipe pluckToBow() {
        Bow b = bow == null ? Bow.USUAL : bow;
        List<Macro> macros = new ArrayList<>(common.macros());
        macros.add(new Macro(
                "pluck to bow",
                1,
                List.of(
                        new Macro.Aim("bow.pluck", 1, 0, 0),
                        new Macro.Aim(
                                "bow.noise", -80, b.noiseDb(), -0.6)))); // early, or it would be heard at the end only
        return with(r -> r.drive(Drive.ZIGZAG).bow(b).common(common.withMacros(macros)));
    }

    /** With a macro "soft to hard" that shortens the contact and brightens its noise; where it stands nothing changes. */
    public StringRecipe softToHard() {
        List<Macro> macros = new ArrayList<>(common.macros());
        macros.add(new Macro(
                "soft to hard",
                0.5,
                List.of(
                        new Macro.Aim(
                                "exciter.contact", Math.min(20, 4 * exciter.contactMs()), exciter.contactMs() / 4, 0),
                        new Macro.Aim(
                                "noise.high",
                                Math.max(50, exciter.noiseHighHz() / 3),
                                Math.min(20_000, exciter.noiseHighHz() * 3),
                                0))));
        return with(r -> r.common(common.withMacros(macros)));
    }

    @Override
    public String method() {
        return "string";
    }

    @Override
    public StringRecipe withCommon(Common c) {
        return with(b -> b.common(c));
    }

    @Override
    public StringRecipe with(String id, double value) {
        return Recipe.changed(this, id, value);
    }

    @Override
    public StringRecipe played() {
        return Recipe.withMacros(this);
    }

    @Override
    public boolean inEffect(String id) {
        return id.startsWith("bow.")
                ? drive == Drive.ZIGZAG || drive == Drive.FRICTION
                : !id.startsWith("gain.") || id.equals("gain.depth") || gainOctaves != 0;
    }
}

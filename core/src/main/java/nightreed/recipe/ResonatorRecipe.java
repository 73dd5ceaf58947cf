package nightreed.recipe;

import java.util.ArrayList;
import java.util.List;
import nightreed.music.Pitch;
import nightreed.recipe.Parameter.Group;
import nightreed.recipe.Parameter.Law;

/**
 * A bank of decaying modes struck by a pulse, with the noise of the strike beside it.
 *
 * @param key          key whose sound the values describe, 0..127
 * @param tuningCents  offset of that key from A4 = 440 Hz [cents], -100 to 100
 * @param levelDb      amplitude of a mode of level 0 at the reference velocity [dBFS], -80 to 6
 * @param exciter      strike
 * @param modes        1 to {@link #MOST_MODES} modes
 * @param keyTracking  over the keyboard
 * @param velocity     over the dynamics
 * @param damperT60    T60 of all modes after key-up [s], 0.01 to 100; a bar without dampers rings on
 */
public record ResonatorRecipe(
        int key,
        double tuningCents,
        double levelDb,
        Exciter exciter,
        List<Mode> modes,
        KeyTracking keyTracking,
        VelocityMap velocity,
        double damperT60)
        implements Recipe {
    public static final int MOST_MODES = 64;

    public ResonatorRecipe {
        modes = List.copyOf(modes);
        if (modes.isEmpty() || modes.size() > MOST_MODES) {
            throw new IllegalArgumentException(
                    "a resonator recipe has 1 to " + MOST_MODES + " modes, got " + modes.size());
        }
        Exciter.check("key", key, 0, 127, "");
        Exciter.check("tuning", tuningCents, -100, 100, "cents");
        Exciter.check("level", levelDb, -80, 6, "dBFS");
        Exciter.check("damper T60", damperT60, 0.01, 100, "s");
    }

    @Override
    public String method() {
        return "resonators";
    }

    /** Frequency of ratio 1 on the recipe's own key [Hz]. */
    public double f0Hz() {
        return Pitch.hz(key + tuningCents / 100);
    }

    /** The same sound, described as belonging to another key: the tuning takes up what lies between, or the ratios do. */
    public ResonatorRecipe onKey(int newKey) {
        double cents = tuningCents + 100 * (key - newKey);
        if (Math.abs(cents) <= 100) {
            return new ResonatorRecipe(newKey, cents, levelDb, exciter, modes, keyTracking, velocity, damperT60);
        }
        double factor = Math.pow(2, (key - newKey) / 12.0);
        List<Mode> moved =
                modes.stream().map(m -> m.withRatio(m.ratio() * factor)).toList();
        return new ResonatorRecipe(newKey, tuningCents, levelDb, exciter, moved, keyTracking, velocity, damperT60);
    }

    public ResonatorRecipe withModes(List<Mode> m) {
        return new ResonatorRecipe(key, tuningCents, levelDb, exciter, m, keyTracking, velocity, damperT60);
    }

    public ResonatorRecipe withExciter(Exciter e) {
        return new ResonatorRecipe(key, tuningCents, levelDb, e, modes, keyTracking, velocity, damperT60);
    }

    public ResonatorRecipe withLevelDb(double db) {
        return new ResonatorRecipe(key, tuningCents, db, exciter, modes, keyTracking, velocity, damperT60);
    }

    @Override
    public List<Setting> settings() {
        List<Setting> out = new ArrayList<>();
        for (Field f : Field.values()) {
            if (f.parameter.group() != Group.PLAYING) {
                out.add(new Setting(f.parameter, f.get.of(this)));
            }
        }
        for (int i = 0; i < modes.size(); i++) {
            Mode m = modes.get(i);
            out.add(new Setting(modeParameter(i, "ratio"), m.ratio()));
            out.add(new Setting(modeParameter(i, "level"), m.levelDb()));
            out.add(new Setting(modeParameter(i, "t60"), m.t60Seconds()));
        }
        for (Field f : Field.values()) {
            if (f.parameter.group() == Group.PLAYING) {
                out.add(new Setting(f.parameter, f.get.of(this)));
            }
        }
        return out;
    }

    private static Parameter modeParameter(int index, String what) {
        String id = "mode." + (index + 1) + "." + what;
        String mode = "mode " + (index + 1);
        return switch (what) {
            case "ratio" ->
                new Parameter(
                        id,
                        Group.SOURCE,
                        mode + " ratio",
                        "×",
                        0.1,
                        100,
                        Law.LOGARITHMIC,
                        4,
                        "Frequency of this mode over that of the key.");
            case "level" ->
                new Parameter(
                        id,
                        Group.SOURCE,
                        mode + " level",
                        "dB",
                        -80,
                        6,
                        Law.LINEAR,
                        1,
                        "How loud this mode is struck.");
            default ->
                new Parameter(
                        id,
                        Group.SOURCE,
                        mode + " T60",
                        "s",
                        0.005,
                        30,
                        Law.LOGARITHMIC,
                        3,
                        "Time this mode takes to fall by 60 dB.");
        };
    }

    @Override
    public ResonatorRecipe with(String id, double value) {
        for (Field f : Field.values()) {
            if (f.parameter.id().equals(id)) {
                return f.set.on(this, f.parameter.clamp(value));
            }
        }
        String[] part = id.split("\\.", -1);
        if (part.length == 3 && part[0].equals("mode") && part[1].matches("\\d{1,3}")) {
            int i = Integer.parseInt(part[1]) - 1;
            if (i >= 0 && i < modes.size() && List.of("ratio", "level", "t60").contains(part[2])) {
                double v = modeParameter(i, part[2]).clamp(value);
                Mode m = modes.get(i);
                List<Mode> changed = new ArrayList<>(modes);
                changed.set(
                        i,
                        switch (part[2]) {
                            case "ratio" -> m.withRatio(v);
                            case "level" -> m.withLevelDb(v);
                            default -> m.withT60Seconds(v);
                        });
                return withModes(changed);
            }
        }
        throw new IllegalArgumentException("there is no value '" + id + "' in a recipe of " + method());
    }

    private interface Get {
        double of(ResonatorRecipe r);
    }

    private interface Set {
        ResonatorRecipe on(ResonatorRecipe r, double v);
    }

    /** The values that do not belong to a mode. */
    private enum Field {
        CONTACT(
                "exciter.contact",
                Group.EXCITER,
                "contact",
                "ms",
                0.02,
                20,
                Law.LOGARITHMIC,
                2,
                "How long the mallet touches: longer is a slower, rounder start.",
                r -> r.exciter.contactMs(),
                (r, v) -> r.withExciter(new Exciter(
                        v,
                        r.exciter.noiseDb(),
                        r.exciter.noiseT60Ms(),
                        r.exciter.noiseLowHz(),
                        r.exciter.noiseHighHz()))),
        NOISE_LEVEL(
                "noise.level",
                Group.EXCITER,
                "noise level",
                "dB",
                -100,
                24,
                Law.LINEAR,
                1,
                "Noise of the contact, at its start.",
                r -> r.exciter.noiseDb(),
                (r, v) -> r.withExciter(new Exciter(
                        r.exciter.contactMs(),
                        v,
                        r.exciter.noiseT60Ms(),
                        r.exciter.noiseLowHz(),
                        r.exciter.noiseHighHz()))),
        NOISE_T60(
                "noise.t60",
                Group.EXCITER,
                "noise T60",
                "ms",
                1,
                2000,
                Law.LOGARITHMIC,
                1,
                "Time the noise takes to fall by 60 dB.",
                r -> r.exciter.noiseT60Ms(),
                (r, v) -> r.withExciter(new Exciter(
                        r.exciter.contactMs(),
                        r.exciter.noiseDb(),
                        v,
                        r.exciter.noiseLowHz(),
                        r.exciter.noiseHighHz()))),
        NOISE_LOW(
                "noise.low",
                Group.EXCITER,
                "noise low cut",
                "Hz",
                20,
                10_000,
                Law.LOGARITHMIC,
                0,
                "Takes the thud out of the noise.",
                r -> r.exciter.noiseLowHz(),
                (r, v) -> r.withExciter(new Exciter(
                        r.exciter.contactMs(),
                        r.exciter.noiseDb(),
                        r.exciter.noiseT60Ms(),
                        v,
                        r.exciter.noiseHighHz()))),
        NOISE_HIGH(
                "noise.high",
                Group.EXCITER,
                "noise high cut",
                "Hz",
                50,
                20_000,
                Law.LOGARITHMIC,
                0,
                "Takes the hiss out of the noise.",
                r -> r.exciter.noiseHighHz(),
                (r, v) -> r.withExciter(new Exciter(
                        r.exciter.contactMs(),
                        r.exciter.noiseDb(),
                        r.exciter.noiseT60Ms(),
                        r.exciter.noiseLowHz(),
                        v))),
        TUNING(
                "tune",
                Group.SOURCE,
                "tuning",
                "cents",
                -100,
                100,
                Law.LINEAR,
                1,
                "Offset from the key at A4 = 440 Hz.",
                r -> r.tuningCents,
                (r, v) -> new ResonatorRecipe(
                        r.key, v, r.levelDb, r.exciter, r.modes, r.keyTracking, r.velocity, r.damperT60)),
        LEVEL(
                "level",
                Group.SOURCE,
                "level",
                "dBFS",
                -80,
                6,
                Law.LINEAR,
                1,
                "Level of everything.",
                r -> r.levelDb,
                ResonatorRecipe::withLevelDb),
        DECAY_TRACKING(
                "track.decay",
                Group.PLAYING,
                "key to decay",
                "",
                0,
                3,
                Law.LINEAR,
                2,
                "0 keeps the decay on all keys; 1 halves it an octave higher.",
                r -> r.keyTracking.decayPower(),
                (r, v) -> new ResonatorRecipe(
                        r.key,
                        r.tuningCents,
                        r.levelDb,
                        r.exciter,
                        r.modes,
                        new KeyTracking(v, r.keyTracking.exciterShare()),
                        r.velocity,
                        r.damperT60)),
        STRIKE_TRACKING(
                "track.strike",
                Group.PLAYING,
                "key to strike",
                "",
                0,
                1,
                Law.LINEAR,
                2,
                "How far contact and noise follow the key.",
                r -> r.keyTracking.exciterShare(),
                (r, v) -> new ResonatorRecipe(
                        r.key,
                        r.tuningCents,
                        r.levelDb,
                        r.exciter,
                        r.modes,
                        new KeyTracking(r.keyTracking.decayPower(), v),
                        r.velocity,
                        r.damperT60)),
        VELOCITY_LEVEL(
                "velocity.level",
                Group.PLAYING,
                "velocity to level",
                "dB",
                0,
                60,
                Law.LINEAR,
                1,
                "Level between the softest and the hardest strike.",
                r -> r.velocity.levelDb(),
                (r, v) -> new ResonatorRecipe(
                        r.key,
                        r.tuningCents,
                        r.levelDb,
                        r.exciter,
                        r.modes,
                        r.keyTracking,
                        new VelocityMap(r.velocity.reference(), v, r.velocity.hardness()),
                        r.damperT60)),
        VELOCITY_HARDNESS(
                "velocity.hardness",
                Group.PLAYING,
                "velocity to strike",
                "oct",
                0,
                4,
                Law.LINEAR,
                2,
                "How much brighter a hard strike is: octaves the contact shortens.",
                r -> r.velocity.hardness(),
                (r, v) -> new ResonatorRecipe(
                        r.key,
                        r.tuningCents,
                        r.levelDb,
                        r.exciter,
                        r.modes,
                        r.keyTracking,
                        new VelocityMap(r.velocity.reference(), r.velocity.levelDb(), v),
                        r.damperT60)),
        DAMPER(
                "damper.t60",
                Group.PLAYING,
                "damper T60",
                "s",
                0.01,
                100,
                Law.LOGARITHMIC,
                2,
                "Decay after the key is let go.",
                r -> r.damperT60,
                (r, v) -> new ResonatorRecipe(
                        r.key, r.tuningCents, r.levelDb, r.exciter, r.modes, r.keyTracking, r.velocity, v));

        private final Parameter parameter;
        private final Get get;
        private final Set set;

        Field(
                String id,
                Group group,
                String name,
                String unit,
                double least,
                double most,
                Law law,
                int decimals,
                String meaning,
                Get get,
                Set set) {
            this.parameter = new Parameter(id, group, name, unit, least, most, law, decimals, meaning);
            this.get = get;
            this.set = set;
        }
    }
}

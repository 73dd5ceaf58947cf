package nightreed.match.start;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.JndThresholds;
import nightreed.recipe.Recipe;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Parameter;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.ParameterAccess;
import nightreed.recipe.size.EqualValues;
import nightreed.recipe.size.FreeValue;
import nightreed.sound.UnusableSound;

/**
 * One way to make a sound, with all that fits, advice and reports need to know of it. Nothing outside of its subclasses asks which
 * method a recipe is of. Stateless.
 */
public abstract class Method {
    /** Each aspect of a comparison counts as much as the others. */
    protected static final double ASPECTS = Aspect.values().length;

    /**
     * What a search may spend on a method whose values are few and hardly known, in seconds of the plainest sound. Twice as much brought eight
     * recorded notes nearer by 1 to 2 % in the median (ring, subtractive).
     */
    private static final double AMOUNT = 1350;

    private final String id;
    private final Class<? extends Recipe> type;

    /** @param id name in files, on the command line and in {@link Recipe#method} */
    protected Method(String id, Class<? extends Recipe> type) {
        this.id = id;
        this.type = type;
    }

    public final String id() {
        return id;
    }

    /** Class of its recipes. */
    public final Class<? extends Recipe> type() {
        return type;
    }

    /** Whether there is nothing to begin with unless a pitch was measured. */
    public boolean needsPitch() {
        return true;
    }

    /** The likeliest starting values; tells the context where each came from. */
    public abstract Recipe start(StartContext g) throws UnusableSound;

    /** A recipe that is there in a tenth of a second. */
    public Recipe instant(StartContext g) throws UnusableSound {
        return start(g);
    }

    /**
     * Several starting values for a search, the likeliest first; at least one.
     *
     * @param brief whether only those that take some tenths of a second to compute
     */
    public abstract List<? extends Recipe> starts(StartContext g, boolean brief) throws UnusableSound;

    /** Whether some starts take seconds to compute. */
    public boolean hasDearStarts() {
        return false;
    }

    /** Whether starts of such a note are computed so well that the nearest is refined before anything is looked for further off. */
    public boolean computesStarts(boolean held) {
        return false;
    }

    /** Whether frequencies of computed starts of such a note stay: lines that beat slowly are known better than a search hears. */
    public boolean keepsFrequencies(boolean held) {
        return false;
    }

    /** Share of the amount that a search does without where a computed start is near: it has been refined already. */
    public double savedByNearStart() {
        return 0;
    }

    /** Whether its values are so few, and so little known, that a search looks far around. */
    public boolean isOpen() {
        return true;
    }

    /** Whether starts are tried again with the strike noise that their tones leave. */
    public boolean triesStrikeNoise() {
        return isOpen();
    }

    /** What a search may spend, in seconds of the plainest sound. */
    public double amount(boolean held) {
        return AMOUNT;
    }

    /** What a second of a recipe costs to render, in seconds of the plainest sound; measured. @param fs sample rate [Hz] */
    public abstract double costPerSecond(Recipe recipe, double fs);

    /** Values that are moved together, stage by stage; at least one stage. */
    public List<List<String>> stages(Recipe recipe) {
        List<String> all = searched(recipe);
        return List.of(all.stream().filter(v -> !isMinor(v)).toList(), all);
    }

    /** What a search moves of the values with these ids: each by itself, or several that have to stay alike. */
    public List<FreeValue> together(Recipe recipe, List<String> ids) {
        List<FreeValue> out = new ArrayList<>();
        for (Recipe.Setting s : recipe.settings()) {
            if (ids.contains(s.parameter().id())) {
                out.add(EqualValues.one(s.parameter()));
            }
        }
        return out;
    }

    /** The recipe without what no hand can set, such as phases that were measured. */
    public Recipe settable(Recipe recipe) {
        return recipe;
    }

    /** Values that advice is given for. */
    public List<String> advised(Recipe recipe) {
        return searched(recipe);
    }

    /** Values that are believed as measured, by id. */
    public Map<String, Anchor> anchors(Recipe recipe) {
        Map<String, Anchor> out = new LinkedHashMap<>();
        if (believesStrikeNoise()) {
            recipe.settings().stream()
                    .filter(s -> s.parameter().id().equals("noise.t60"))
                    .forEach(s -> out.put(
                            "noise.t60",
                            new Anchor(
                                    s.value(),
                                    true,
                                    Math.log(JndThresholds.USUAL.decayLonger()),
                                    0.5 * Math.sqrt(1.0 / ASPECTS))));
        }
        return out;
    }

    /** Whether the decay of the strike noise, which the tones mask, is believed as measured. */
    protected boolean believesStrikeNoise() {
        return true;
    }

    /** Level of noise between the harmonics, which a search cannot hear. */
    protected static Anchor noise(double db) {
        return new Anchor(db, false, JndThresholds.USUAL.noiseDb(), Math.sqrt(1.0 / ASPECTS));
    }

    /** What a synthesizer needs for a recipe, in words; envelopes that are alike count once. */
    public String needs(Recipe recipe) {
        return many(
                        sines(recipe)
                                + ParameterAccess.parts((Record) recipe, Oscillator.class)
                                        .size(),
                        "oscillator")
                + ", " + envelopes(recipe);
    }

    /** Sines beside the oscillators that a recipe lists. */
    protected int sines(Recipe recipe) {
        return 0;
    }

    protected static String envelopes(Recipe recipe) {
        long different = ParameterAccess.parts((Record) recipe, Envelope.class).stream()
                .map(ParameterAccess.Found::part)
                .distinct()
                .count();
        return many((int) different, "envelope");
    }

    protected static String many(int n, String what) {
        return n + " " + what + (n == 1 ? "" : "s");
    }

    /** Why partials cannot be nearer, in one sentence. */
    public String whyPartials() {
        return "One wave and one filter set all of them.";
    }

    /** Why decays cannot be nearer, in one sentence. */
    public String whyDecays() {
        return "Partials share envelopes here; the recording's each die at their own pace.";
    }

    /** Why the brightness cannot be nearer, in one sentence. */
    public String whyBrightness() {
        return "One envelope moves the brightness; the recording's path has more turns.";
    }

    /** Every number that the sound of one note can tell. */
    public static List<String> searched(Recipe recipe) {
        List<String> out = new ArrayList<>();
        for (Recipe.Setting s : recipe.settings()) {
            Parameter p = s.parameter();
            boolean number = p.law() != Parameter.Law.CHOICE;
            boolean told = p.group() != Group.PLAYING && p.group() != Group.SPACE && !p.id().equals("level");
            boolean moving = p.id().startsWith("lfo.") || p.id().startsWith("route.");
            boolean harmonic = p.id().startsWith("harmonic."); // as measured
            boolean driven = p.id().endsWith(".drive") && s.value() == 0; // a bent wave takes eight times as long
            boolean fixed = harmonic
                    || driven
                    || moving
                    || p.id().endsWith("pan")
                    || p.id().endsWith("drift")
                    || p.id().endsWith("imperfection");
            if (number && told && !fixed) {
                out.add(p.id());
            }
        }
        return out;
    }

    /** Details of an envelope that a search need not know before it has found the envelope. */
    private static boolean isMinor(String id) {
        return id.endsWith(".delay")
                || id.endsWith(".attackCurve")
                || id.endsWith(".hold")
                || id.endsWith(".fallCurve")
                || id.endsWith(".release");
    }
}

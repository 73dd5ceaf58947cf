package nightreed.recipe.part;

import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;

/** How keys become notes. */
public record Keyboard(
        @ParameterSpec(
                name = "notes",
                group = Group.PLAYING,
                meaning = "Many at once; one at a time; or one that only starts anew after a gap.")
        Voicing voicing,

        @ParameterSpec(
                name = "glide",
                unit = "ms",
                most = 5000,
                law = Law.ROOT,
                decimals = 0,
                group = Group.PLAYING,
                meaning = "Time from one pitch to the next, in one-note modes.")
        double glideMs,

        @ParameterSpec(
                name = "bend range",
                unit = "semitones",
                most = 24,
                decimals = 0,
                group = Group.PLAYING,
                meaning = "How far the pitch wheel reaches.")
        double bendSemitones,

        @ParameterSpec(
                id = "glide.by",
                name = "glide by",
                group = Group.PLAYING,
                meaning = "Time: each way takes as long. Rate: the time is that of an octave.")
        GlideBy glideBy) {
    public static final Keyboard USUAL = new Keyboard(Voicing.MANY, 0, 2);

    /** How many notes sound. */
    public enum Voicing {
        MANY,
        /** Each key starts the note anew. */
        ONE,
        /** A key that is pressed while another is down only moves the pitch. */
        ONE_BOUND
    }

    /** What the glide's time is of. */
    public enum GlideBy {
        TIME,
        RATE
    }

    public Keyboard {
        glideBy = glideBy == null ? GlideBy.TIME : glideBy;
        ParameterAccess.check(Keyboard.class, voicing, glideMs, bendSemitones, glideBy);
    }

    /** With a glide that takes as long whatever the way. */
    public Keyboard(Voicing voicing, double glideMs, double bendSemitones) {
        this(voicing, glideMs, bendSemitones, GlideBy.TIME);
    }
}

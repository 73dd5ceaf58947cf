package nightreed.recipe.part;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.recipe.part.Parameter.Group;
import nightreed.recipe.part.Parameter.Law;

/**
 * What every method can have besides its own: movement, filters before and after, effects, ways of playing, macros.
 *
 * @param before   filter between what drives the body and the body; null for none
 * @param after    filter behind the body; null for none
 * @param first    first LFO, null for none
 * @param second   second LFO, null for none
 * @param envelope envelope for the routes, null for none
 * @param routes   what moves what, up to {@link #MOST_ROUTES}
 * @param effects  never null
 * @param keyboard null for the usual one
 * @param macros   up to 8
 * @param playingGainDb gain that brings the recipe from the level of its recording to that of all playing, null until it has been found [dB]
 */
@RecordBuilder
public record Common(
        @ParameterSpec(
                id = "tempo",
                name = "tempo",
                unit = "bpm",
                least = 20,
                most = 300,
                law = Law.LOGARITHMIC,
                decimals = 1,
                group = Group.PLAYING,
                meaning = "Quarters a minute, for rates and delays in note values.")
        double tempoBpm,

        @ParameterSpec(name = "pan", least = -1, group = Group.SPACE, neutral = 0, meaning = "-1 left, 1 right.")
        double pan,

        @Part(id = "before", name = "filter before", group = Group.EXCITER)
        Filter before,

        @Part(id = "after", name = "filter after", group = Group.SHAPING)
        Filter after,

        @Part(id = "lfo.1", name = "LFO 1", group = Group.MOVEMENT)
        Lfo first,

        @Part(id = "lfo.2", name = "LFO 2", group = Group.MOVEMENT)
        Lfo second,

        @Part(id = "movement", name = "movement", group = Group.MOVEMENT)
        Envelope envelope,

        @Part(id = "route", name = "route", group = Group.MOVEMENT, most = Common.MOST_ROUTES)
        List<Route> routes,

        @Part Effects effects,
        @Part(id = "keys", group = Group.PLAYING) Keyboard keyboard,

        @Part(id = "macro", name = "macro", group = Group.PLAYING, most = Common.MOST_MACROS)
        List<Macro> macros,

        Double playingGainDb)
        implements CommonBuilder.With, PartlyIdle {
    public static final int MOST_ROUTES = 16;
    public static final int MOST_MACROS = 8;
    public static final Common NONE =
            new Common(120, 0, null, null, null, null, null, List.of(), Effects.NONE, null, List.of(), null);

    public Common {
        routes = routes == null ? List.of() : List.copyOf(routes);
        macros = macros == null ? List.of() : List.copyOf(macros);
        effects = effects == null ? Effects.NONE : effects;
        ParameterAccess.check(Common.class, tempoBpm, pan);
        if (playingGainDb != null) {
            Range.check("playing gain", playingGainDb, -120, 120, "dB");
        }
        if (routes.size() > MOST_ROUTES || macros.size() > MOST_MACROS) {
            throw new IllegalArgumentException("a recipe has up to " + MOST_ROUTES + " routes and " + MOST_MACROS
                    + " macros, got " + routes.size() + " and " + macros.size());
        }
    }

    /** The keyboard, the usual one if none is set. */
    public Keyboard keys() {
        return keyboard == null ? Keyboard.USUAL : keyboard;
    }

    @Override
    public boolean inEffect(String id) {
        return id.startsWith("lfo.1.")
                ? isUsed(Route.Source.LFO_1)
                : id.startsWith("lfo.2.")
                        ? isUsed(Route.Source.LFO_2)
                        : !id.startsWith("movement.") || isUsed(Route.Source.ENVELOPE);
    }

    private boolean isUsed(Route.Source source) {
        return routes.stream().anyMatch(r -> r.source() == source && r.depth() != 0);
    }
}

package nightreed.match.frontier;

import nightreed.match.hearing.Use;

/**
 * Which point of a frontier is asked for.
 *
 * @param use  what it is for, if nothing else is said
 * @param size values it may have at the most; null for as many as the use takes
 * @param jnd  distance it may have at the most [JND]; null for what the use allows
 */
public record Wanted(Use use, Integer size, Double jnd) {
    /** To be heard by itself. */
    public static final Wanted USUAL = new Wanted(Use.ALONE, null, null);

    /** As near as can be, however many values it takes. */
    public static final Wanted NEAREST = new Wanted(Use.ALONE, null, 0.0);

    /** The nearest that is simple enough, the simplest that is near enough, or what suits the use. */
    public Frontier.Point of(Frontier frontier) {
        if (size != null) {
            return frontier.atMost(size);
        }
        return jnd != null ? frontier.within(jnd) : frontier.recommended(use);
    }
}

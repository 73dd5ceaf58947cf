package nightreed.match.hearing;

/**
 * Who listens: the thresholds of an ear, and where it has overruled them for one sound.
 *
 * @param hearing thresholds that differences are counted in
 * @param marks   weights of the aspects
 */
public record ListenerProfile(JndThresholds hearing, AspectWeights marks) {
    /** Textbook thresholds, nothing overruled. */
    public static final ListenerProfile USUAL = new ListenerProfile(JndThresholds.USUAL, AspectWeights.NONE);

    /** To a target that is only typical of its family. */
    public ListenerProfile toTypical() {
        return new ListenerProfile(hearing.forTypical(), marks);
    }
}

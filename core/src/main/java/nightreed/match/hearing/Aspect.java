package nightreed.match.hearing;

/** What two sounds are compared in. */
public enum Aspect {
    PITCH("pitch", "pitch"),
    PARTIALS("partials", "partials"),
    DECAYS("decays", "decays"),
    ATTACK("attack", "attack"),
    NOISE("noise", "noise at the start"),
    BRIGHTNESS("brightness", "brightness"),
    LOUDNESS("loudness", "loudness"),
    MOVEMENT("movement", "movement");

    private final String id;
    private final String title;

    Aspect(String id, String title) {
        this.id = id;
        this.title = title;
    }

    /** Name in files. */
    public String id() {
        return id;
    }

    /** Name for people. */
    public String title() {
        return title;
    }
}

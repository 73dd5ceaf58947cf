package nightreed.match.hearing;

/** What an imitation is for: how far it may be off. */
public enum Use {
    /** Heard by itself. */
    ALONE("alone", 1),
    /** Heard among other instruments, which hide much of what is off. */
    AMONG_OTHERS("among others", 2),
    /** Hardly listened to. */
    BACKGROUND("in the background", 4);

    private final String title;
    private final double mostJnd;

    Use(String title, double mostJnd) {
        this.title = title;
        this.mostJnd = mostJnd;
    }

    public String title() {
        return title;
    }

    /** Largest total at which it is good enough [JND]. */
    public double mostJnd() {
        return mostJnd;
    }
}

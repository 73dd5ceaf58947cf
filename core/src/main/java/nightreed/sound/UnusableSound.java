package nightreed.sound;

/**
 * A recording that cannot be used, for a reason its owner can mend. The message says what, where and what to do, in one
 * line, and is shown as it stands.
 */
public final class UnusableSound extends Exception {
    private static final long serialVersionUID = 1;

    public UnusableSound(String message) {
        super(message);
    }

    public UnusableSound(String message, Throwable cause) {
        super(message, cause);
    }
}

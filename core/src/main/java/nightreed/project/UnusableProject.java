package nightreed.project;

/** A project file that cannot be opened or written; the message says what, where and what to do, in one line. */
public final class UnusableProject extends Exception {
    private static final long serialVersionUID = 1;

    public UnusableProject(String message) {
        super(message);
    }

    public UnusableProject(String message, Throwable cause) {
        super(message, cause);
    }
}

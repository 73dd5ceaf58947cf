package nightreed.recipe;

/** A recipe file that cannot be used; the message says where and what to do, in one line. */
public final class UnusableRecipe extends Exception {
    private static final long serialVersionUID = 1;

    public UnusableRecipe(String message, Throwable cause) {
        super(message, cause);
    }

    public UnusableRecipe(String message) {
        super(message);
    }
}

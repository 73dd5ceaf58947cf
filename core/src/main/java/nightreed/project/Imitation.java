package nightreed.project;

/**
 * One imitation of a project.
 *
 * @param id   row
 * @param name what it is called
 * @param of   the opening of the project that it comes from; another project has rows of the same numbers
 */
public record Imitation(long id, String name, Opening of) {
    /** One opening of one project file; each is equal to itself only. */
    public static final class Opening {
        Opening() {}
    }
}

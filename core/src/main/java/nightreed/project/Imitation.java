package nightreed.project;

/**
 * One imitation of a project.
 *
 * @param id   row
 * @param name what it is called
 */
public record Imitation(long id, String name) {}

package nightreed.desktop.workspace;

/**
 * Work in progress.
 *
 * @param name     what is being done
 * @param doing    the step it is at
 * @param fraction part done, 0 to 1
 * @param search   whether it looks for something better and better, so that it can end with what there is
 */
public record TaskState(String name, String doing, double fraction, boolean search) {}

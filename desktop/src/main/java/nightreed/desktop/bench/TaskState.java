package nightreed.desktop.bench;

/**
 * Work in progress.
 *
 * @param name     what is being done
 * @param doing    the step it is at
 * @param fraction part done, 0 to 1
 */
public record TaskState(String name, String doing, double fraction) {}

package nightreed.project;

import nightreed.measure.Measurement;
import nightreed.sound.Clip;

/**
 * A recording as a project keeps it.
 *
 * @param id          row
 * @param name        file or player it came from
 * @param clip        the sound
 * @param measurement its measurement, null if it has not been measured
 */
public record Recording(long id, String name, Clip clip, Measurement measurement) {}

package nightreed.measure;

import nightreed.measure.take.Echo;

/**
 * What the place of a recording adds to the note.
 *
 * @param echo repeat of the sound in the recording, null if there is none
 * @param tail what rings on beside the note, null if nothing was found
 */
public record RoomFacts(Echo echo, ReverbTail tail) {
    /** A dry recording, or one of which nothing is known. */
    public static final RoomFacts DRY = new RoomFacts(null, null);
}

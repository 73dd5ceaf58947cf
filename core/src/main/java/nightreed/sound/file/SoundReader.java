package nightreed.sound.file;

import java.io.IOException;
import java.util.List;

/** An open sound file that is read from its start to its end. One thread at a time. */
interface SoundReader extends AutoCloseable {
    SoundFormat format();

    /**
     * Reads on.
     *
     * @param into  [channel][sample], filled from index 0; as many channels as the format has
     * @param count most samples per channel to read, at least 1
     * @return samples read, 0 at the end of the sound
     * @throws IOException if the file cannot be read any further; what was read before is good
     */
    int read(float[][] into, int count) throws IOException;

    /** Skips samples; readers that can jump do. @return samples skipped, fewer only at the end */
    default long skip(long frames) throws IOException {
        float[][] waste = new float[format().channels()][(int) Math.min(1 << 14, Math.max(1, frames))];
        long done = 0;
        while (done < frames) {
            int got = read(waste, (int) Math.min(waste[0].length, frames - done));
            if (got == 0) {
                break;
            }
            done += got;
        }
        return done;
    }

    /** What the reader had to put up with so far, in sentences that follow the file's name. */
    List<String> warnings();

    @Override
    void close() throws IOException;
}

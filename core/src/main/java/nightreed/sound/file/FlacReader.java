package nightreed.sound.file;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import nightreed.sound.UnusableSound;
import org.jflac.ChannelData;
import org.jflac.FLACDecoder;
import org.jflac.frame.Frame;
import org.jflac.metadata.StreamInfo;

/** FLAC, decoded by jFLAC. */
final class FlacReader implements SoundReader {
    private final InputStream in;
    private final FLACDecoder decoder;
    private final SoundFormat format;
    private final int bits;
    private final List<String> warnings = new ArrayList<>();
    private ChannelData[] data;
    private int have;
    private int used;
    private long read;
    private boolean ended;

    FlacReader(Source source) throws UnusableSound, IOException {
        in = source.from(0);
        try {
            decoder = new FLACDecoder(in);
            decoder.readMetadata();
            StreamInfo info = decoder.getStreamInfo();
            if (info == null) {
                throw SoundFiles.damaged(source, "no description of its samples");
            }
            SoundFiles.check(source, info.getSampleRate(), info.getChannels());
            bits = info.getBitsPerSample();
            long frames = info.getTotalSamples() > 0 ? info.getTotalSamples() : -1;
            format = new SoundFormat("FLAC, " + bits + " bit", info.getSampleRate(), info.getChannels(), frames);
        } catch (RuntimeException | IOException | UnusableSound e) {
            in.close();
            throw e;
        }
    }

    @Override
    public SoundFormat format() {
        return format;
    }

    @Override
    public int read(float[][] into, int count) throws IOException {
        while (used >= have && !ended) {
            nextFrame();
        }
        int n = Math.min(count, have - used);
        double scale = Math.pow(2, 1 - bits);
        for (int c = 0; c < into.length; c++) {
            int[] x = data == null ? new int[0] : data[c].getOutput();
            for (int i = 0; i < n; i++) {
                into[c][i] = (float) (x[used + i] * scale);
            }
        }
        used += n;
        read += n;
        return n;
    }

    private void nextFrame() throws IOException {
        used = 0;
        have = 0;
        try {
            if (format.frames() >= 0 && read >= format.frames()) {
                ended = true;
                return;
            }
            Frame frame = decoder.readNextFrame();
            if (frame == null || frame.header.channels != format.channels()) {
                ended = true;
                checkLength();
                return;
            }
            data = decoder.getChannelData();
            have = frame.header.blockSize;
            if (decoder.getBadFrames() > 0 && warnings.isEmpty()) {
                warnings.add("is damaged in places; what could be read is used");
            }
        } catch (RuntimeException | IOException e) {
            // the decoder meets damage with exceptions of all kinds; at the end of a cut file, too
            ended = true;
            checkLength();
        }
    }

    private void checkLength() {
        if (format.frames() > read) {
            warnings.add(SoundFiles.cutShort(format.seconds(), (double) read / format.sampleRateHz()));
        }
    }

    @Override
    public List<String> warnings() {
        return warnings;
    }

    @Override
    public void close() throws IOException {
        in.close();
    }
}

package nightreed.sound.file;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import javazoom.jl.decoder.Bitstream;
import javazoom.jl.decoder.BitstreamException;
import javazoom.jl.decoder.Decoder;
import javazoom.jl.decoder.DecoderException;
import javazoom.jl.decoder.Header;
import javazoom.jl.decoder.SampleBuffer;
import nightreed.sound.UnusableSound;

/** MPEG audio layers I to III, decoded by JLayer. */
final class Mp3Reader implements SoundReader {
    /** What JLayer's synthesis filter scales full scale to. */
    private static final float FULL_SCALE = 32_700;

    private final InputStream in;
    private final Bitstream bits;
    private final Decoder decoder = new Decoder();
    private final SoundFormat format;
    private final List<String> warnings = new ArrayList<>();
    private SampleBuffer samples;
    private int used; // of the buffer, in values
    private boolean ended;

    Mp3Reader(Source source) throws UnusableSound, IOException {
        in = source.from(0);
        bits = new Bitstream(in);
        try {
            if (!decode()) {
                throw SoundFiles.damaged(source, "no MPEG sound in it");
            }
            SoundFiles.check(source, samples.getSampleFrequency(), samples.getChannelCount());
            format = new SoundFormat("MP3", samples.getSampleFrequency(), samples.getChannelCount(), -1);
        } catch (RuntimeException | UnusableSound e) {
            in.close();
            throw e;
        }
    }

    @Override
    public SoundFormat format() {
        return format;
    }

    /** Decodes one more frame; false at the end, or where damage makes sense end. */
    private boolean decode() {
        try {
            Header h = bits.readFrame();
            if (h == null) {
                return false;
            }
            boolean other = format != null
                    && (h.frequency() != format.sampleRateHz()
                            || (h.mode() == Header.SINGLE_CHANNEL ? 1 : 2) != format.channels());
            if (other) {
                warnings.add("changes its sample rate or channels half-way; it is used up to there");
                return false;
            }
            samples = (SampleBuffer) decoder.decodeFrame(h, bits);
            used = 0;
            bits.closeFrame();
            return true;
        } catch (BitstreamException | DecoderException | RuntimeException e) {
            if (format != null) {
                warnings.add("is damaged; it is used up to the damage");
            }
            return false;
        }
    }

    @Override
    public int read(float[][] into, int count) {
        while (!ended && used >= samples.getBufferLength()) {
            ended = !decode();
        }
        int channels = into.length;
        int n = ended ? 0 : Math.min(count, (samples.getBufferLength() - used) / channels);
        short[] x = samples.getBuffer();
        for (int i = 0; i < n; i++) {
            for (int c = 0; c < channels; c++) {
                into[c][i] = x[used + i * channels + c] / FULL_SCALE;
            }
        }
        used += n * channels;
        ended |= n == 0;
        return n;
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

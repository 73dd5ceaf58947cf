package nightreed.sound.file;

import com.jcraft.jogg.Packet;
import com.jcraft.jogg.Page;
import com.jcraft.jogg.StreamState;
import com.jcraft.jogg.SyncState;
import com.jcraft.jorbis.Block;
import com.jcraft.jorbis.Comment;
import com.jcraft.jorbis.DspState;
import com.jcraft.jorbis.Info;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import nightreed.sound.UnusableSound;

/** Ogg Vorbis, decoded by JOrbis: pages into packets, packets into blocks, blocks into samples. */
final class VorbisReader implements SoundReader {
    private static final int PIECE = 8192;

    /** Headers longer than this hold pictures or damage, and neither is sound. */
    private static final int MOST_HEADER_BYTES = 1 << 24;

    private final InputStream in;
    private final SyncState sync = new SyncState();
    private final StreamState stream = new StreamState();
    private final Info info = new Info();
    private final DspState dsp = new DspState();
    private final Page page = new Page();
    private final Packet packet = new Packet();
    private final float[][][] pcm = new float[1][][];
    private final Block block;
    private final int[] index;
    private final SoundFormat format;
    private final List<String> warnings = new ArrayList<>();
    private long read;
    private long lastGranule = -1; // samples that the last page says there are
    private boolean ended;

    VorbisReader(Source source) throws UnusableSound, IOException {
        in = source.from(0);
        try {
            sync.init();
            info.init();
            headers(source);
            SoundFiles.check(source, info.rate, info.channels);
            dsp.synthesis_init(info);
            block = new Block(dsp);
            index = new int[info.channels];
            format = new SoundFormat("Ogg Vorbis", info.rate, info.channels, -1);
        } catch (RuntimeException | IOException | UnusableSound e) {
            in.close();
            throw e;
        }
    }

    private void headers(Source source) throws UnusableSound, IOException {
        Comment comment = new Comment();
        comment.init();
        long bytes = 0;
        int found = 0;
        boolean started = false;
        while (found < 3) {
            int got = sync.pageout(page);
            if (got == 0) {
                int n = feed();
                bytes += Math.max(0, n);
                if (n <= 0 || bytes > MOST_HEADER_BYTES) {
                    throw SoundFiles.damaged(source, "no Vorbis sound in it");
                }
            } else if (got == 1) {
                if (!started) {
                    stream.init(page.serialno());
                    started = true;
                }
                stream.pagein(page);
                while (found < 3 && stream.packetout(packet) == 1) {
                    if (info.synthesis_headerin(comment, packet) < 0) {
                        throw SoundFiles.damaged(source, "no Vorbis sound in it");
                    }
                    found++;
                }
            }
        }
    }

    private int feed() throws IOException {
        int at = sync.buffer(PIECE);
        int n = in.read(sync.data, at, PIECE);
        sync.wrote(Math.max(0, n));
        return n;
    }

    @Override
    public SoundFormat format() {
        return format;
    }

    @Override
    public int read(float[][] into, int count) throws IOException {
        try {
            int n = 0;
            while (!ended && n == 0) {
                n = dsp.synthesis_pcmout(pcm, index);
                if (n == 0 && !morePackets()) {
                    ended = true;
                }
            }
            n = Math.min(n, count);
            if (lastGranule >= 0 && page.eos() != 0 && read + n > lastGranule) {
                n = (int) Math.max(0, lastGranule - read); // the last block may be longer than the sound
                ended = true;
            }
            for (int c = 0; c < into.length && n > 0; c++) {
                System.arraycopy(pcm[0][c], index[c], into[c], 0, n);
            }
            dsp.synthesis_read(n);
            read += n;
            return n;
        } catch (RuntimeException e) {
            ended = true;
            warnings.add("is damaged; it is used up to the damage");
            return 0;
        }
    }

    /** Decodes one more packet; false at the end. */
    private boolean morePackets() throws IOException {
        while (true) {
            int got = stream.packetout(packet);
            if (got == 1) {
                if (block.synthesis(packet) == 0) {
                    dsp.synthesis_blockin(block);
                }
                return true;
            }
            if (got < 0) {
                if (warnings.isEmpty()) {
                    warnings.add("is damaged in places; what could be read is used");
                }
                continue;
            }
            if (!nextPage()) {
                return false;
            }
        }
    }

    private boolean nextPage() throws IOException {
        if (lastGranule >= 0 && page.eos() != 0) {
            return false;
        }
        int got = sync.pageout(page);
        while (got != 1) {
            if (got == 0 && feed() <= 0) {
                warnings.add("ends before its last page; what is there is used");
                return false;
            }
            got = sync.pageout(page);
        }
        stream.pagein(page);
        lastGranule = Math.max(lastGranule, page.granulepos());
        return true;
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

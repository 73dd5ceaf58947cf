package nightreed.bench;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import java.util.stream.IntStream;
import nightreed.measure.Measurer;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.UnusableSound;
import nightreed.sound.WavFiles;
import nightreed.sound.file.SoundFiles;

/**
 * Damaged sound files, read and measured: each has to be refused with a message or measured, within ten seconds. Run with
 * {@code -Xmx1000m}, so that one that asks for more fails.
 * <pre>java -Xmx1000m -cp 'bench/target/*:desktop/target/lib/*' nightreed.bench.DamagedFiles 20000</pre>
 */
public final class DamagedFiles {
    private DamagedFiles() {}

    public static void main(String[] args) {
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 20_000;
        List<byte[]> whole = whole();
        AtomicInteger refused = new AtomicInteger();
        AtomicInteger measured = new AtomicInteger();
        AtomicInteger failed = new AtomicInteger();
        AtomicLong longest = new AtomicLong();
        IntStream.range(0, count).parallel().forEach(i -> {
            Random r = new Random(i);
            byte[] bytes = damaged(whole.get(r.nextInt(whole.size())), r);
            long start = System.nanoTime();
            try {
                Measurer.measure(SoundFiles.read(bytes, "damaged " + i).clip());
                measured.incrementAndGet();
            } catch (UnusableSound e) {
                refused.incrementAndGet();
            } catch (RuntimeException | OutOfMemoryError | StackOverflowError e) {
                failed.incrementAndGet();
                System.out.println("file " + i + ": " + e);
                e.printStackTrace(System.out);
            }
            longest.accumulateAndGet((System.nanoTime() - start) / 1_000_000, Math::max);
        });
        System.out.printf(
                Locale.ROOT,
                "%d files: %d measured, %d refused with a message, %d failed; the longest took %.1f s%n",
                count,
                measured.get(),
                refused.get(),
                failed.get(),
                longest.get() / 1e3);
        if (failed.get() > 0 || longest.get() > 10_000) {
            System.exit(1);
        }
    }

    private static List<byte[]> whole() {
        List<byte[]> out = new ArrayList<>();
        for (int k = 0; k < 4; k++) {
            Clip note = RecordingRoom.record(
                    RecordingRoom.instrument(k % 2 == 0 ? "slate-bars" : "buoy-bell"), 60 + 5 * k, 0.8, k);
            Clip mono = note.span(0, (int) (0.45 * note.sampleRateHz()));
            Clip stereo =
                    new Clip(new float[][] {mono.channel(0), mono.scaled(0.7).channel(0)}, mono.sampleRateHz());
            for (WavFiles.Format f : WavFiles.Format.values()) {
                out.add(WavFiles.encode(k < 2 ? mono : stereo, f));
            }
        }
        return out;
    }

    private static byte[] damaged(byte[] whole, Random r) {
        byte[] b = whole.clone();
        switch (r.nextInt(7)) {
            case 0 -> b = Arrays.copyOf(b, r.nextInt(b.length));
            case 1 -> {
                for (int k = r.nextInt(12); k >= 0; k--) {
                    b[r.nextInt(Math.min(b.length, 60))] = (byte) r.nextInt(256);
                }
            }
            case 2 -> {
                for (int k = r.nextInt(400); k >= 0; k--) {
                    b[44 + r.nextInt(b.length - 44)] = (byte) r.nextInt(256);
                }
            }
            case 3 -> Arrays.fill(b, Math.min(b.length, 44 + r.nextInt(b.length - 44)), b.length, (byte) 0);
            case 4 -> {
                float[] odd = {Float.NaN, Float.POSITIVE_INFINITY, 1e30f, -1e30f, 1e-42f, 3f};
                ByteBuffer all = ByteBuffer.wrap(b).order(ByteOrder.LITTLE_ENDIAN);
                for (int k = r.nextInt(5); k >= 0; k--) {
                    all.putFloat(44 + 4 * r.nextInt((b.length - 48) / 4), odd[r.nextInt(odd.length)]);
                }
            }
            case 5 -> { // a stretch stands still, or is repeated
                int from = 44 + r.nextInt(b.length - 44);
                int length = Math.min(b.length - from, r.nextInt(20_000));
                System.arraycopy(b, 44, b, from, Math.min(length, b.length - from));
            }
            default -> {
                int drop = 44 + r.nextInt(b.length - 44);
                int length = Math.min(b.length - drop, 1 + r.nextInt(3000));
                byte[] shorter = new byte[b.length - length];
                System.arraycopy(b, 0, shorter, 0, drop);
                System.arraycopy(b, drop + length, shorter, drop, shorter.length - drop);
                b = shorter;
            }
        }
        return b;
    }
}

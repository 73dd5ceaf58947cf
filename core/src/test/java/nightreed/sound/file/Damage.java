package nightreed.sound.file;

import java.util.Arrays;
import java.util.Random;

/** What happens to files on their way: bytes changed, a stretch lost or doubled, the end cut off. */
final class Damage {
    private Damage() {}

    static byte[] to(byte[] good, Random r) {
        byte[] bad = good.clone();
        int hits = 1 + r.nextInt(5);
        for (int k = 0; k < hits; k++) {
            int reach = r.nextInt(3) > 0 ? Math.min(bad.length, 120) : bad.length;
            bad[r.nextInt(reach)] = (byte) (r.nextInt(4) == 0 ? 0xff : r.nextInt(256));
        }
        switch (r.nextInt(5)) {
            case 0 -> bad = Arrays.copyOf(bad, 1 + r.nextInt(bad.length));
            case 1 -> {
                int at = r.nextInt(bad.length);
                int n = r.nextInt(Math.min(64, bad.length - at));
                System.arraycopy(bad, at + n, bad, at, bad.length - at - n);
            }
            case 2 -> {
                int at = r.nextInt(bad.length);
                int n = r.nextInt(Math.min(64, bad.length - at));
                System.arraycopy(bad, at, bad, Math.min(bad.length - n, at + n), n);
            }
            default -> {
                // changed bytes only
            }
        }
        return bad;
    }
}

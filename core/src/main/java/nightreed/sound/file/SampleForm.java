package nightreed.sound.file;

/**
 * How one sample lies in bytes.
 *
 * @param bytes     bytes it takes: 1 to 4, or 8
 * @param law       what the bytes mean
 * @param bigEndian whether the most significant byte comes first
 */
record SampleForm(int bytes, Law law, boolean bigEndian) {
    /** Meaning of a sample's bytes. */
    enum Law {
        SIGNED,
        UNSIGNED,
        FLOAT,
        MU_LAW,
        A_LAW
    }

    /** @param raw bytes @param at place of the sample's first byte @return value, full scale = 1 */
    float value(byte[] raw, int at) {
        long v = 0;
        for (int k = 0; k < bytes; k++) {
            int from = bigEndian ? at + k : at + bytes - 1 - k;
            v = v << 8 | raw[from] & 0xff;
        }
        return switch (law) {
            case SIGNED -> (float) ((v << (64 - 8 * bytes)) * 0x1.0p-63);
            case UNSIGNED -> (float) (((v << (64 - 8 * bytes)) ^ Long.MIN_VALUE) * 0x1.0p-63);
            case FLOAT -> bytes == 4 ? Float.intBitsToFloat((int) v) : (float) Double.longBitsToDouble(v);
            case MU_LAW -> muLaw((int) v);
            case A_LAW -> aLaw((int) v);
        };
    }

    /** ITU-T G.711, µ-law, on 16 bits. */
    private static float muLaw(int code) {
        int c = ~code & 0xff;
        int magnitude = (((c & 0x0f) << 3) + 0x84 << (c >> 4 & 7)) - 0x84;
        return ((c & 0x80) != 0 ? -magnitude : magnitude) / 32768f;
    }

    /** ITU-T G.711, A-law, on 16 bits. */
    private static float aLaw(int code) {
        int c = code ^ 0x55;
        int exponent = c >> 4 & 7;
        int magnitude = ((c & 0x0f) << 4) + 8;
        if (exponent > 0) {
            magnitude = magnitude + 0x100 << exponent - 1;
        }
        return ((c & 0x80) != 0 ? magnitude : -magnitude) / 32768f;
    }

    /** Name for people. */
    String title() {
        return switch (law) {
            case SIGNED, UNSIGNED -> 8 * bytes + " bit";
            case FLOAT -> 8 * bytes + " bit float";
            case MU_LAW -> "µ-law";
            case A_LAW -> "A-law";
        };
    }
}

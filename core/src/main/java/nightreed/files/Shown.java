package nightreed.files;

/** A text from outside, such as the name of a file, as it can stand in a message without doing anything to a terminal. */
public final class Shown {
    private static final int LONGEST = 200;

    private Shown() {}

    /** With control characters and what turns the direction of writing escaped, and not too long. */
    public static String of(Object text) {
        String s = String.valueOf(text);
        StringBuilder out = new StringBuilder();
        s.codePoints().limit(LONGEST).forEach(c -> {
            int type = Character.getType(c);
            boolean odd = Character.isISOControl(c)
                    || type == Character.FORMAT
                    || type == Character.LINE_SEPARATOR
                    || type == Character.PARAGRAPH_SEPARATOR
                    || type == Character.SURROGATE;
            if (odd) {
                out.append(String.format("\\u%04x", c));
            } else {
                out.appendCodePoint(c);
            }
        });
        return s.codePointCount(0, s.length()) > LONGEST ? out + "…" : out.toString();
    }
}

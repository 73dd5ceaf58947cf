package nightreed.voice.explain;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import nightreed.voice.explain.Table.Column;

/** Collects the rows of a table. */
final class Rows {
    private final String title;
    private final List<Column> columns;
    private final List<List<Double>> rows = new ArrayList<>();
    private final List<String> remarks = new ArrayList<>();

    /** @param columns such as "frequency [Hz] .2": name, unit, decimals */
    Rows(String title, String... columns) {
        this.title = title;
        this.columns = Arrays.stream(columns).map(Rows::column).toList();
    }

    private static Column column(String text) {
        int dot = text.lastIndexOf(" .");
        int open = text.indexOf(" [");
        String name = text.substring(0, open < 0 ? dot : open);
        String unit = open < 0 ? "" : text.substring(open + 2, text.indexOf(']'));
        return new Column(name, unit, Integer.parseInt(text.substring(dot + 2)));
    }

    void add(Double... values) {
        rows.add(java.util.Collections.unmodifiableList(Arrays.asList(values)));
    }

    void say(String format, Object... values) {
        remarks.add(String.format(Locale.ROOT, format, values));
    }

    Table done() {
        return new Table(title, columns, rows, remarks);
    }

    /** Cents from the nearest harmonic of a pitch. */
    static double centsFromHarmonic(double hz, double f0) {
        double n = Math.max(1, Math.rint(hz / f0));
        return 1200 * Math.log(hz / (n * f0)) / Math.log(2);
    }
}

package nightreed.voice.explain;

import java.util.List;

/**
 * A table of numbers with what they mean.
 *
 * @param title   what it shows
 * @param columns name and unit of each column
 * @param rows    one value for each column; null where there is none
 * @param remarks what the numbers say, in sentences
 */
public record Table(String title, List<Column> columns, List<List<Double>> rows, List<String> remarks) {
    /** @param name such as "frequency" @param unit such as "Hz", empty for plain numbers @param decimals that make sense */
    public record Column(String name, String unit, int decimals) {}

    public Table {
        columns = List.copyOf(columns);
        rows = List.copyOf(rows);
        remarks = List.copyOf(remarks);
        for (List<Double> row : rows) {
            if (row.size() != columns.size()) {
                throw new IllegalArgumentException("row of " + row.size() + " in a table of " + columns.size());
            }
        }
    }
}

package nightreed.sheet;

import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** The partial table as CSV (RFC 4180), one partial a line; what is not known is left empty. */
public final class PartialCsv {
    private PartialCsv() {}

    public static String text(Measurement m) {
        StringWriter out = new StringWriter();
        CSVFormat format = CSVFormat.RFC4180
                .builder()
                .setHeader(
                        "name",
                        "frequency_hz",
                        "frequency_se_hz",
                        "ratio",
                        "level_db",
                        "t60_s",
                        "t60_se_s",
                        "t60_late_s",
                        "beat_hz",
                        "snr_db",
                        "reliable")
                .get();
        try (CSVPrinter csv = new CSVPrinter(out, format)) {
            for (Partial p : m.partials()) {
                csv.printRecord(
                        m.series() == null ? null : m.series().nameOf(p.frequencyHz()),
                        p.frequencyHz(),
                        p.frequencySeHz(),
                        p.ratio(),
                        p.levelDb(),
                        p.t60Seconds(),
                        p.t60SeSeconds(),
                        p.stages() == null ? null : p.stages().lateT60Seconds(),
                        p.beatHz(),
                        p.snrDb(),
                        p.reliable());
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e); // a string does not run full
        }
        return out.toString();
    }
}

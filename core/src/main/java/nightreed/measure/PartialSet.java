package nightreed.measure;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import nightreed.measure.law.FmLaw;
import nightreed.measure.law.SeriesFit;
import nightreed.measure.partial.Partial;

/**
 * The partials of a note, and the laws that they follow. A law that they do not follow is null.
 *
 * @param partials       partials by rising frequency
 * @param series         best model series
 * @param inharmonicityB stiffness B of a string whose partials follow n f0 √(1 + B n²)
 * @param fm             law of a frequency modulation that all partials follow
 */
@RecordBuilder
public record PartialSet(List<Partial> partials, SeriesFit series, Double inharmonicityB, FmLaw fm)
        implements PartialSetBuilder.With {
    public PartialSet {
        partials = List.copyOf(partials);
    }
}

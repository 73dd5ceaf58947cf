package nightreed.measure.traits;

import java.util.List;

/**
 * What a note looks like to somebody who will imitate it. Whatever its lines do not settle is null or empty.
 *
 * @param slopeDbPerOctave slope of the spectrum under the formants [dB/octave], null with too few harmonics
 * @param formants         resonances over the slope, by rising centre
 * @param sources          waves and filters that may stand behind a note that is held, the likeliest first
 * @param pluckPoint       where a string was plucked or struck, null if no comb is seen
 * @param decayLaw         how decay follows frequency, null for what is held or has too few partials
 */
public record Traits(
        Double slopeDbPerOctave,
        List<Formant> formants,
        List<SourceWave> sources,
        PluckPoint pluckPoint,
        DecayLaw decayLaw) {
    /** Nothing is known. */
    public static final Traits NONE = new Traits(null, List.of(), List.of(), null, null);

    public Traits {
        formants = List.copyOf(formants);
        sources = List.copyOf(sources);
    }

    /** Of a note that is held, whose harmonics are known. */
    public static Traits held(Spectrum harmonics) {
        FormantFit.Body body = new FormantFit(harmonics, new double[harmonics.count()]).fit();
        List<SourceWave> sources = new SourceFit(harmonics).rank(body);
        return new Traits(
                body == null ? null : (Double) body.slopeDb(),
                body == null ? List.of() : body.formants(),
                sources,
                null,
                null);
    }

    /**
     * Every wave through every slope of low-pass by itself, the likeliest first, with its odds among all: for what is claimed of them.
     *
     * @param sampleRateHz at which a digital filter may have worked [Hz]
     */
    public static List<SourceWave> explanations(Spectrum harmonics, double sampleRateHz) {
        FormantFit.Body body = new FormantFit(harmonics, new double[harmonics.count()]).fit();
        return new SourceFit(harmonics).each(body, sampleRateHz);
    }

    /** Of a string that was plucked or struck. Its body is what the comb of the pluck point leaves over. */
    public static Traits string(Spectrum harmonics, double[] hz, double[] t60, double[] t60ErrorShare) {
        PluckPoint pluck = new PluckFit(harmonics).fit();
        double[] comb = new double[harmonics.count()];
        if (pluck != null && pluck.certainty() > 0.5) {
            for (int i = 0; i < comb.length; i++) {
                comb[i] = PluckFit.combDb(i + 1, pluck.share());
            }
        }
        FormantFit.Body body = new FormantFit(harmonics, comb).fit();
        return new Traits(
                body == null ? null : (Double) body.slopeDb(),
                body == null ? List.of() : body.formants(),
                List.of(),
                pluck,
                DecayLaw.fit(hz, t60, t60ErrorShare));
    }

    /**
     * Of a body whose partials are no harmonics: only the law of their decays is asked for.
     *
     * @param hz            frequencies of its partials [Hz]
     * @param t60           their T60 [s]
     * @param t60ErrorShare standard error over T60 of each
     */
    public static Traits struck(double[] hz, double[] t60, double[] t60ErrorShare) {
        return new Traits(null, List.of(), List.of(), null, DecayLaw.fit(hz, t60, t60ErrorShare));
    }
}

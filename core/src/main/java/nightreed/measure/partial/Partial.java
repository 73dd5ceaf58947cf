package nightreed.measure.partial;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * One decaying partial of a note.
 *
 * @param frequencyHz     frequency [Hz], above 0
 * @param ratio           frequency over the fundamental
 * @param levelDb         level at the onset [dB], 0 for the strongest
 * @param amplitude       amplitude at the onset, extrapolated back from where it was measured [1 = full scale]
 * @param phaseRad        phase at the onset [rad], of a cosine
 * @param t60Seconds      time to fall by 60 dB at the pace of the first 20 dB [s], null if it does not decay within the clip
 * @param stages          its two stages, if it dies in two, else null
 * @param beatHz          distance to a partner it beats with [Hz], null if there is none
 * @param attackSeconds   rise from 10 to 90 % [s], null if it is too weak to say
 * @param frequencySeHz   standard error of the frequency [Hz]
 * @param t60SeSeconds    standard error of T60 [s], null as T60 is
 * @param snrDb           energy of the partial over that of the noise at its frequency [dB]
 * @param reliable        whether it stands clear of noise, strike and neighbours
 */
@RecordBuilder
public record Partial(
        double frequencyHz,
        double ratio,
        double levelDb,
        double amplitude,
        double phaseRad,
        Double t60Seconds,
        TwoStages stages,
        Double beatHz,
        Double attackSeconds,
        double frequencySeHz,
        Double t60SeSeconds,
        double snrDb,
        boolean reliable)
        implements PartialBuilder.With {
    public Partial {
        if (!(frequencyHz > 0 && frequencyHz < Double.POSITIVE_INFINITY)) {
            throw new IllegalArgumentException("partial frequency must be a positive number of Hz, got " + frequencyHz);
        }
        if (t60Seconds != null && !(t60Seconds > 0)) {
            throw new IllegalArgumentException("T60 of the " + frequencyHz + " Hz partial must be above 0 s, got "
                    + t60Seconds + " (null if it could not be measured)");
        }
    }

    /** Against another strongest partial. */
    public Partial relevelled(double db, boolean sure) {
        return with(b -> b.levelDb(db).reliable(sure));
    }

    /** The same partial, believed in or not. */
    public Partial sure(boolean yes) {
        return relevelled(levelDb, yes);
    }

    /** With frequency and decay that more is known of than the partial tells by itself. */
    public Partial weighed(double hz, double hzSe, double t60, double t60Se, boolean sure) {
        return with(b -> b.frequencyHz(hz)
                .t60Seconds(t60)
                .frequencySeHz(hzSe)
                .t60SeSeconds(t60Se)
                .reliable(sure));
    }

    /** Level [dB re the strongest partial's onset level] a time [s] after the onset, from the fitted decay. */
    public double levelDbAt(double secondsAfterOnset) {
        if (stages != null) {
            return levelDb + stages.levelDbAt(secondsAfterOnset);
        }
        return t60Seconds == null ? levelDb : levelDb - 60 * secondsAfterOnset / t60Seconds;
    }
}

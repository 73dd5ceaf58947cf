package nightreed.match.sound;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nightreed.match.hearing.ListenerProfile;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.StrikeBands;
import nightreed.measure.held.HeldNote;
import nightreed.sound.Clip;

/**
 * One side of a comparison: the sound, its measurement, the paths that a listener follows through it, and who listens.
 */
public final class AnalysedSound {
    /** Rise from a tenth to half of an amplitude that nothing struck takes [s]. */
    private static final double SLOW_RISE_SECONDS = 0.02;

    private final Clip clip;
    private final Measurement measurement;
    private final Measurement measured;
    private final LoudnessTracks paths;
    private final BandPowers spectrum; // null where the numbers are not those of the sound
    private final StrikeBands strike;
    private final ListenerProfile listener;
    private final double key;

    /** A fall after a bend that is slower is no release, and that is faster is found better by itself [dB/s]. */
    private static final double LEAST_FALL = 30;

    private static final double SLOW_FALL = 75;

    /** Where the level swings more than this about the lines, it may only seem to fall [dB]. */
    private static final double MOST_OFF_DB = 3.2;

    /** Two looks for where a key is let go mean the same moment, or agree about it [s]. */
    private static final double NEAR_SECONDS = 0.2;

    private static final double SAME_SECONDS = 0.03;

    /** Further off it is another moment [s]. */
    private static final double OTHER_SECONDS = 0.1;

    /** Share of the power until a moment that is still there just before it, if the key was held until then. */
    private static final double STILL_HELD = 0.1;

    /** A release falls so many times as fast as the note fades before. */
    private static final double FALLS_FASTER = 4;

    /** Heard with the usual thresholds. */
    public AnalysedSound(Clip clip, Measurement measurement) {
        this.clip = clip;
        this.measurement = measurement;
        this.measured = measurement;
        int onset = sample(clip, measurement.onsetSeconds());
        this.paths = LoudnessTracks.of(clip, onset);
        this.spectrum = new BandPowers(clip, onset);
        this.strike = strike(clip, measurement, onset);
        this.listener = heard(measurement, ListenerProfile.USUAL);
        this.key = key(roughKey());
    }

    /** @param key NaN where it is to be looked for anew */
    private AnalysedSound(
            Clip clip,
            Measurement measurement,
            Measurement measured,
            LoudnessTracks paths,
            BandPowers spectrum,
            StrikeBands strike,
            ListenerProfile listener,
            double key) {
        this.clip = clip;
        this.measurement = measurement;
        this.measured = measured;
        this.paths = paths;
        this.spectrum = spectrum;
        this.strike = strike;
        this.listener = listener;
        this.key = Double.isNaN(key) ? key(roughKey()) : key;
    }

    private static int sample(Clip clip, double seconds) {
        return Math.max(0, Math.min(clip.length() - 1, (int) Math.round(seconds * clip.sampleRateHz())));
    }

    /** Of a held note nothing can be taken off: harmonics that rise slowly are no burst, but part of the start. */
    private static StrikeBands strike(Clip clip, Measurement m, int onset) {
        if (m.held() == null || m.strongest() == null) {
            return m.strikeBands();
        }
        double fs = clip.sampleRateHz();
        int length = (int) (0.08 * fs);
        StrikeBands heard = bands(clip, m, onset, length);
        List<StrikeBands> before = new ArrayList<>();
        for (int from = onset - length - (int) (0.02 * fs); from >= 0 && before.size() < 8; from -= length) {
            before.add(bands(clip, m, from, length));
        }
        return before.isEmpty() ? heard : heard.without(before);
    }

    private static StrikeBands bands(Clip clip, Measurement m, int from, int length) {
        double[] x = clip.span(from, Math.min(clip.length(), from + length)).mixed();
        return StrikeBands.of(x, x, clip.sampleRateHz(), m.strongest().amplitude(), hz -> 0);
    }

    /** The same sound, taken to begin somewhere else. */
    public AnalysedSound startingAt(double seconds) {
        int onset = sample(clip, seconds);
        return new AnalysedSound(
                clip,
                measurement,
                measured,
                LoudnessTracks.of(clip, onset),
                new BandPowers(clip, onset),
                strike(clip, measurement, onset),
                listener,
                Double.NaN);
    }

    /** What a listener hears of the start; null where nothing is known of it. */
    public StrikeBands strike() {
        return strike;
    }

    /** The same recording for a listener with other thresholds; every comparison with it is then theirs. */
    public AnalysedSound heardBy(ListenerProfile other) {
        return new AnalysedSound(clip, measurement, measured, paths, spectrum, strike, heard(measurement, other), key);
    }

    /** What is only typical is not asked for finely. */
    private static ListenerProfile heard(Measurement of, ListenerProfile listener) {
        return of.typical() == null ? listener : listener.toTypical();
    }

    public ListenerProfile listener() {
        return listener;
    }

    /** The same sound with other numbers for its partials: a prediction that needs no rendering. */
    public AnalysedSound with(Measurement predicted) {
        return new AnalysedSound(clip, predicted, predicted, paths, null, predicted.strikeBands(), listener, key);
    }

    /** The same recording with what a person decided laid over what was measured. */
    public AnalysedSound byHand(ManualCorrections hand) {
        return new AnalysedSound(
                clip, hand.over(measured, clip), measured, paths, spectrum, strike, listener, Double.NaN);
    }

    /** What the machine measured, without what a person decided. */
    public Measurement measured() {
        return measured;
    }

    public Clip clip() {
        return clip;
    }

    public Measurement measurement() {
        return measurement;
    }

    /** Time from the onset until a player let go of the key; infinite if that is not in the recording [s]. */
    public double keySeconds() {
        return key;
    }

    private double roughKey() {
        HeldNote held = measurement.held();
        return held == null ? paths.letGo() : key(held);
    }

    private double key(double roughly) {
        if (measurement.held() == null) {
            return roughly;
        }
        double[][] bands = NoteOffDetector.bands(clip, sample(clip, measurement.onsetSeconds()), paths.power().length);
        double found = NoteOffDetector.refined(bands, swingDb(measurement.held()), roughly, riseSeconds());
        BreakpointFit knee = BreakpointFit.of(steady(measurement.held()));
        boolean unsteady = knee != null && knee.rms() > MOST_OFF_DB; // swings that are not known may look like a fall
        boolean other = Math.abs(found - roughly) > OTHER_SECONDS;
        return unsteady && other && isSuddenlyLeft(paths.letGo()) ? roughly : found;
    }

    /** Whether it falls there at once and for good, without having fallen before [s after the onset]. */
    private boolean isSuddenlyLeft(double sudden) {
        return Math.abs(sudden - paths.leftForGood()) < SAME_SECONDS && isStillHeld(sudden);
    }

    /** Tremolo at each frame [dB]. */
    private double[] swingDb(HeldNote held) {
        double[] out = new double[paths.power().length];
        for (int f = 0; f < out.length && held.tremolo() != null; f++) {
            out[f] = held.tremolo().at((f + 0.5) * LoudnessTracks.HOP);
        }
        return out;
    }

    private double key(HeldNote held) {
        BreakpointFit knee = BreakpointFit.of(steady(held));
        double falls = knee == null ? 0 : -knee.after() / LoudnessTracks.HOP;
        boolean bends = knee != null
                && knee.rms() < MOST_OFF_DB
                && falls > LEAST_FALL
                && falls > FALLS_FASTER * -knee.before() / LoudnessTracks.HOP;
        double sudden = paths.letGo();
        if (isSuddenlyLeft(sudden)) {
            return sudden;
        }
        if (bends && falls < SLOW_FALL && Math.abs(sudden - knee.frame() * LoudnessTracks.HOP) > NEAR_SECONDS) {
            return knee.frame() * LoudnessTracks.HOP; // no sudden fall is to be looked for
        }
        double found = suddenly(sudden, Math.max(0.05, held.releaseSeconds() - measurement.onsetSeconds()));
        return Double.isInfinite(found) && bends ? knee.frame() * LoudnessTracks.HOP : found;
    }

    /** Whether it is just before a moment nearly as loud as it was until then, and not already falling [s after the onset]. */
    private boolean isStillHeld(double seconds) {
        return paths.meanPower(seconds - 0.1, seconds) > STILL_HELD * paths.meanPower(0, seconds);
    }

    /** Power over time as it would be without the tremolo. */
    private double[] steady(HeldNote held) {
        double[] out = paths.power().clone();
        for (int f = 0; f < out.length && held.tremolo() != null; f++) {
            out[f] *= Math.pow(10, -held.tremolo().at((f + 0.5) * LoudnessTracks.HOP) / 10);
        }
        return out;
    }

    /**
     * @param seen where the level suddenly falls, which is known better than the end of a span that is searched for what is
     *             steady [s after the onset]
     * @param key  where the level leaves that of a held note, roughly [s after the onset]
     */
    private double suddenly(double seen, double key) {
        if (Math.abs(seen - key) < NEAR_SECONDS) {
            return seen;
        }
        // what is held may have been measured on a part only, such as that before a loop
        double held = paths.meanPower(key - 0.3, key);
        double after = paths.meanPower(key + 0.05, key + 0.25);
        return after < 0.3 * held && paths.meanPower(key + 0.25, LoudnessTracks.MOST_SECONDS) <= after
                ? key
                : paths.leftForGood();
    }

    /** Times after the onset of the frames of the loudness path, up to where the key is let go [s]; new array. */
    public double[] loudSeconds() {
        int n = (int) Math.min(paths.power().length, keySeconds() / LoudnessTracks.HOP);
        double[] out = new double[Math.max(1, n)];
        for (int f = 0; f < out.length; f++) {
            out[f] = (f + 0.5) * LoudnessTracks.HOP;
        }
        return out;
    }

    /** Amplitude of the whole sound there; new array. */
    public double[] loudness() {
        return amplitude(loudSeconds().length);
    }

    private double[] amplitude(int frames) {
        double[] out = new double[frames];
        for (int f = 0; f < Math.min(out.length, paths.power().length); f++) {
            out[f] = Math.sqrt(Math.max(0, paths.power()[f]));
        }
        return out;
    }

    /** The same of a sound that begins at once, from its beginning on; new array. */
    public static double[] loudness(Clip clip) {
        double[] out = LoudnessTracks.of(clip, 0).power();
        Arrays.setAll(out, f -> Math.sqrt(Math.max(0, out[f])));
        return out;
    }

    /** Fall after the key was let go, for 60 dB; null if that is not in the recording [s]. */
    public Double releaseSeconds() {
        double key = keySeconds();
        return Double.isInfinite(key) ? null : paths.fallSeconds(key);
    }

    /** Rise of the energy from a tenth of its top to half, as amplitudes; 0 where there is none [s]. */
    public double riseSeconds() {
        return paths.rise() == null ? 0 : paths.rise()[2];
    }

    /** Whether its rise takes longer than that of anything struck. */
    public boolean comesInSlowly() {
        return riseSeconds() > SLOW_RISE_SECONDS;
    }

    /** Null where the numbers are not those of the sound. */
    public BandPowers spectrum() {
        return spectrum;
    }

    public LoudnessTracks paths() {
        return paths;
    }
}

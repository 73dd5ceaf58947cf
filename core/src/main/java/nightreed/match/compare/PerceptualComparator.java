package nightreed.match.compare;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.AspectWeights;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.hearing.ListenerProfile;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.sound.LoudnessTracks;
import nightreed.match.sound.SmoothedTrack;
import nightreed.measure.Measurement;
import nightreed.measure.StrikeBands;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;
import nightreed.measure.partial.Partial;
import nightreed.music.Bark;
import nightreed.music.Pitch;

/** Compares two sounds the way a careful listener would: at equal loudness, from the onset on, thing by thing. */
public final class PerceptualComparator {
    /** Partials that differ by less than this in level and frequency are the same one [JND]. */
    private static final double SAME_JND = 4;

    private final JndThresholds hearing;
    private final AspectWeights marks;

    public PerceptualComparator(ListenerProfile listener) {
        this.hearing = listener.hearing();
        this.marks = listener.marks();
    }

    /** Compares as the listener does who the recording has been given to ({@link AnalysedSound#heardBy}). */
    public static Comparison compare(AnalysedSound recording, AnalysedSound imitation) {
        return new PerceptualComparator(recording.listener()).hear(recording, imitation);
    }

    public Comparison hear(AnalysedSound recording, AnalysedSound other) {
        AnalysedSound imitation = aligned(recording, other);
        double gainDb = recording.paths().gainDb(imitation.paths());
        List<PartialDifference> partials = new PartialMatching(hearing).of(recording, imitation, gainDb);
        Map<Aspect, Double> a = new EnumMap<>(Aspect.class);
        a.put(Aspect.PITCH, pitch(recording.measurement(), imitation.measurement(), partials));
        a.put(Aspect.PARTIALS, mean(partials, PartialDifference::levelJnd));
        a.put(
                Aspect.DECAYS,
                mean(partials.stream().filter(PerceptualComparator::bothDecay).toList(), PartialDifference::decayJnd));
        a.put(
                Aspect.ATTACK,
                attack(
                        recording.paths().riseBeside(imitation.paths()),
                        imitation.paths().riseBeside(recording.paths())));
        a.put(Aspect.NOISE, noise(recording, imitation, gainDb));
        a.put(Aspect.BRIGHTNESS, brightness(recording.paths(), imitation.paths()));
        a.put(Aspect.LOUDNESS, loudness(recording.paths(), imitation.paths(), gainDb));
        a.put(
                Aspect.MOVEMENT,
                movement(recording.measurement().held(), imitation.measurement().held(), a.get(Aspect.LOUDNESS)));
        a.replaceAll((aspect, jnd) -> Math.min(JndThresholds.MOST, marks.weight(aspect) * jnd));
        return new Comparison(a, partials, gainDb);
    }

    /** A held note that comes in slowly, from where it lies over the recording. */
    private static AnalysedSound aligned(AnalysedSound recording, AnalysedSound imitation) {
        if (recording.measurement().held() == null || imitation.spectrum() == null) {
            return imitation;
        }
        double late = Alignment.late(recording, imitation);
        return late == 0
                ? imitation
                : imitation.startingAt(imitation.measurement().onsetSeconds() + late);
    }

    /**
     * Of two pitches. Where most of what is heard of the partials is the same on both sides, the pitch is, whichever of its
     * candidates each measurement may have preferred: then it is as far off as the partials are.
     */
    private double pitch(Measurement r, Measurement i, List<PartialDifference> partials) {
        if (r.f0Hz() == null && i.f0Hz() == null) {
            return 0;
        }
        double direct = r.f0Hz() == null || i.f0Hz() == null
                ? JndThresholds.MOST
                : Math.abs(Pitch.cents(r.f0Hz(), i.f0Hz())) / hearing.pitchCents();
        return Math.min(Math.min(JndThresholds.MOST, direct), sharedPitch(partials));
    }

    /** From the partials that are found on both sides; the most there is where too few agree. */
    private double sharedPitch(List<PartialDifference> partials) {
        double all = 0;
        double same = 0;
        double pairs = 0;
        double cents = 0;
        for (PartialDifference d : partials) {
            all += d.weight();
            if (d.levelJnd() > SAME_JND) {
                continue;
            }
            same += d.weight();
            if (d.recording() != null && d.imitation() != null) {
                pairs += d.weight();
                cents += d.weight()
                        * Pitch.cents(d.recording().frequencyHz(), d.imitation().frequencyHz());
            }
        }
        boolean agreed = pairs > 0.2 * all && same > 0.6 * all;
        return agreed
                ? Math.min(JndThresholds.MOST, Math.abs(cents / pairs) / hearing.pitchCents())
                : JndThresholds.MOST;
    }

    private static boolean bothDecay(PartialDifference d) {
        return d.recording() != null
                && d.imitation() != null
                && d.recording().t60Seconds() != null
                && d.imitation().t60Seconds() != null;
    }

    private static double mean(
            List<PartialDifference> partials, java.util.function.ToDoubleFunction<PartialDifference> of) {
        double sum = 0;
        double weights = 0;
        for (PartialDifference d : partials) {
            sum += d.weight() * of.applyAsDouble(d) * of.applyAsDouble(d);
            weights += d.weight();
        }
        return weights > 0 ? Math.sqrt(sum / weights) : 0;
    }

    /**
     * Swings of pitch and level, in rate and depth, and what swings on one side only. An uneven level may be told as one swing or
     * as another; where both sides go the same way all along, they swing alike.
     *
     * @param loudness what the courses of the loudness are apart [JND]
     */
    private double movement(HeldNote r, HeldNote i, double loudness) {
        if (r == null && i == null) {
            return 0;
        }
        double pitch = swing(r == null ? null : r.vibrato(), i == null ? null : i.vibrato(), hearing.pitchCents());
        double level = swing(r == null ? null : r.tremolo(), i == null ? null : i.tremolo(), hearing.loudnessDb());
        // a sine's depth is root 2 of what its course is away from a straight one
        return Math.min(JndThresholds.MOST, Math.max(pitch, Math.min(level, Math.sqrt(2) * loudness)));
    }

    private static double swing(Movement r, Movement i, double step) {
        return swing(r, i == null ? 0 : i.depth(), i == null ? 0 : i.rateHz(), step);
    }

    /**
     * How much a swing differs from that of a recording [JND].
     *
     * @param r      of the recording, null for none
     * @param depth  in the same unit, 0 for none
     * @param rateHz of the other
     * @param step   depth that is just heard; of a deeper swing, a quarter of it
     */
    public static double swing(Movement r, double depth, double rateHz, double step) {
        double mine = r == null ? 0 : r.depth();
        double off = Math.abs(mine - depth) / Math.max(step, 0.25 * mine);
        double both = Math.min(1, Math.min(mine, depth) / step); // the rate of what is not heard is no difference
        double rate = r == null || depth == 0 ? 0 : Math.abs(rateHz / r.rateHz() - 1) / 0.1;
        return Math.hypot(off, both * rate);
    }

    /** Over the stations of the rise: the mean of what each is early or late by. */
    private double attack(double[] r, double[] i) {
        if (r == null || i == null) {
            return r == null && i == null ? 0 : JndThresholds.MOST;
        }
        double sum = 0;
        for (int k = 1; k < r.length; k++) {
            double step = Math.max(hearing.attackSeconds(), hearing.attackShare() * r[k]);
            sum += Math.min(JndThresholds.MOST, Math.abs(i[k] - r[k]) / step) / (r.length - 1);
        }
        return sum;
    }

    /**
     * The burst by groups of four critical bands in three spans. A short burst in a narrow band is a handful of random
     * numbers; what could be their scatter is no difference.
     */
    private double noise(AnalysedSound recording, AnalysedSound imitation, double gainDb) {
        Measurement r = recording.measurement();
        Measurement i = imitation.measurement();
        StrikeBands rb = recording.strike();
        StrikeBands ib = imitation.strike();
        Partial rs = r.strongest();
        Partial is = i.strongest();
        if (rb == null || ib == null || rs == null || is == null) {
            return 0;
        }
        // both are told relative to their own strongest partial
        double shift = decibels(is.amplitude()) + gainDb - decibels(rs.amplitude());
        double loudestGroup = 1e-12;
        for (double[] span : rb.whole()) {
            for (int g = 0; g < Bark.BANDS; g += 4) {
                loudestGroup = Math.max(loudestGroup, group(span, g));
            }
        }
        double least = 10 * Math.log10(loudestGroup) - JndThresholds.RANGE_DB;
        double sum = 0;
        double weights = 0;
        for (int s = 0; s < rb.spans(); s++) {
            double seconds = rb.spanSeconds(s);
            for (int g = 0; g < Bark.BANDS; g += 4) {
                double masked = least;
                double mine = group(rb.burst()[s], g);
                double other = group(ib.burst()[s], g);
                double tone = Math.max(0, group(rb.whole()[s], g) - mine);
                double masking = JndThresholds.maskedDb(tone, 0, Bark.centreHz(g + 2));
                for (int o = 0; o < Bark.BANDS; o += 4) { // from the neighbouring groups, 4 Bark away and more
                    double power = Math.max(0, group(rb.whole()[s], o) - group(rb.burst()[s], o));
                    masking = o == g
                            ? masking
                            : Math.max(masking, JndThresholds.maskedDb(power, g - o, Bark.centreHz(o + 2)));
                }
                masked = Math.max(masked, masking);
                double loudest = Math.max(10 * Math.log10(mine + 1e-12), 10 * Math.log10(other + 1e-12) + shift);
                double weight = Math.max(0, Math.min(1, (loudest - masked) / 10));
                // how loud it is there with everything: what of it is noise and what is partial, each side tells by
                // itself
                double a = 10 * Math.log10(group(rb.whole()[s], g) + 3e-5 * loudestGroup);
                double b = 10 * Math.log10(group(ib.whole()[s], g) * Math.pow(10, shift / 10) + 3e-5 * loudestGroup);
                double freedom = Math.max(1, (Bark.edgeHz(g + 4) - Bark.edgeHz(g)) * seconds);
                double scatter = 4.34 * Math.sqrt(2 / freedom);
                double jnd = Math.min(JndThresholds.MOST, Math.max(0, Math.abs(a - b) - scatter) / hearing.noiseDb());
                sum += weight * jnd * jnd;
                weights += weight;
            }
        }
        // a burst that is masked nearly everywhere is heard as little as its audible part is wide
        return Math.sqrt(sum / Math.max(3, weights));
    }

    private static double group(double[] bands, int from) {
        double s = 0;
        for (int k = from; k < from + 4; k++) {
            s += bands[k];
        }
        return s;
    }

    private double brightness(LoudnessTracks r, LoudnessTracks i) {
        SmoothedTrack mine = SmoothedTrack.of(r.bark(), r.power());
        SmoothedTrack other = SmoothedTrack.of(i.bark(), i.power());
        double loudest = max(r.power());
        double sum = 0;
        double weights = 0;
        for (int f = 0; f < Math.min(r.bark().length, i.bark().length); f++) {
            double w = weight(r.power()[f], loudest, 40);
            double away = mine.away(other, f);
            if (w > 0 && !Double.isNaN(away)) {
                double d = Math.min(JndThresholds.MOST, away / hearing.brightnessBark());
                sum += w * d * d;
                weights += w;
            }
        }
        return weights > 0 ? Math.sqrt(sum / weights) : 0;
    }

    private double loudness(LoudnessTracks r, LoudnessTracks i, double gainDb) {
        SmoothedTrack mine = SmoothedTrack.ofLevel(r.power(), 0);
        SmoothedTrack other = SmoothedTrack.ofLevel(i.power(), gainDb);
        double loudest = max(r.power());
        double sum = 0;
        double weights = 0;
        for (int f = 0; f < Math.min(r.power().length, i.power().length); f++) {
            double w = weight(r.power()[f], loudest, 40);
            if (w > 0 && r.power()[f] > 4 * r.background()) {
                double d = Math.min(JndThresholds.MOST, mine.away(other, f) / hearing.loudnessDb());
                sum += w * d * d;
                weights += w;
            }
        }
        return weights > 0 ? Math.sqrt(sum / weights) : 0;
    }

    /** 1 for the loudest frame, falling to 0 for frames {@code range} dB under it. */
    private static double weight(double power, double loudest, double range) {
        return power > 0 && loudest > 0 ? Math.max(0, 1 + 10 * Math.log10(power / loudest) / range) : 0;
    }

    private static double max(double[] v) {
        double m = 0;
        for (double x : v) {
            m = Math.max(m, x);
        }
        return m;
    }

    private static double decibels(double amplitude) {
        return 20 * Math.log10(Math.max(1e-12, amplitude));
    }
}

package nightreed.match.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import nightreed.match.hearing.Aspect;
import nightreed.match.hearing.AspectWeights;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.hearing.ListenerProfile;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.sound.BandPowers;
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
        List<PartialDifference> partials = partials(recording, imitation, gainDb);
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

    private List<PartialDifference> partials(AnalysedSound recording, AnalysedSound imitation, double gainDb) {
        Measurement r = recording.measurement();
        Measurement i = imitation.measurement();
        List<Partial> left = new ArrayList<>(i.reliablePartials());
        List<Partial> ours = new ArrayList<>(r.reliablePartials());
        ours.sort(Comparator.comparingDouble(p -> -p.amplitude()));
        double reference = ours.isEmpty() ? -60 : decibels(ours.get(0).amplitude());
        List<Heard> heard = new ArrayList<>();
        ours.forEach(p -> heard.add(new Heard(p, decibels(p.amplitude()) - reference + hearing.playbackDb())));
        List<Heard> theirs = new ArrayList<>();
        left.forEach(
                p -> theirs.add(new Heard(p, decibels(p.amplitude()) + gainDb - reference + hearing.playbackDb())));
        List<PartialDifference> out = new ArrayList<>();
        for (Heard h : heard) {
            double weight = audibility(h, heard);
            Partial twin = nearest(h.partial, left);
            if (twin == null) {
                out.add(alone(h.partial, null, weight, sounding(h.partial, recording, imitation, gainDb)));
            } else {
                left.remove(twin);
                out.add(asHeard(difference(h.partial, twin, gainDb, weight), recording, imitation, gainDb));
            }
        }
        for (Heard t : theirs) {
            if (left.contains(t.partial)) {
                // judged among the recording's partials, where it is foreign
                Sounding there = sounding(t.partial, recording, imitation, gainDb);
                out.add(alone(null, t.partial, audibility(t, heard), there));
            }
        }
        out.sort(Comparator.comparingDouble(d -> d.either().frequencyHz()));
        return out;
    }

    /** What each partial would cost if it were missing: how much the ear needs it. New, modifiable list. */
    public List<PartialDifference> missing(List<Partial> partials) {
        double reference =
                decibels(partials.stream().mapToDouble(Partial::amplitude).max().orElse(1));
        List<Heard> heard = new ArrayList<>();
        partials.forEach(p -> heard.add(new Heard(p, decibels(p.amplitude()) - reference + hearing.playbackDb())));
        List<PartialDifference> out = new ArrayList<>();
        for (Heard h : heard) {
            double weight = audibility(h, heard);
            out.add(alone(h.partial, null, weight, null));
        }
        return out;
    }

    /** @param there what sounds at its frequency, null if that is not known */
    private PartialDifference alone(Partial recording, Partial imitation, double weight, Sounding there) {
        double most = weight * JndThresholds.FULLY_HEARD_DB;
        double db = there == null ? most : Math.min(most, Math.abs(there.db));
        double off = there == null ? 0 : there.offset / hearing.partialFrequency();
        double jnd = Math.min(
                JndThresholds.MOST, Math.min(most / hearing.levelDb(), Math.hypot(db / hearing.levelDb(), off)));
        boolean less = there == null ? recording != null : there.db < 0;
        return new PartialDifference(recording, imitation, less ? -db : db, jnd, 0, weight);
    }

    /**
     * What both sides have at a partial's frequency, found or not.
     *
     * @param db     how much more the imitation has [dB]
     * @param offset how much higher the imitation's lies, as a share of the frequency
     */
    private record Sounding(double db, double offset) {}

    /** Null where it is not known. */
    private static Sounding sounding(Partial p, AnalysedSound recording, AnalysedSound imitation, double gainDb) {
        BandPowers r = recording.spectrum();
        BandPowers i = imitation.spectrum();
        if (r == null || i == null) {
            return null;
        }
        double gain = Math.pow(10, gainDb / 10);
        Double t60 = p.t60Seconds();
        double hz = p.frequencyHz();
        double least = 1e-3 * p.amplitude() * p.amplitude() + r.doubt(hz, t60) + gain * i.doubt(hz, t60);
        double mine = r.power(hz, t60);
        double other = gain * i.power(hz, t60);
        boolean both = mine > least && other > least;
        return new Sounding(
                10 * Math.log10((other + least) / (mine + least)), both ? i.offset(hz, t60) - r.offset(hz, t60) : 0);
    }

    private PartialDifference difference(Partial r, Partial i, double gainDb, double weight) {
        double db = decibels(i.amplitude()) + gainDb - decibels(r.amplitude());
        double level = db / hearing.levelDb();
        double frequency = (i.frequencyHz() / r.frequencyHz() - 1) / hearing.partialFrequency();
        double decay = 0;
        if (r.t60Seconds() != null && i.t60Seconds() != null) {
            double ratio = i.t60Seconds() / r.t60Seconds();
            decay = Math.log(ratio) / Math.log(ratio > 1 ? hearing.decayLonger() : hearing.decayShorter());
        }
        return new PartialDifference(
                r,
                i,
                db,
                Math.min(JndThresholds.MOST, Math.hypot(level, frequency)),
                Math.min(JndThresholds.MOST, decay),
                weight);
    }

    /**
     * A pair of partials, by what sounds at their frequency: a sum of several terms can be written in many ways, and where the
     * same sounds for as long, a listener does not hear which. Only what both the terms and the sound say is a difference.
     */
    private PartialDifference asHeard(
            PartialDifference d, AnalysedSound recording, AnalysedSound imitation, double gainDb) {
        if (d.levelJnd() < 0.3 && d.decayJnd() < 0.3) {
            return d;
        }
        Sounding there = sounding(d.recording(), recording, imitation, gainDb);
        if (there == null) {
            return d;
        }
        double level = Math.hypot(there.db / hearing.levelDb(), there.offset / hearing.partialFrequency());
        double decay = d.decayJnd() == 0 ? 0 : fallJnd(d.recording(), recording.spectrum(), imitation.spectrum());
        return new PartialDifference(
                d.recording(),
                d.imitation(),
                level < d.levelJnd() ? there.db : d.levelDb(),
                Math.min(d.levelJnd(), level),
                Math.min(d.decayJnd(), decay),
                d.weight());
    }

    /** How differently the power near a partial falls over time, of what is in the sound for long enough to tell [JND]. */
    private double fallJnd(Partial p, BandPowers recording, BandPowers imitation) {
        double hz = p.frequencyHz();
        double[] r = recording.path(hz, p.t60Seconds());
        double[] i = imitation.path(hz, p.t60Seconds());
        double least = recording.doubt(hz, p.t60Seconds());
        double sum = 0;
        double weights = 1e-9;
        for (int f = 1; f < Math.min(r.length, i.length); f++) {
            if (r[f] < 4 * least || r[f] < 1e-4 * r[0]) {
                continue;
            }
            double mine = 10 * Math.log10((r[0] + 1e-15) / (r[f] + 1e-15));
            double other = 10 * Math.log10((i[0] + 1e-15) / (i[f] + 1e-15));
            // a T60 is to another as the falls are, but of a fall that is hardly there only the difference can be told
            double ratio = mine / other;
            double jnd = mine > LEAST_FALL_DB && other > LEAST_FALL_DB
                    ? Math.log(ratio) / Math.log(ratio > 1 ? hearing.decayLonger() : hearing.decayShorter())
                    : Math.abs(other - mine) / hearing.levelDb();
            jnd = Math.min(JndThresholds.MOST, jnd);
            double w = Math.min(1, Math.max(0.1, mine / 10)) * (1 - mine / 40);
            sum += w * jnd * jnd;
            weights += w;
        }
        return weights < 0.2 ? JndThresholds.MOST : Math.sqrt(sum / weights);
    }

    /** A fall that tells a decay [dB]. */
    private static final double LEAST_FALL_DB = 2;

    /** Partials that differ by less than this in level and frequency are the same one [JND]. */
    private static final double SAME_JND = 4;

    private static Partial nearest(Partial p, List<Partial> among) {
        Partial best = null;
        double least = 35;
        for (Partial o : among) {
            double cents = Math.abs(Pitch.cents(p.frequencyHz(), o.frequencyHz()));
            // of a pair, the louder is the louder's twin
            double off = cents + 0.3 * Math.min(20, Math.abs(decibels(o.amplitude() / p.amplitude())));
            if (cents < 35 && (best == null || off < least)) {
                best = o;
                least = off;
            }
        }
        return best;
    }

    /** A partial at the level it is played back at [dB SPL], averaged over the first tenth of a second. */
    private record Heard(Partial partial, double spl) {
        Heard {
            double t60 = partial.t60Seconds() == null ? 100 : partial.t60Seconds();
            double fall = 2 * Math.log(1000) / t60 * 0.1;
            spl += 10 * Math.log10(-Math.expm1(-fall) / fall);
        }
    }

    /** How far a partial stands out of the masking of the others and of silence, 0 to 1. */
    private static double audibility(Heard h, List<Heard> all) {
        double hz = h.partial.frequencyHz();
        double masked = Math.pow(10, JndThresholds.quietDb(hz) / 10);
        double z = Bark.of(hz);
        for (Heard o : all) {
            if (!o.equals(h)) {
                double spread =
                        JndThresholds.spread(z - Bark.of(o.partial.frequencyHz()), o.partial.frequencyHz(), o.spl);
                masked += Math.pow(10, (o.spl - JndThresholds.TONE_MASKING_OFFSET_DB + spread) / 10);
            }
        }
        double excess = h.spl - 10 * Math.log10(masked);
        return Math.max(0, Math.min(1, excess / JndThresholds.FULLY_HEARD_DB));
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

    /** @param step depth that is just heard; of a deeper swing, a quarter of it */
    private static double swing(Movement r, Movement i, double step) {
        double mine = r == null ? 0 : r.depth();
        double other = i == null ? 0 : i.depth();
        double depth = Math.abs(mine - other) / Math.max(step, 0.25 * mine);
        double both = Math.min(1, Math.min(mine, other) / step); // the rate of what is not heard is no difference
        double rate = r == null || i == null ? 0 : Math.abs(i.rateHz() / r.rateHz() - 1) / 0.1;
        return Math.hypot(depth, both * rate);
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

package nightreed.match;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import nightreed.measure.Measurement;
import nightreed.measure.Partial;
import nightreed.measure.StrikeBands;
import nightreed.music.Bark;
import nightreed.music.Pitch;

/** Compares two sounds the way a careful listener would: at equal loudness, from the onset on, thing by thing. */
public final class Listener {
    private final Hearing hearing;

    public Listener(Hearing hearing) {
        this.hearing = hearing;
    }

    /** One with the usual thresholds. */
    public static final Listener USUAL = new Listener(Hearing.USUAL);

    /** Compares as the listener does who the recording has been given to ({@link Side#heardBy}). */
    public static Comparison compare(Side recording, Side imitation) {
        return recording.listener().hear(recording, imitation);
    }

    public Hearing hearing() {
        return hearing;
    }

    public Comparison hear(Side recording, Side imitation) {
        double gainDb = gainDb(recording, imitation);
        List<PartialDifference> partials = partials(recording.measurement(), imitation.measurement(), gainDb);
        Map<Aspect, Double> a = new EnumMap<>(Aspect.class);
        a.put(Aspect.PITCH, pitch(recording.measurement(), imitation.measurement()));
        a.put(Aspect.PARTIALS, mean(partials, PartialDifference::levelJnd));
        a.put(Aspect.DECAYS, mean(partials.stream().filter(Listener::bothDecay).toList(), PartialDifference::decayJnd));
        a.put(
                Aspect.ATTACK,
                attack(
                        recording.measurement().attackSeconds(),
                        imitation.measurement().attackSeconds()));
        a.put(Aspect.NOISE, noise(recording.measurement(), imitation.measurement(), gainDb));
        a.put(Aspect.BRIGHTNESS, brightness(recording.paths(), imitation.paths()));
        a.put(Aspect.LOUDNESS, loudness(recording.paths(), imitation.paths(), gainDb));
        return new Comparison(a, partials, gainDb);
    }

    /** Gain for equal K-weighted energy over the common span from the onsets. */
    private static double gainDb(Side recording, Side imitation) {
        double[] r = recording.paths().power();
        double[] i = imitation.paths().power();
        double er = 0;
        double ei = 0;
        for (int f = 0; f < Math.min(r.length, i.length); f++) {
            er += r[f];
            ei += i[f];
        }
        return er > 0 && ei > 0 ? 10 * Math.log10(er / ei) : 0;
    }

    private double pitch(Measurement r, Measurement i) {
        if (r.f0Hz() == null || i.f0Hz() == null) {
            return r.f0Hz() == null && i.f0Hz() == null ? 0 : Hearing.MOST;
        }
        return Math.min(Hearing.MOST, Math.abs(Pitch.cents(r.f0Hz(), i.f0Hz())) / hearing.pitchCents());
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

    private List<PartialDifference> partials(Measurement r, Measurement i, double gainDb) {
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
                out.add(alone(h.partial, null, weight));
            } else {
                left.remove(twin);
                out.add(difference(h.partial, twin, gainDb, weight));
            }
        }
        for (Heard t : theirs) {
            if (left.contains(t.partial)) {
                // judged among the recording's partials, where it is foreign
                out.add(alone(null, t.partial, audibility(t, heard)));
            }
        }
        out.sort(Comparator.comparingDouble(d -> d.either().frequencyHz()));
        return out;
    }

    /** What each partial would cost if it were missing: how much the ear needs it. New, modifiable list. */
    List<PartialDifference> missing(List<Partial> partials) {
        double reference =
                decibels(partials.stream().mapToDouble(Partial::amplitude).max().orElse(1));
        List<Heard> heard = new ArrayList<>();
        partials.forEach(p -> heard.add(new Heard(p, decibels(p.amplitude()) - reference + hearing.playbackDb())));
        List<PartialDifference> out = new ArrayList<>();
        for (Heard h : heard) {
            double weight = audibility(h, heard);
            out.add(alone(h.partial, null, weight));
        }
        return out;
    }

    private PartialDifference alone(Partial recording, Partial imitation, double weight) {
        double db = weight * FULLY_HEARD_DB;
        double jnd = Math.min(Hearing.MOST, db / hearing.levelDb());
        return new PartialDifference(recording, imitation, recording == null ? db : -db, jnd, 0, weight);
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
                r, i, db, Math.min(Hearing.MOST, Math.hypot(level, frequency)), Math.min(Hearing.MOST, decay), weight);
    }

    /** A partial this far above the masking of the others is heard in full [dB]. */
    private static final double FULLY_HEARD_DB = 20;

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
        double masked = Math.pow(10, Hearing.quietDb(hz) / 10);
        double z = Bark.of(hz);
        for (Heard o : all) {
            if (!o.equals(h)) {
                double spread = Hearing.spread(z - Bark.of(o.partial.frequencyHz()), o.partial.frequencyHz(), o.spl);
                masked += Math.pow(10, (o.spl - Hearing.MASKING_OFFSET_DB + spread) / 10);
            }
        }
        double excess = h.spl - 10 * Math.log10(masked);
        return Math.max(0, Math.min(1, excess / FULLY_HEARD_DB));
    }

    private double attack(Double r, Double i) {
        if (r == null || i == null) {
            return r == null && i == null ? 0 : Hearing.MOST;
        }
        return Math.min(Hearing.MOST, Math.abs(i - r) / Math.max(hearing.attackSeconds(), hearing.attackShare() * r));
    }

    /**
     * The burst by groups of four critical bands in three spans. A short burst in a narrow band is a handful of random
     * numbers; what could be their scatter is no difference.
     */
    private double noise(Measurement r, Measurement i, double gainDb) {
        StrikeBands rb = r.strikeBands();
        StrikeBands ib = i.strikeBands();
        Partial rs = r.strongest();
        Partial is = i.strongest();
        if (rb == null || ib == null || rs == null || is == null) {
            return 0;
        }
        // both are told relative to their own strongest partial
        double shift = decibels(is.amplitude()) + gainDb - decibels(rs.amplitude());
        double sum = 0;
        double weights = 0;
        for (int s = 0; s < rb.spans(); s++) {
            double seconds = rb.spanSeconds(s);
            for (int g = 0; g < Bark.BANDS; g += 4) {
                double masked = -65;
                double mine = group(rb.burst()[s], g);
                double other = group(ib.burst()[s], g);
                double tone = Math.max(0, group(rb.whole()[s], g) - mine);
                double masking = 10 * Math.log10(tone + 1e-12) - 8;
                for (int o = 0; o < Bark.BANDS; o += 4) { // from the neighbouring groups, 4 Bark away and more
                    double power = Math.max(0, group(rb.whole()[s], o) - group(rb.burst()[s], o));
                    double slope = o < g ? -10.0 * (g - o) : -27.0 * (o - g);
                    masking = o == g ? masking : Math.max(masking, 10 * Math.log10(power + 1e-12) - 8 + slope);
                }
                masked = Math.max(masked, masking);
                double a = Math.max(masked, 10 * Math.log10(mine + 1e-12));
                double b = Math.max(masked, 10 * Math.log10(other + 1e-12) + shift);
                double weight = Math.max(0, Math.min(1, (Math.max(a, b) - masked) / 10));
                double freedom = Math.max(1, (Bark.edgeHz(g + 4) - Bark.edgeHz(g)) * seconds);
                double scatter = 4.34 * Math.sqrt(2 / freedom);
                double jnd = Math.min(Hearing.MOST, Math.max(0, Math.abs(a - b) - scatter) / hearing.noiseDb());
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

    private double brightness(Paths r, Paths i) {
        double loudest = max(r.power());
        double sum = 0;
        double weights = 0;
        for (int f = 0; f < Math.min(r.bark().length, i.bark().length); f++) {
            double w = weight(r.power()[f], loudest, 40);
            if (w > 0 && !Double.isNaN(r.bark()[f]) && !Double.isNaN(i.bark()[f])) {
                double d = Math.min(Hearing.MOST, (i.bark()[f] - r.bark()[f]) / hearing.brightnessBark());
                sum += w * d * d;
                weights += w;
            }
        }
        return weights > 0 ? Math.sqrt(sum / weights) : 0;
    }

    private double loudness(Paths r, Paths i, double gainDb) {
        double loudest = max(r.power());
        double sum = 0;
        double weights = 0;
        for (int f = 0; f < Math.min(r.power().length, i.power().length); f++) {
            double w = weight(r.power()[f], loudest, 40);
            if (w > 0 && r.power()[f] > 4 * r.background()) {
                double db = 10 * Math.log10((i.power()[f] + 1e-15) / r.power()[f]) + gainDb;
                double d = Math.min(Hearing.MOST, Math.abs(db) / hearing.loudnessDb());
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

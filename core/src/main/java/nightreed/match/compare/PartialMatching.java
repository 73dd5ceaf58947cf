package nightreed.match.compare;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.match.hearing.JndThresholds;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.sound.BandPowers;
import nightreed.measure.Measurement;
import nightreed.measure.partial.Partial;
import nightreed.music.Bark;
import nightreed.music.Pitch;

/** Which partials of two sounds are the same, how different they are, and how much each of them is heard. */
public final class PartialMatching {
    /** A fall that tells a decay [dB]. */
    private static final double LEAST_FALL_DB = 2;

    private final JndThresholds hearing;

    public PartialMatching(JndThresholds hearing) {
        this.hearing = hearing;
    }

    /** Partials of both sides, matched where they are the same one; by rising frequency. New, modifiable list. */
    List<PartialDifference> of(AnalysedSound recording, AnalysedSound imitation, double gainDb) {
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

    private static double decibels(double amplitude) {
        return 20 * Math.log10(Math.max(1e-12, amplitude));
    }
}

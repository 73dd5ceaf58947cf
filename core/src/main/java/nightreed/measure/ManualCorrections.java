package nightreed.measure;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.measure.law.Chord;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.sound.Clip;

/**
 * What a person decided about a measurement. It is kept apart from what was measured, and laid over it.
 *
 * @param leftOutHz    partials that are no part of the sound [Hz]
 * @param takenInHz    partials that the machine doubted or did not find [Hz]
 * @param lockedHz     partials that stay as they are, whatever is estimated again around them [Hz]
 * @param refits       partials taken apart and together, in the order in which it was done
 * @param strikeNoteHz pitch that is heard, null for the measured one [Hz]
 */
public record ManualCorrections(
        List<Double> leftOutHz,
        List<Double> takenInHz,
        List<Double> lockedHz,
        List<Refit> refits,
        Double strikeNoteHz) {
    public static final ManualCorrections NONE =
            new ManualCorrections(List.of(), List.of(), List.of(), List.of(), null);

    /**
     * One place that is fitted anew.
     *
     * @param apart whether the partial there is two, or else the two on either side are one
     * @param hz    frequency of the partial, or a place between the two [Hz]
     */
    public record Refit(boolean apart, double hz) {}

    /** Two frequencies closer than this are one partial [cents], or closer than {@link #SAME_HZ}: less than any pair. */
    private static final double SAME_CENTS = 0.1;

    private static final double SAME_HZ = 0.05;

    public ManualCorrections {
        leftOutHz = known(leftOutHz);
        takenInHz = known(takenInHz);
        lockedHz = known(lockedHz);
        refits = known(refits);
    }

    /** What older projects do not know of is nothing. */
    private static <T> List<T> known(List<T> all) {
        return all == null ? List.of() : List.copyOf(all);
    }

    public ManualCorrections leaveOut(double hz) {
        return new ManualCorrections(with(leftOutHz, hz), without(takenInHz, hz), lockedHz, refits, strikeNoteHz);
    }

    public ManualCorrections takeIn(double hz) {
        return new ManualCorrections(without(leftOutHz, hz), with(takenInHz, hz), lockedHz, refits, strikeNoteHz);
    }

    /** As measured again, whether it had been left out or taken in. */
    public ManualCorrections forget(double hz) {
        return new ManualCorrections(without(leftOutHz, hz), without(takenInHz, hz), lockedHz, refits, strikeNoteHz);
    }

    public ManualCorrections lock(double hz) {
        return new ManualCorrections(leftOutHz, takenInHz, with(lockedHz, hz), refits, strikeNoteHz);
    }

    public ManualCorrections unlock(double hz) {
        return new ManualCorrections(leftOutHz, takenInHz, without(lockedHz, hz), refits, strikeNoteHz);
    }

    public ManualCorrections split(double hz) {
        return new ManualCorrections(leftOutHz, takenInHz, lockedHz, refitted(true, hz), strikeNoteHz);
    }

    /** @param hz place between the two [Hz] */
    public ManualCorrections merge(double hz) {
        return new ManualCorrections(leftOutHz, takenInHz, lockedHz, refitted(false, hz), strikeNoteHz);
    }

    private List<Refit> refitted(boolean apart, double hz) {
        List<Refit> out = new ArrayList<>(refits);
        out.add(new Refit(apart, hz));
        return out;
    }

    public ManualCorrections strikeNote(Double hz) {
        return new ManualCorrections(leftOutHz, takenInHz, lockedHz, refits, hz);
    }

    /** Whether a partial is locked. */
    public boolean locks(Partial p) {
        return holds(lockedHz, p.frequencyHz());
    }

    /** Whether a partial was left out by hand. */
    public boolean leavesOut(Partial p) {
        return holds(leftOutHz, p.frequencyHz());
    }

    /** Whether a partial was taken in by hand. */
    public boolean takesIn(Partial p) {
        return holds(takenInHz, p.frequencyHz());
    }

    /**
     * The measurement as the hand has it. A partial that was taken in and had not been found is estimated from the recording;
     * where nothing stands out, there is none.
     *
     * @param measured what was measured
     * @param clip     the recording
     */
    public Measurement over(Measurement measured, Clip clip) {
        if (equals(NONE)) {
            return measured;
        }
        double base = strikeNoteHz != null ? strikeNoteHz : measured.f0Hz() != null ? measured.f0Hz() : 0;
        List<Partial> partials = new ArrayList<>();
        for (Partial p : refitted(measured, clip)) {
            boolean another =
                    measured.isChord() && strikeNoteHz != null && !Chord.member(p.frequencyHz(), strikeNoteHz);
            Partial q = leavesOut(p) ? p.sure(false) : takesIn(p) ? p.sure(true) : another ? p.sure(false) : p;
            partials.add(base > 0 ? q.withRatio(q.frequencyHz() / base) : q);
        }
        partials.sort((a, b) -> Double.compare(a.frequencyHz(), b.frequencyHz()));
        List<String> remarks = new ArrayList<>(measured.remarks());
        remarks.add(String.format(
                Locale.ROOT,
                "By hand: %d left out, %d taken in, %d locked, %d taken apart, %d taken together%s.",
                leftOutHz.size(),
                takenInHz.size(),
                lockedHz.size(),
                refits.stream().filter(Refit::apart).count(),
                refits.stream().filter(r -> !r.apart).count(),
                strikeNoteHz == null ? "" : ", the strike note chosen"));
        HeardPitch heard = strikeNoteHz == null
                ? measured.pitch()
                : HeardPitch.of(strikeNoteHz, measured.pitch().strikeNotes());
        return measured.withHand(heard, partials, remarks);
    }

    /** What was measured, with what was taken in, apart and together estimated from the recording. */
    private List<Partial> refitted(Measurement measured, Clip clip) {
        List<Partial> partials = new ArrayList<>(measured.partials());
        for (double hz : takenInHz) {
            Partial found = partials.stream().anyMatch(p -> same(p.frequencyHz(), hz))
                    ? null
                    : PartialNear.find(clip, measured, hz);
            if (found != null) {
                partials.add(found);
            }
        }
        HandFit fit = refits.isEmpty() ? null : HandFit.of(clip, measured, this::locks);
        if (fit != null) {
            for (Refit r : refits) {
                partials = r.apart ? fit.split(partials, r.hz) : fit.merge(partials, r.hz);
            }
        }
        return partials;
    }

    private static boolean same(double a, double b) {
        return Math.abs(a - b) < SAME_HZ || Math.abs(Pitch.cents(a, b)) < SAME_CENTS;
    }

    private static boolean holds(List<Double> all, double hz) {
        return all.stream().anyMatch(v -> same(v, hz));
    }

    private static List<Double> with(List<Double> all, double hz) {
        List<Double> out = without(all, hz);
        out.add(hz);
        return out;
    }

    private static List<Double> without(List<Double> all, double hz) {
        List<Double> out = new ArrayList<>(all);
        out.removeIf(v -> same(v, hz));
        return out;
    }
}

package nightreed.measure.law;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;

/**
 * Several harmonic notes at once. They are recognised where no one series explains the partials and two to four do, each with
 * its own fundamental and most of its lowest harmonics (cancelling one note after the other, as in A. Klapuri, IEEE Trans.
 * Speech and Audio Processing 11(6), 2003).
 *
 * @param notesHz fundamentals, rising [Hz]
 * @param share   share of the energy of the partials that they explain, 0 to 1
 */
public record Chord(List<Double> notesHz, double share) {
    /** Distance from n times the fundamental [cents]; stiff strings rise above it. */
    private static final double NEAR_CENTS = 9;

    private static final double STIFF_CENTS = 0.12; // more, times n²

    /** Harmonics by which a note is known. */
    private static final int LOWEST = 8;

    private static final int LEAST_OF_LOWEST = 4;
    private static final int MOST_NOTES = 4;

    /** Of all notes together: of some instruments each has two or three. */
    private static final int MOST_STRINGS = 10;

    /** Partials under this say nothing of a note [dB]. */
    private static final double LEAST_DB = -45;

    /** Fundamentals nearer than this are strings of one note that are out of tune with each other [cents]. */
    private static final double ONE_NOTE_CENTS = 60;

    /** Energy that all notes together must explain, and that one alone must not. */
    private static final double ALL = 0.9;

    private static final double ONE = 0.85;

    /** A note that adds less than this to what the others explain is none. */
    private static final double LEAST_SHARE = 0.04;

    /** Null if the partials are those of one note, or of no harmonic notes at all. */
    public static Chord of(List<Partial> partials) {
        List<Partial> sure = new ArrayList<>();
        for (Partial p : partials) {
            if (p.reliable() && p.levelDb() > LEAST_DB) {
                sure.add(p);
            }
        }
        if (sure.size() < 2 * LEAST_OF_LOWEST) {
            return null;
        }
        sure.sort(Comparator.comparingDouble(Partial::frequencyHz));
        double total = energy(sure);
        List<Partial> left = new ArrayList<>(sure);
        List<Double> notes = new ArrayList<>();
        double first = 0;
        int strings = 0;
        while (notes.size() < MOST_NOTES && strings++ < MOST_STRINGS) {
            Double best = null;
            double most = LEAST_SHARE * total;
            for (Partial p : left) {
                double hz = p.frequencyHz();
                double explained = energy(of(hz, left));
                boolean own = notes.stream().noneMatch(n -> member(hz, n));
                if (own && lowest(hz, sure) >= LEAST_OF_LOWEST && fresh(hz, notes, left) && explained > most) {
                    most = explained;
                    best = hz;
                }
            }
            if (best == null) {
                break;
            }
            double hz = best;
            if (notes.isEmpty() || beside(hz, notes.get(0))) {
                first += most / total;
            }
            if (notes.stream().noneMatch(n -> beside(hz, n))) {
                notes.add(best);
            }
            left.removeAll(of(best, left));
        }
        double share = 1 - energy(left) / total;
        if (notes.size() < 2 || first > ONE || share < ALL || related(notes)) {
            return null;
        }
        notes.sort(Comparator.naturalOrder());
        return new Chord(List.copyOf(notes), share);
    }

    /** Whether a partial may belong to the note of a fundamental [Hz]. */
    public static boolean member(double hz, double fundamentalHz) {
        double n = Math.rint(hz / fundamentalHz);
        if (n < 1) {
            return false;
        }
        double cents = Pitch.cents(n * fundamentalHz, hz);
        return cents > -NEAR_CENTS && cents < NEAR_CENTS + Math.min(60, STIFF_CENTS * n * n);
    }

    private static boolean beside(double hz, double other) {
        return Math.abs(Pitch.cents(hz, other)) < ONE_NOTE_CENTS;
    }

    public String words() {
        StringBuilder names = new StringBuilder();
        for (int i = 0; i < notesHz.size(); i++) {
            names.append(i == 0 ? "" : i == notesHz.size() - 1 ? " and " : ", ")
                    .append(Pitch.name(Pitch.nearestKey(notesHz.get(i))));
        }
        return "These are several notes at once, " + names
                + ": one imitation is of one note. Record them one by one, or choose one of them to go on with its"
                + " partials alone.";
    }

    private static List<Partial> of(double fundamentalHz, List<Partial> partials) {
        return partials.stream()
                .filter(p -> member(p.frequencyHz(), fundamentalHz))
                .toList();
    }

    /** How many of the lowest harmonics of a fundamental sound. */
    private static int lowest(double hz, List<Partial> partials) {
        int count = 0;
        for (int n = 1; n <= LOWEST; n++) {
            int number = n;
            count += partials.stream()
                            .anyMatch(p -> Math.rint(p.frequencyHz() / hz) == number && member(p.frequencyHz(), hz))
                    ? 1
                    : 0;
        }
        return count;
    }

    /** Whether a further note has at least three harmonics that no note before it has. */
    private static boolean fresh(double hz, List<Double> notes, List<Partial> left) {
        return notes.isEmpty() || of(hz, left).size() >= 3;
    }

    /** Whether all are multiples of one fundamental that sounds: then they are harmonics of one note. */
    private static boolean related(List<Double> notes) {
        double low = notes.stream().mapToDouble(n -> n).min().orElse(1);
        return notes.stream().allMatch(n -> member(n, low));
    }

    private static double energy(List<Partial> partials) {
        double sum = 0;
        for (Partial p : partials) {
            double t60 = p.t60Seconds() == null ? 3 : Math.min(3, p.t60Seconds());
            sum += Math.pow(10, p.levelDb() / 10) * t60;
        }
        return sum;
    }
}

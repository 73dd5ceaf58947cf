package nightreed.voice.explain;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.FmPair;
import nightreed.recipe.FmRecipe;
import nightreed.voice.fm.FmColour;
import nightreed.voice.fm.Sidebands;

/** Sidebands of each pair with folding, and their levels over time. */
final class FmTables {
    private static final double LEAST_DB = -60;
    private static final int MOST_ROWS = 64;

    /** Times at which levels are told, as shares of the time that the envelopes take. */
    private static final double[] TIMES = {0, 0.1, 0.3, 0.6, 1};

    private FmTables() {}

    static List<Table> of(FmRecipe r, double hz) {
        List<Table> out = new ArrayList<>();
        for (int i = 0; i < r.pairs().size(); i++) {
            out.add(pair(r, r.pairs().get(i), i + 1, hz));
        }
        return out;
    }

    private static double index(FmRecipe r, FmPair p, double hz) {
        return p.index() * (p.tracking() ? 1 : r.f0Hz() / hz);
    }

    private static Table pair(FmRecipe r, FmPair p, int number, double hz) {
        double pace = Math.pow(hz / r.f0Hz(), -r.decayPower());
        double c = hz * p.carrierRatio();
        double m = hz * p.modulatorRatio();
        double start = p.bend().delaySeconds() + p.bend().attackSeconds();
        double span = Math.max(
                0.01,
                Math.min(10, pace * Math.max(p.bend().decaySeconds(), p.bend().holdSeconds())));
        String[] heads = new String[4 + TIMES.length];
        heads[0] = "frequency [Hz] .2";
        heads[1] = "ratio .4";
        heads[2] = "from harmonic [cents] .1";
        heads[3] = "phase [rad] .2";
        List<List<Sidebands.Line>> at = new ArrayList<>();
        double[] indexes = new double[TIMES.length];
        for (int k = 0; k < TIMES.length; k++) {
            double t = start + TIMES[k] * span;
            indexes[k] = index(r, p, hz) * p.bend().at(t, pace);
            heads[4 + k] = String.format(java.util.Locale.ROOT, "at %.3f s, I = %.2f [dB] .1", t, indexes[k]);
            at.add(Sidebands.lines(
                    c, m, indexes[k], p.carrierPhaseRad(), p.modulatorPhaseRad(), 0.49 * Arithmetic.SAMPLE_RATE_HZ));
        }
        Rows rows = new Rows("pair " + number + ": sidebands", heads);
        if (p.kind() == FmPair.Kind.PULSE_WIDTH) {
            rows.say("Width of a pulse: harmonic n has sidebands J_k(n I); the table is that of the first.");
        }
        if (number > 1 && p.chainRad() > 0) {
            rows.say(
                    "Not heard by itself: all of it bends the carrier of pair %d by up to %.2f rad, along its level.",
                    number - 1, p.chainRad());
        } else {
            FmColour colour = FmColour.of(p, indexes[0], hz);
            rows.say("Roughness at its top %.2f asper.", colour.asper());
        }
        int told = 0;
        for (Sidebands.Line l : at.get(0)) {
            if (l.levelDb() < LEAST_DB || told >= MOST_ROWS) {
                continue;
            }
            told++;
            Double[] row = new Double[4 + TIMES.length];
            row[0] = l.hz();
            row[1] = l.hz() / hz;
            row[2] = Rows.centsFromHarmonic(l.hz(), hz);
            row[3] = l.phaseRad();
            for (int k = 0; k < TIMES.length; k++) {
                row[4 + k] = levelAt(at.get(k), l.hz());
            }
            rows.add(row);
        }
        remarks(rows, p, c, m, index(r, p, hz), at.get(0), hz);
        return rows.done();
    }

    private static Double levelAt(List<Sidebands.Line> lines, double hz) {
        for (Sidebands.Line l : lines) {
            if (Math.abs(l.hz() - hz) < 1e-3) {
                return l.levelDb();
            }
        }
        return null;
    }

    private static void remarks(
            Rows rows, FmPair p, double c, double m, double index, List<Sidebands.Line> lines, double hz) {
        double off = 0;
        double all = 0;
        double first = 0;
        for (Sidebands.Line l : lines) {
            double power = l.amplitude() * l.amplitude();
            all += power;
            off += Math.abs(Rows.centsFromHarmonic(l.hz(), hz)) > 15 ? power : 0;
            first += Math.abs(l.hz() - hz) < 0.01 * hz ? power : 0;
        }
        rows.say("%.0f %% of the power lies off the harmonics of %.1f Hz.", 100 * off / Math.max(1e-12, all), hz);
        if (first < 1e-4 * all) {
            rows.say("The fundamental itself is gone.");
        }
        double top = Sidebands.topHz(c, m, index);
        rows.say("Sidebands matter up to %.0f Hz.", top);
        if (top > (8 - 0.55) * Arithmetic.SAMPLE_RATE_HZ) {
            rows.say("That is more than can be computed without folding: the index is held back on this key.");
        }
        if (p.free()) {
            rows.say("Phases are free: where sidebands fold onto others, each note sounds another spectrum.");
        }
        if (!p.tracking()) {
            rows.say("The deviation is fixed in Hz: I is %.2f on this key.", index);
        }
    }
}

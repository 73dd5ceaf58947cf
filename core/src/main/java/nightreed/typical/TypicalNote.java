package nightreed.typical;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.measure.Typical;
import nightreed.music.Pitch;
import nightreed.typical.Family.Burst;
import nightreed.typical.Family.Held;
import nightreed.typical.Family.Resonance;
import nightreed.typical.Family.Struck;

/**
 * What a description comes to in numbers.
 *
 * @param f0Hz           pitch [Hz]
 * @param lines          partials or harmonics, ascending
 * @param keySeconds     how long the key is held; infinite for what is struck [s]
 * @param releaseSeconds fall by 60 dB after that [s]
 * @param noise          of the strike, or of breath and bow; its T60 is infinite for what is held
 * @param vibratoHz      rate of vibrato and tremolo [Hz]
 * @param vibratoCents   to either side [cents]
 * @param tremoloDb      to either side [dB]
 * @param voicesCents    detuning of each of several players or waves [cents]
 * @param roomDb         level of the room against the sound [dB]; minus infinity for none
 * @param roomSeconds    T60 of the room [s]
 */
public record TypicalNote(
        Description asked,
        double f0Hz,
        List<Line> lines,
        double keySeconds,
        double releaseSeconds,
        Burst noise,
        double vibratoHz,
        double vibratoCents,
        double tremoloDb,
        double[] voicesCents,
        double roomDb,
        double roomSeconds) {
    /** What the least and the greatest place of a slider do; chosen so that both ends still are the instrument. */
    private static final double BRIGHT_DB = 4; // per octave

    private static final double BRIGHT_OCTAVES = 1.2; // of a corner
    private static final double LONGER = 4;
    private static final double HARDER = 4;
    private static final double HARDER_NOISE_DB = 8;
    private static final double NOISIER_DB = 15;
    private static final double FOUND_VIBRATO_CENTS = 20; // of families that have none
    private static final double FOUND_SPLIT_HZ = 1.5;

    /** A hard blow against a middling one, from 0.7 to 1 [dB/octave] and [octaves]: louder notes are brighter. */
    private static final double VELOCITY_DB = 6;

    private static final double VELOCITY_OCTAVES = 1.5;
    private static final double USUAL_VELOCITY = 0.7;

    private static final double HELD_SECONDS = 2;
    private static final double ROOM_SECONDS = 0.5;
    private static final double ROOM_MOST_DB = -6;
    private static final double ROOM_LEAST_DB = -30;

    /** Partials above are not played [Hz]: those of a recording at 44.1 kHz. */
    private static final double HIGHEST_HZ = 18_000;

    /** Weaker ones are left out [dB]. */
    private static final double LEAST_DB = -70;

    private static final int MOST_HARMONICS = 48;

    /**
     * One partial.
     *
     * @param ratio        to the pitch
     * @param levelDb      0 for the strongest [dB]
     * @param t60Seconds   infinite for what is held [s]
     * @param delaySeconds after the first, until it begins [s]
     * @param riseSeconds  until it is at its top [s]
     * @param splitHz      distance of its two modes; 0 for one [Hz]
     */
    public record Line(
            double ratio, double levelDb, double t60Seconds, double delaySeconds, double riseSeconds, double splitHz) {}

    /**
     * A value as people read it.
     *
     * @param tolerance within which instruments of the family differ, in words
     */
    public record Value(String name, String value, String tolerance) {}

    public static TypicalNote of(Description d) {
        return d.family().body() instanceof Held h
                ? held(d, h)
                : struck(d, (Struck) d.family().body());
    }

    private static TypicalNote struck(Description d, Struck s) {
        double f0 = Pitch.hz(d.key());
        double harder = d.velocity() - USUAL_VELOCITY;
        double tilt = BRIGHT_DB * d.bright() + VELOCITY_DB * harder;
        double contact = s.contactMs() / 1000 * Math.pow(HARDER, -d.hard() - harder);
        double first = s.t60Seconds() * Math.pow(s.atHz() / f0, s.keyPower()) * Math.pow(LONGER, d.length());
        double split = s.splitHz() * Math.pow(LONGER, d.moving()) + FOUND_SPLIT_HZ * Math.max(0, d.moving());
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < s.ratios().length; i++) {
            double ratio = s.ratios()[i];
            double octaves = Math.log(ratio) / Math.log(2);
            double db = (i < s.levelsDb().length ? s.levelsDb()[i] : s.slopeDb() * octaves) + tilt * octaves;
            if (s.pluckAt() > 0) {
                db += 20 * Math.log10(Math.abs(Math.sin(Math.PI * (i + 1) * s.pluckAt())) + 1e-3);
            }
            double t60 = Math.max(0.03, Math.min(60, first * Math.pow(ratio, -s.ratioPower())));
            double bloom = s.bloomMs() / 1000 * Math.max(0, octaves) * Math.pow(HARDER, -d.hard());
            if (ratio * f0 < HIGHEST_HZ) {
                lines.add(new Line(ratio, db, t60, 0, Math.max(contact, bloom), Math.min(split, 0.02 * ratio * f0)));
            }
        }
        Burst b = s.strike();
        Burst noise = new Burst(
                b.levelDb() + HARDER_NOISE_DB * (d.hard() + harder) + NOISIER_DB * d.noisy(),
                b.t60Seconds(),
                b.lowHz(),
                b.highHz());
        return new TypicalNote(
                d,
                f0,
                loudestAtZero(lines),
                Double.POSITIVE_INFINITY,
                0.3,
                noise,
                0,
                0,
                0,
                new double[] {0},
                roomDb(d),
                roomSeconds(d));
    }

    private static TypicalNote held(Description d, Held h) {
        double f0 = Pitch.hz(d.key());
        double harder = d.velocity() - USUAL_VELOCITY;
        double corner = h.cornerHz() * Math.pow(2, BRIGHT_OCTAVES * d.bright() + VELOCITY_OCTAVES * harder);
        double slower = Math.pow(HARDER, -d.hard());
        List<Line> lines = new ArrayList<>();
        for (int n = 1; n <= MOST_HARMONICS && n * f0 < HIGHEST_HZ; n++) {
            double octaves = Math.log(n) / Math.log(2);
            double over = Math.log(1 + Math.pow(n * f0 / corner, 2)) / (2 * Math.log(2)); // octaves beyond the corner
            double db = (h.slopeDb() + BRIGHT_DB / 2 * d.bright()) * octaves + h.beyondDb() * over;
            db += n % 2 == 0 ? h.evenDb() * 2 / n : 0;
            for (Resonance r : h.formants()) {
                double x = (n * f0 - r.hz()) / (r.widthHz() / 2);
                db += r.db() / (1 + x * x);
            }
            lines.add(new Line(
                    n,
                    db,
                    Double.POSITIVE_INFINITY,
                    h.laterMs() / 1000 * (n - 1) * slower,
                    h.attackMs() / 1000 * slower,
                    0));
        }
        double moving = Math.pow(LONGER, d.moving());
        double vibrato = d.moving() <= -1
                ? 0
                : h.vibratoCents() > 0 ? h.vibratoCents() * moving : FOUND_VIBRATO_CENTS * Math.max(0, d.moving());
        double tremolo = d.moving() <= -1 ? 0 : h.tremoloDb() * moving;
        return new TypicalNote(
                d,
                f0,
                loudestAtZero(lines),
                HELD_SECONDS * Math.pow(2, d.length()),
                h.releaseMs() / 1000 * Math.pow(2, d.length()),
                new Burst(
                        h.noiseDb() + NOISIER_DB * d.noisy(),
                        Double.POSITIVE_INFINITY,
                        h.noiseLowHz(),
                        h.noiseHighHz()),
                h.vibratoHz(),
                vibrato,
                Math.min(12, tremolo),
                h.voicesCents(),
                roomDb(d),
                roomSeconds(d));
    }

    private static double roomDb(Description d) {
        return d.roomy() <= -1
                ? Double.NEGATIVE_INFINITY
                : ROOM_LEAST_DB + (ROOM_MOST_DB - ROOM_LEAST_DB) * (d.roomy() + 1) / 2;
    }

    private static double roomSeconds(Description d) {
        return ROOM_SECONDS * Math.pow(2, 1 + d.roomy());
    }

    private static List<Line> loudestAtZero(List<Line> lines) {
        double top = lines.stream().mapToDouble(Line::levelDb).max().orElse(0);
        return lines.stream()
                .filter(l -> l.levelDb() > top + LEAST_DB)
                .map(l -> new Line(
                        l.ratio(), l.levelDb() - top, l.t60Seconds(), l.delaySeconds(), l.riseSeconds(), l.splitHz()))
                .toList();
    }

    public boolean isHeld() {
        return Double.isFinite(keySeconds);
    }

    /** How long it sounds [s]. */
    public double seconds() {
        double own = isHeld()
                ? keySeconds + Math.min(3, releaseSeconds)
                : Math.min(8, lines.stream().mapToDouble(Line::t60Seconds).max().orElse(1));
        return Math.max(0.5, own) + (Double.isInfinite(roomDb) ? 0 : Math.min(2, roomSeconds));
    }

    /** Centroid of the partials at their tops [Hz]. */
    public double centroidHz() {
        double sum = 0;
        double power = 1e-12;
        for (Line l : lines) {
            double p = Math.pow(10, l.levelDb() / 10);
            sum += p * l.ratio() * f0Hz;
            power += p;
        }
        return sum / power;
    }

    /** What it takes to describe it, each value with how far instruments of the family differ. */
    public List<Value> values() {
        List<Value> out = new ArrayList<>();
        out.add(value("pitch", "%.1f Hz", f0Hz, "as described"));
        out.add(new Value(
                "partials",
                lines.size() + " up to " + text("%.1f", lastRatio()) + " times the pitch",
                isHeld() ? "whole numbers" : "±" + (int) Typical.SPREAD_CENTS + " cents"));
        out.add(value("centroid", "%.0f Hz", centroidHz(), "a third of an octave"));
        if (isHeld()) {
            out.add(value("rise", "%.0f ms", 1000 * lines.get(0).riseSeconds(), "half to twice"));
            out.add(value("each further harmonic", "%.1f ms later", 1000 * later(), "half to twice"));
            out.add(value("release", "%.0f ms", 1000 * releaseSeconds, "half to twice"));
            out.add(new Value(
                    "vibrato",
                    vibratoCents == 0 ? "none" : text("%.1f Hz, ", vibratoHz) + text("±%.0f cents", vibratoCents),
                    "half to twice"));
        } else {
            out.add(value("T60 of the first", "%.2f s", lines.get(0).t60Seconds(), "half to twice"));
            out.add(value(
                    "T60 of the last", "%.2f s", lines.get(lines.size() - 1).t60Seconds(), "half to twice"));
        }
        out.add(value(
                isHeld() ? "breath or bow" : "noise of the strike",
                "%.0f dB",
                noise.levelDb(),
                "±" + (int) Typical.LEVEL_DB + " dB"));
        return out;
    }

    private double lastRatio() {
        return lines.get(lines.size() - 1).ratio();
    }

    private double later() {
        return lines.size() < 2 ? 0 : lines.get(1).delaySeconds() - lines.get(0).delaySeconds();
    }

    private static Value value(String name, String format, double value, String tolerance) {
        return new Value(name, text(format, value), tolerance);
    }

    private static String text(String format, double value) {
        return String.format(Locale.ROOT, format, value);
    }
}

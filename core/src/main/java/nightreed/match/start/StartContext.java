package nightreed.match.start;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import nightreed.match.sound.AnalysedSound;
import nightreed.match.start.Start.Origin;
import nightreed.measure.Measurement;
import nightreed.measure.StrikeNoise;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.Lfo;
import nightreed.recipe.part.Route;
import nightreed.recipe.part.Route.Source;
import nightreed.recipe.part.Route.Target;
import nightreed.recipe.part.SingleCycle;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/** What all methods take from a measurement: pitch, level, courses, noise, movement. Notes down where each came from. */
public final class StartContext {
    /** Where a sound without a pitch is put on the keyboard: C4 [Hz]. */
    private static final double USUAL_HZ = 261.63;

    /** What a level may swing down to by itself, and frames that its usual height is told from. */
    private static final double LEAST_OWN = 0.2;

    private static final int USUAL_FRAMES = 100;

    private final AnalysedSound side;
    private final Progress progress;
    private final Measurement m;
    private final List<Origin> origins =
            Collections.synchronizedList(new ArrayList<>()); // starts may be made side by side
    private final List<Line> lines = new ArrayList<>();

    /**
     * One line of the spectrum.
     *
     * @param t60      null for one that is held or unknown [s]
     * @param beatHz   null if it does not beat
     * @param phaseRad at the onset, of a cosine [rad]; of a held note relative to a multiple of its path
     */
    public record Line(double hz, double amplitude, Double t60, Double beatHz, double phaseRad) {
        public double db() {
            return 20 * Math.log10(amplitude + 1e-12);
        }
    }

    /** For one that nobody waits for. @throws UnusableSound if there is no pitch to build on */
    public StartContext(AnalysedSound side) throws UnusableSound {
        this(side, true, Progress.NONE);
    }

    /**
     * @param pitched  whether there has to be a pitch; without it there may be no lines, and the key is a usual one
     * @param progress asked between steps of the work whether to go on
     * @throws UnusableSound if these are several notes, or there is no pitch and there has to be
     */
    public StartContext(AnalysedSound side, boolean pitched, Progress progress) throws UnusableSound {
        this.side = side;
        this.progress = progress;
        this.m = side.measurement();
        if (m.isChord()) {
            throw new UnusableSound("These are several notes at once, and an imitation is of one: choose one of them on"
                    + " the Measure stage, or record them one by one.");
        }
        if (m.f0Hz() == null && pitched) {
            throw new UnusableSound("No pitch could be measured, so there is nothing to compute starting values from:"
                    + " use a longer or cleaner recording.");
        }
        if (m.held() != null) {
            for (HeldHarmonic h : m.held().harmonics()) {
                lines.add(new Line(h.number() * m.held().f0Hz(), h.amplitude(), null, null, h.phaseRad()));
            }
        }
        if (lines.isEmpty()) {
            for (Partial p : m.reliablePartials()) {
                lines.add(new Line(p.frequencyHz(), p.amplitude(), p.t60Seconds(), p.beatHz(), p.phaseRad()));
            }
        }
        lines.sort(Comparator.comparingDouble(l -> -l.amplitude()));
        if (lines.isEmpty() && pitched) {
            throw new UnusableSound(
                    "No partial stands clear of the noise, so there is nothing to compute starting values"
                            + " from: use a longer or cleaner recording.");
        }
        boolean found = isPitched();
        String tuned = found ? String.format(Locale.ROOT, "measured pitch %.2f Hz", m.f0Hz()) : "no pitch was found";
        say("tune", found, tuned);
    }

    /** What is said last of a value counts. */
    public void say(String id, boolean measured, String why) {
        origins.removeIf(o -> o.parameterId().equals(id));
        origins.add(new Origin(id, measured, why));
    }

    public List<Origin> origins() {
        return origins;
    }

    /** Asked between steps of the work whether to go on. */
    public Progress progress() {
        return progress;
    }

    public AnalysedSound side() {
        return side;
    }

    public Measurement measurement() {
        return m;
    }

    public boolean isHeld() {
        return m.held() != null;
    }

    /** Whether a pitch and lines of it were found. */
    public boolean isPitched() {
        return m.f0Hz() != null && !lines.isEmpty();
    }

    public double f0() {
        return m.f0Hz() == null ? USUAL_HZ : m.f0Hz();
    }

    public int key() {
        return Math.max(0, Math.min(127, Pitch.nearestKey(f0())));
    }

    public double cents() {
        return limited(Pitch.cents(Pitch.hz(key()), f0()), -100, 100);
    }

    /** Lines of the spectrum, the strongest first; never empty. */
    public List<Line> lines() {
        return lines;
    }

    public double attack() {
        Double a = m.attackSeconds();
        if (isHeld()) {
            a = m.held().harmonics().stream()
                    .map(HeldHarmonic::attackSeconds)
                    .filter(v -> v != null && v > 0)
                    .findFirst()
                    .orElse(a);
        }
        return a == null ? 0.005 : limited(a / 0.8, 0.0005, 5); // from 10-90 % to the whole rise
    }

    /** Fall after the key is let go, for 60 dB [s]; a usual one where that was not heard. */
    public double release() {
        Double heard = side.releaseSeconds();
        return heard != null ? limited(heard, 0.01, 20) : isHeld() ? 0.12 : 0.3;
    }

    /** Decay of all lines together: twice the time in which their energy falls by 30 dB [s]. */
    public double t60() {
        double start = energyAt(0);
        if (start == 0) {
            return 1;
        }
        double low = 0;
        double high = 60;
        for (int i = 0; i < 40; i++) {
            double mid = (low + high) / 2;
            if (energyAt(mid) > 1e-3 * start) {
                low = mid;
            } else {
                high = mid;
            }
        }
        return limited(2 * low, 0.01, 100);
    }

    /** Energy of the lines whose decay is known, a time after the onset [s]. */
    private double energyAt(double t) {
        double sum = 0;
        for (Line l : lines) {
            sum += l.t60() == null ? 0 : l.amplitude() * l.amplitude() * Math.pow(10, -6 * t / l.t60());
        }
        return sum;
    }

    /** Course of the level as it was measured, without a movement that was found. */
    public Envelope amplitude(String id) {
        Common movement = movement(false);
        boolean swings = movement.routes().stream().anyMatch(r -> r.target() == Target.LEVEL);
        if (!swings || isLevelByChance()) {
            return amplitude(id, side.loudness(), isHeld() ? attack() : limited(attack(), 0.0003, 0.05));
        }
        double[] own = Arrays.stream(side.loudSeconds())
                .map(t -> Math.pow(10, SteadyNote.levelDb(movement, t) / 20))
                .toArray();
        return amplitude(id, own);
    }

    /** Whether the level steps along a course that is not known. */
    private boolean isLevelByChance() {
        return m.held().tremolo().shape() == Movement.Shape.STEPPED;
    }

    /**
     * The same of a held note whose level swings and rises by itself, as that of lines that beat does.
     *
     * @param own frames of its level without a course, as of {@link AnalysedSound#loudness}
     */
    public Envelope amplitude(String id, double[] own) {
        double[] loud = side.loudness();
        double top = Arrays.stream(own).max().orElse(1);
        for (int f = 0; f < loud.length; f++) {
            loud[f] /= f < own.length ? Math.max(own[f] / top, LEAST_OWN) : 1;
        }
        double[] sorted = Arrays.copyOf(loud, Math.max(1, Math.min(loud.length, USUAL_FRAMES)));
        Arrays.sort(sorted);
        double usual = sorted[sorted.length / 2];
        int low = 0;
        while (low < loud.length && loud[low] < 0.1 * usual) {
            low++;
        }
        int high = low;
        while (high < loud.length && loud[high] < 0.9 * usual) {
            high++;
        }
        double rise = (high - low) * 2 * side.loudSeconds()[0] / 0.8; // from 10-90 % to the whole rise
        return amplitude(id, loud, limited(rise, 0.001, 5));
    }

    private Envelope amplitude(String id, double[] loud, double rise) {
        say(
                id + ".attack",
                isHeld() || m.attackSeconds() != null,
                isHeld() ? "measured rise" : "measured rise of the waveform");
        for (String part : List.of(".decay", ".fallCurve", ".sustain")) {
            say(id + part, true, "course of the loudness");
        }
        say(
                id + ".release",
                side.releaseSeconds() != null,
                side.releaseSeconds() != null ? "fall after the key is let go" : "a usual one: no key is let go");
        double[] every = side.loudSeconds();
        // the rise is measured better than by such frames, and a burst is not what is shaped
        double from = Math.max(
                0.7 * rise, m.noise() == null ? 0 : Math.min(0.06, m.noise().t60Seconds() / 2));
        double most = 1e-12;
        for (int f = 0; f < every.length; f++) {
            most = every[f] > from ? Math.max(most, loud[f]) : most;
        }
        List<double[]> seen = new ArrayList<>(); // closer together at first, as the ear listens
        for (int f = 0; f < every.length; f += Math.max(1, f / 5)) {
            double share = loud[f] / most;
            double weight = Math.max(0.02, 1 + 20 * Math.log10(share + 1e-9) / 45);
            if (every[f] > from) {
                seen.add(new double[] {every[f], share, weight});
            }
        }
        if (seen.size() < 3) {
            return isHeld() ? Envelope.held(rise, release()) : Envelope.struck(rise, t60(), release());
        }
        double[] seconds = column(seen, 0);
        LateRise late = late();
        if (late == null) {
            return EnvelopeFit.ofLevel(seconds, column(seen, 1), column(seen, 2), rise, release())
                    .envelope();
        }
        say(id + ".delay", true, "the tone comes later than the onset");
        double[] after = Arrays.stream(seconds)
                .map(t -> Math.max(0, t - late.delaySeconds()))
                .toArray();
        return EnvelopeFit.ofLevel(after, column(seen, 1), column(seen, 2), late.attackSeconds(), release())
                .envelope()
                .withDelaySeconds(late.delaySeconds());
    }

    /** What a held note's tone waits for; null if it comes at once. */
    public LateRise late() {
        return isHeld() ? LateRise.of(side) : null;
    }

    private static double[] column(List<double[]> rows, int i) {
        return rows.stream().mapToDouble(r -> r[i]).toArray();
    }

    /** Course of the brightness: the time in which the centroid falls to half. */
    public Envelope brightness(String id) {
        if (isHeld() || m.brightness() == null) {
            say(id, isHeld(), "follows the level, as in brass");
            return isHeld() ? Envelope.held(attack() * 1.5, release()) : Envelope.struck(0.0005, 0.6 * t60(), 0.3);
        }
        say(id + ".decay", true, "half time of the brightness");
        double t60 = m.brightness().halfTimeSeconds() * Math.log(1000) / Math.log(2);
        return Envelope.struck(0.0005, limited(t60, 0.02, 100), 0.3);
    }

    /** Noise of the strike, off where none was found; null for a held note that comes in slowly. */
    public Exciter strike() {
        StrikeNoise n = m.noise();
        if (n == null) {
            return isHeld() && side.comesInSlowly() ? null : new Exciter(contactMs(), -100, 20, 200, 8000);
        }
        say("noise", true, "measured noise of the strike");
        return new Exciter(
                contactMs(),
                limited(n.levelDb() + 3, -99, 24),
                limited(1000 * n.t60Seconds(), 2, 1500),
                limited(n.lowHz(), 20, 9000),
                limited(Math.max(n.highHz(), 1.5 * n.lowHz()), 60, 20_000));
    }

    public double contactMs() {
        say("exciter.contact", m.attackSeconds() != null, "measured rise of the waveform");
        return m.attackSeconds() == null || isHeld() ? 0.5 : limited(1000 * m.attackSeconds(), 0.05, 12);
    }

    /** Vibrato, tremolo and a moving filter, as far as they were found. */
    public Common movement(boolean filterMoves) {
        HeldNote h = m.held();
        if (h == null) {
            return Common.NONE;
        }
        List<Route> routes = new ArrayList<>();
        Lfo first = null;
        Lfo second = null;
        if (h.vibrato() != null) {
            first = lfo(h.vibrato());
            routes.add(new Route(Source.LFO_1, Target.PITCH, limited(h.vibrato().depth(), 0, 1200)));
            say("lfo.1", true, "measured vibrato");
        }
        Movement level = h.tremolo();
        if (level != null) {
            second = lfo(level);
            routes.add(new Route(Source.LFO_2, Target.LEVEL, limited(level.depth(), 0, 40)));
            say("lfo.2", true, "measured tremolo");
        }
        Movement filter = h.filter();
        if (filter != null && filterMoves) {
            Source from = Source.LFO_2;
            Movement with = null; // that the LFO goes along with
            if (first != null && together(h.vibrato(), filter)) {
                from = Source.LFO_1;
                with = h.vibrato();
            } else if (second == null) {
                second = lfo(filter);
                with = filter;
                say("lfo.2", true, "measured movement of the brightness");
            } else if (together(level, filter)) {
                with = level;
            }
            if (with != null) {
                double way = Math.cos(filter.leads(with)) < 0 ? -1 : 1;
                routes.add(new Route(from, Target.CUTOFF, way * limited(filter.depth(), 0, 4)));
            }
        }
        return Common.NONE.withFirst(first).withSecond(second).withRoutes(routes);
    }

    /** Without a tremolo, where it may be something else that the level swings by. */
    public Common movementWithoutTremolo() {
        Common all = movement(false);
        if (!isHeld()) {
            return all;
        }
        List<Route> rest =
                all.routes().stream().filter(r -> r.target() != Target.LEVEL).toList();
        return Common.NONE.with(
                b -> b.tempoBpm(all.tempoBpm()).first(all.first()).routes(rest).effects(all.effects()));
    }

    private static boolean together(Movement a, Movement b) {
        return Math.abs(a.rateHz() / b.rateHz() - 1) < 0.05;
    }

    /** An LFO runs from the onset on, also while it is not yet heard. */
    private static Lfo lfo(Movement v) {
        Lfo.Shape shape = switch (v.shape()) {
            case TRIANGLE -> Lfo.Shape.TRIANGLE;
            case SQUARE -> Lfo.Shape.SQUARE;
            case STEPPED -> Lfo.Shape.RANDOM_STEPS;
            default -> Lfo.Shape.SINE;
        };
        return new Lfo(
                shape,
                limited(v.rateHz(), 0.05, 50),
                Lfo.Per.SECOND,
                degrees(v),
                limited(v.delaySeconds(), 0, 10),
                limited(v.rampSeconds(), 0, 10),
                0.5,
                0,
                false,
                false,
                List.of());
    }

    /** Where in its cycle it has to be at the onset [°]. */
    private static double degrees(Movement v) {
        double cycles = v.shape() == Movement.Shape.STEPPED
                ? -v.rateHz() * v.delaySeconds()
                : v.phaseAtOnsetRad() / (2 * Math.PI);
        return 360 * (cycles - Math.floor(cycles));
    }

    /** Harmonics as they were measured, for a wave of the recording's own; null if there are too few. */
    public SingleCycle cycle() {
        double[] level = new double[65];
        Arrays.fill(level, -120);
        int last = 0;
        for (StartContext.Line l : lines) {
            double n = l.hz() / f0();
            int k = (int) Math.rint(n);
            if (k >= 1 && k <= 64 && Math.abs(n - k) < 0.08 * Math.sqrt(k)) {
                level[k] = Math.max(level[k], l.db() - lines.get(0).db());
                last = Math.max(last, k);
            }
        }
        return last < 2 ? null : cycle(Arrays.copyOfRange(level, 1, last + 1));
    }

    /** A cycle of harmonics with such levels [dB], the strongest at 0, with phases that keep its peak low (Schroeder, 1970). */
    public static SingleCycle cycle(double[] level) {
        Double[] db = new Double[level.length];
        Double[] rad = new Double[level.length];
        for (int k = 1; k <= db.length; k++) {
            db[k - 1] = level[k - 1];
            rad[k - 1] = Math.PI * k * (k - 1.0) / level.length - Math.PI / 2;
        }
        return new SingleCycle(List.of(db), List.of(rad));
    }

    public static double limited(double v, double least, double most) {
        return Double.isNaN(v) ? least : Math.max(least, Math.min(most, v));
    }
}

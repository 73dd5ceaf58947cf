package nightreed.voice.string;

import java.util.ArrayList;
import java.util.List;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.SecondString;

/**
 * Where the partials of a plucked string lie as it is played, and how long they ring: those of the loops themselves, not of
 * the law that the loops are made for, which a few all-passes and shelves keep to only so far.
 */
public final class StringModes {
    /** Share of the sample rate that is looked at. */
    private static final double HIGHEST = 0.45;

    private static final double SIXTY_DB = Math.log(1000);
    private static final int STEPS = 5;

    /** Of a whole turn [rad]: 0.001 cents of the first partial. */
    private static final double NEAR = 3e-6;

    /**
     * One partial.
     *
     * @param tripSeconds time once round of a wave packet: a partial begins at 2/trip of what goes into the loop
     */
    public record Mode(double hz, double t60Seconds, double tripSeconds) {}

    private StringModes() {}

    /**
     * Partials of one string, or of two that lose together at the bridge, in no particular order.
     *
     * @param fs        sample rate [Hz]
     * @param f0Hz      pitch without stiffness [Hz]
     * @param stiffness B, 0 for none
     * @param inverted  whether only odd partials are there
     * @param second    null for one string
     * @param toHz      up to which they are asked for [Hz]
     */
    public static List<Mode> of(
            double fs,
            double f0Hz,
            LoopLoss loss,
            double stiffness,
            boolean inverted,
            SecondString second,
            double toHz) {
        double to = Math.min(toHz, HIGHEST * fs);
        List<Turn> first = turns(solved(fs, f0Hz, loss, stiffness, inverted), fs, inverted, to);
        List<Mode> out = new ArrayList<>();
        if (second == null) {
            first.forEach(t -> out.add(mode(fs, t.w, t.loss, t.trip)));
            return out;
        }
        double otherHz = f0Hz * Math.pow(2, second.detuneCents() / 1200);
        List<Turn> other = turns(solved(fs, otherHz, loss, stiffness, inverted), fs, inverted, to);
        double shared = 0.5 * (1 - Math.pow(10, -second.couplingDb() / 20));
        for (int n = 0; n < Math.min(first.size(), other.size()); n++) {
            couple(fs, first.get(n), other.get(n), shared, out);
        }
        return out;
    }

    private static LoopDesign solved(double fs, double f0Hz, LoopLoss loss, double stiffness, boolean inverted) {
        LoopDesign d = new LoopDesign(fs);
        d.solve(f0Hz, loss, 1, stiffness, inverted);
        return d;
    }

    /**
     * A partial of one loop by itself.
     *
     * @param w    angle per sample [rad]
     * @param loss once round [nepers]
     * @param trip time once round of a wave packet [samples]
     */
    private record Turn(double w, double loss, double trip) {}

    private static List<Turn> turns(LoopDesign d, double fs, boolean inverted, double toHz) {
        List<Turn> out = new ArrayList<>();
        double trip = d.period();
        double w = 2 * Math.PI * d.partialHz(1) / fs;
        double once = inverted ? Math.PI : 2 * Math.PI;
        for (int n = 1; w * fs < 2 * Math.PI * toHz; n += inverted ? 2 : 1) {
            double at = d.turn(w);
            for (int i = 0;
                    i < STEPS && Math.abs(n * once - at) > NEAR;
                    i++) { // secants: the slope is the time once round
                double by = (n * once - at) / trip;
                double next = d.turn(w + by);
                trip = (next - at) / by;
                w += by;
                at = next;
            }
            out.add(new Turn(w, d.loss.nepers(w), trip));
            w += (inverted ? 2 : 1) * once / trip;
        }
        return out;
    }

    private static Mode mode(double fs, double w, double loss, double trip) {
        return new Mode(w * fs / (2 * Math.PI), SIXTY_DB * trip / (fs * Math.max(1e-7, loss)), trip / fs);
    }

    /**
     * What two partials become that lose a share of their sum at the bridge each time round: the two solutions of
     * (i ω1 T - α1 - c)(i ω2 T - α2 - c) = c² (after G. Weinreich, JASA 62(6), 1977), about the mean of the two.
     */
    private static void couple(double fs, Turn a, Turn b, double c, List<Mode> out) {
        double trip = (a.trip + b.trip) / 2;
        double middle = (a.w + b.w) / 2;
        double loss = (a.loss + b.loss) / 2 + c;
        // half of the difference of the two [nepers and rad per trip]
        double re = (b.loss - a.loss) / 2;
        double im = (a.w - b.w) / 2 * trip;
        // root of (re + i im)² + c²
        double x = re * re - im * im + c * c;
        double y = 2 * re * im;
        double size = Math.hypot(x, y);
        double rootRe = Math.sqrt(Math.max(0, (size + x) / 2));
        double rootIm = Math.copySign(Math.sqrt(Math.max(0, (size - x) / 2)), y);
        out.add(mode(fs, middle + rootIm / trip, loss - rootRe, trip));
        out.add(mode(fs, middle - rootIm / trip, loss + rootRe, trip));
    }
}

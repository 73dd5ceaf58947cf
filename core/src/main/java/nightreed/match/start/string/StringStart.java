package nightreed.match.start.string;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import nightreed.match.start.StartContext;
import nightreed.measure.law.TwinStrings;
import nightreed.measure.partial.Partial;
import nightreed.measure.traits.PluckPoint;
import nightreed.music.Pitch;
import nightreed.recipe.Bow;
import nightreed.recipe.LoopLoss;
import nightreed.recipe.LoopLoss.Kind;
import nightreed.recipe.SecondString;
import nightreed.recipe.StringRecipe;
import nightreed.recipe.StringRecipe.Drive;
import nightreed.recipe.part.Common;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Exciter;
import nightreed.recipe.part.KeyTracking;
import nightreed.recipe.part.VelocityMap;

/** Loop, loss, stiffness, pluck point and a second string, each from the partials. */
public final class StringStart {
    /** Decays that tell how a string dies. */
    private static final int LEAST_DECAYS = 3;

    private StringStart() {}

    public static StringRecipe of(StartContext g) {
        boolean held = g.isHeld();
        boolean inverted = oddOnly(g);
        if (inverted) {
            g.say("inverted", true, "only odd partials were found");
        }
        PluckPoint point = g.measurement().traits().pluckPoint();
        if (point != null) {
            g.say("pluck", true, "measured from the partials that are missing");
        }
        Double b = g.measurement().inharmonicityB();
        if (b != null) {
            g.say("stiffness", true, "measured stretch of the partials");
        }
        Exciter strike = g.strike();
        if (held) {
            g.say("drive", true, "the note is held: a bow");
        }
        LoopLoss loss = held ? new LoopLoss(Kind.ONE_POLE, 1.2, 3000, 2) : loss(g);
        SecondString second = held ? null : second(g);
        return new StringRecipe(
                g.key(),
                g.cents(),
                -12,
                held ? Drive.FRICTION : Drive.PULSE,
                strike == null ? Exciter.USUAL : strike,
                held ? bow(g) : null,
                loss,
                b == null ? 0 : StartContext.limited(b, 0, 0.02),
                point == null ? (held ? 0.1 : 0) : StartContext.limited(point.share(), 0, 0.5),
                inverted,
                second,
                0,
                null,
                held ? Envelope.held(0.005, 0.15) : null,
                held ? 0.3 : 0.15,
                new KeyTracking(0.4, 0.5),
                VelocityMap.USUAL,
                g.movement(false));
    }

    private static Bow bow(StartContext g) {
        Bow b = Bow.USUAL;
        double db = StartContext.limited(g.measurement().held().noiseDb(), -80, 0);
        g.say("bow.noise", true, "measured noise between the harmonics");
        return new Bow(b.strokeSeconds(), b.rise(), b.unevenness(), db, b.force(), b.speed(), b.attackSeconds(), 0);
    }

    /** Plucked at other points, softer and harder, with more and less noise; or bowed in other ways. */
    public static List<StringRecipe> several(StartContext g) {
        StringRecipe first = of(g);
        List<StringRecipe> out = new ArrayList<>(List.of(first));
        if (g.isHeld()) {
            for (double point : new double[] {0.05, 0.08, 0.11, 0.15, 0.21}) {
                for (double force : new double[] {0.25, 0.45, 0.65}) {
                    for (double speed : new double[] {0.16, 0.25, 0.38}) {
                        out.add(driven(first, Drive.FRICTION, point, first.exciter())
                                .with("bow.force", force)
                                .with("bow.speed", speed));
                    }
                }
                out.add(driven(first, Drive.ZIGZAG, point, first.exciter()));
            }
            return g.movementWithoutTremolo().equals(first.common()) ? out : withAndWithoutTremolo(g, out);
        }
        Exciter measured = first.exciter();
        List<Exciter> ways = new ArrayList<>();
        for (double contact : new double[] {0.3, 1.2, 4, 12}) {
            ways.add(new Exciter(contact, -60, 20, 200, 8000));
            ways.add(new Exciter(contact, 0, 6, 300, 6000));
            ways.add(new Exciter(
                    contact, measured.noiseDb(), measured.noiseT60Ms(), measured.noiseLowHz(), measured.noiseHighHz()));
        }
        for (double point : new double[] {first.pluckPoint(), 0, 0.08, 0.13, 0.2, 0.3, 0.42}) {
            out.add(driven(first, Drive.PULSE, point, measured));
            ways.forEach(w -> out.add(driven(first, Drive.PULSE, point, w)));
        }
        if (decays(g) < LEAST_DECAYS) {
            for (StringRecipe r : List.copyOf(out)) {
                out.add(r.with("loss.t60", 4).with("loss.half", 1500));
                out.add(r.with("loss.t60", 16).with("loss.half", 500));
            }
        }
        out.add(driven(first, Drive.BURST, first.pluckPoint(), measured));
        out.add(driven(first, Drive.BURST, first.pluckPoint(), new Exciter(1, 0, 20, 50, 9000)));
        return out;
    }

    /** Hair and string swing in level by themselves where the pitch swings. */
    private static List<StringRecipe> withAndWithoutTremolo(StartContext g, List<StringRecipe> all) {
        Common still = g.movementWithoutTremolo();
        return all.stream().flatMap(r -> Stream.of(r, r.withCommon(still))).toList();
    }

    private static StringRecipe driven(StringRecipe r, Drive drive, double point, Exciter exciter) {
        return new StringRecipe(
                r.key(),
                r.tuningCents(),
                r.levelDb(),
                drive,
                exciter,
                r.bow(),
                r.loss(),
                r.stiffness(),
                point,
                r.inverted(),
                r.second(),
                r.gainOctaves(),
                r.gainEnvelope(),
                r.amplitude(),
                r.damperT60Seconds(),
                r.keyTracking(),
                r.velocity(),
                r.common());
    }

    private static boolean oddOnly(StartContext g) {
        double odd = 0;
        double even = 0;
        int count = 0;
        for (StartContext.Line l : g.lines()) {
            double n = l.hz() / g.f0();
            if (Math.abs(n - Math.rint(n)) > 0.06 || n > 14) {
                continue;
            }
            count++;
            if (Math.rint(n) % 2 == 0) {
                even += l.amplitude() * l.amplitude();
            } else {
                odd += l.amplitude() * l.amplitude();
            }
        }
        return count >= 3 && even < 1e-3 * odd;
    }

    /** Law of the decays with the least squares in the logarithm, over a grid of its two shapes. */
    private static LoopLoss loss(StartContext g) {
        double best = Double.POSITIVE_INFINITY;
        LoopLoss found = new LoopLoss(Kind.SHELVES, g.t60(), 4000, 1.5);
        int n = decays(g);
        if (n < LEAST_DECAYS) {
            g.say("loss", false, "too few decays were measured");
            return found;
        }
        for (double power : new double[] {0.7, 1, 1.3, 1.6, 2, 2.5}) {
            for (double half = 200; half < 60_000; half *= 1.1) {
                double mean = 0;
                double weights = 0;
                for (StartContext.Line l : g.lines()) {
                    if (l.t60() != null) {
                        double w = weight(g, l);
                        mean += w * (Math.log(l.t60()) + Math.log1p(Math.pow(l.hz() / half, power)));
                        weights += w;
                    }
                }
                mean /= weights;
                double cost = 0;
                for (StartContext.Line l : g.lines()) {
                    if (l.t60() != null) {
                        double e = Math.log(l.t60()) + Math.log1p(Math.pow(l.hz() / half, power)) - mean;
                        cost += weight(g, l) * Math.min(e * e, 0.5); // strays count no more than that
                    }
                }
                if (cost < best) {
                    best = cost;
                    found = new LoopLoss(Kind.SHELVES, StartContext.limited(Math.exp(mean), 0.02, 100), half, power);
                }
            }
        }
        g.say("loss", true, String.format(Locale.ROOT, "law through %d measured decays", n));
        return found;
    }

    private static int decays(StartContext g) {
        return (int) g.lines().stream().filter(l -> l.t60() != null).count();
    }

    private static double weight(StartContext g, StartContext.Line l) {
        return 1 / (1 + Math.max(0, g.lines().get(0).db() - l.db()) / 10);
    }

    /** From partials that come in pairs, from a decay in two stages, or from a beat. */
    private static SecondString second(StartContext g) {
        List<Partial> partials = g.measurement().reliablePartials();
        TwinStrings twins = TwinStrings.find(partials);
        if (twins != null) {
            int pairs = twins.weaker().size();
            g.say(
                    "second",
                    true,
                    String.format(Locale.ROOT, "%d pairs of partials %.1f cents apart", pairs, twins.cents()));
            return new SecondString(
                    StartContext.limited(twins.cents(), -50, 50), 0, StartContext.limited(twins.levelDb(), -30, 0));
        }
        for (Partial p : partials) {
            if (p.stages() != null) {
                double early = 60 / p.stages().earlyT60Seconds();
                double late = 60 / p.stages().lateT60Seconds();
                g.say("second", true, "the decay has two stages");
                return new SecondString(
                        0.3,
                        StartContext.limited((early - late) / g.f0(), 0, 6),
                        StartContext.limited(p.stages().lateLevelDb() / 2, -30, 0));
            }
        }
        for (Partial p : partials) {
            if (p.beatHz() != null) {
                g.say("second", true, String.format(Locale.ROOT, "a beat of %.2f Hz", p.beatHz()));
                return new SecondString(
                        StartContext.limited(Pitch.cents(p.frequencyHz(), p.frequencyHz() + p.beatHz()), -50, 50),
                        0,
                        -6);
            }
        }
        return null;
    }
}

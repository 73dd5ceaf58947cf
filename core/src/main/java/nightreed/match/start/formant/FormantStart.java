package nightreed.match.start.formant;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nightreed.match.start.StartContext;
import nightreed.measure.traits.Formant;
import nightreed.measure.traits.SourceWave;
import nightreed.music.Bark;
import nightreed.recipe.FormantBand;
import nightreed.recipe.FormantRecipe;
import nightreed.recipe.FormantRecipe.Bank;
import nightreed.recipe.part.Envelope;
import nightreed.recipe.part.Oscillator;
import nightreed.recipe.part.Oscillator.Wave;
import nightreed.recipe.part.VelocityMap;
import nightreed.voice.formant.Followers;

/** Free formants where they were measured; otherwise bands a Bark and a half apart that share a few envelopes. */
public final class FormantStart {
    private static final double BARKS_APART = 1.5;
    private static final double STEP_SECONDS = 0.01;

    /** Envelopes that the bands share at first, chosen: a rise, a body and a tail. Those that are too many are taken away later. */
    private static final int COURSES = 3;

    private static final Oscillator SILENT =
            new Oscillator(Wave.SAW, Oscillator.Feet.FEET_8, 1, 0, -80, 0.5, 0, false, 0, 0, 0);

    private FormantStart() {}

    public static FormantRecipe of(StartContext g) {
        List<Formant> formants = g.measurement().traits().formants().stream()
                .filter(f -> f.certainty() > 0.5)
                .toList();
        boolean body = !g.measurement().traits().sources().isEmpty()
                && g.measurement().traits().sources().get(0).wave() == SourceWave.Wave.OTHER;
        return body && g.isPitched() && formants.size() >= 2 ? free(g, formants) : shared(g, COURSES);
    }

    /** As measured, and bands that share few or more envelopes, driven by a saw and by the recording's own wave. */
    public static List<FormantRecipe> several(StartContext g) {
        List<FormantRecipe> out = new ArrayList<>(List.of(of(g)));
        if (out.get(0).bank() == Bank.FORMANTS) {
            out.add(shared(g, COURSES));
        }
        if (g.cycle() != null) {
            out.add(shared(g, COURSES)
                    .with(b -> b.source(Oscillator.of(Wave.MEASURED, 1)).cycle(g.cycle())));
        }
        return out;
    }

    /** A bank whose bands each take the course that the recording has there: an effect, and nothing that a hand could set. */
    public static FormantRecipe following(StartContext g) {
        FormantRecipe flat = bank(g);
        FormantRecipe moved =
                Followers.follow(flat, g.side().clip(), g.measurement().onsetSeconds());
        g.say("band", true, "levels of the bands of the recording, over time");
        List<FormantBand> out = new ArrayList<>();
        for (FormantBand b : moved.bands()) {
            out.add(b.withLevelDb(StartContext.limited(-sourceDb(g, b) - 20, -60, 24)));
        }
        return moved.withBands(out);
    }

    private static FormantRecipe shared(StartContext g, int groups) {
        FormantRecipe flat = bank(g);
        SharedCourses courses = new SharedCourses(
                Followers.powers(flat, g.side().clip(), g.measurement().onsetSeconds()), flat.stepSeconds());
        int[] of = courses.grouped(groups);
        List<FormantBand> out = new ArrayList<>();
        double loudest = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < of.length; i++) {
            FormantBand b = flat.bands().get(i);
            double db = 10 * Math.log10(courses.top(i) + 1e-20) - sourceDb(g, b);
            loudest = Math.max(loudest, db);
            out.add(b.withLevelDb(StartContext.limited(db, -200, 24)).withEnvelope(courses.envelope(g, of, of[i])));
        }
        double most = loudest;
        out.replaceAll(b -> b.withLevelDb(StartContext.limited(b.levelDb() - most, -60, 24)));
        g.say("band", true, "levels of the bands of the recording, and the courses that most of them share");
        return flat.withBands(out);
    }

    /** Power of a band against that of the strongest, of which a pitch has no reason below itself. */
    private static final double MUCH = 3e-3;

    private static FormantRecipe free(StartContext g, List<Formant> formants) {
        List<FormantBand> bands = new ArrayList<>();
        for (Formant f : formants) {
            double hz = StartContext.limited(f.centreHz(), 20, 18_000);
            if (bands.size() < FormantRecipe.MOST_BANDS) {
                bands.add(FormantBand.of(
                        hz,
                        StartContext.limited(f.bandwidthHz(), 5, 12_000),
                        StartContext.limited(overSaw(g, hz), -60, 24),
                        0));
            }
        }
        g.say("band", true, String.format(Locale.ROOT, "%d measured formants", bands.size()));
        return recipe(g, Bank.FORMANTS, bands, g.amplitude("amp"), Oscillator.of(Wave.SAW, 1));
    }

    /** Bands side by side, from a place on [Bark]. */
    private static List<FormantBand> side(StartContext g, double lowest) {
        List<FormantBand> bands = new ArrayList<>();
        double top = Math.min(15_000, 0.42 * g.measurement().sampleRateHz());
        for (double z = Math.max(1, lowest); Bark.hz(z) < top; z += BARKS_APART) {
            double hz = Bark.hz(z);
            bands.add(FormantBand.of(hz, Bark.hz(z + BARKS_APART / 2) - Bark.hz(z - BARKS_APART / 2), 0, share(g, hz)));
        }
        return bands;
    }

    /** Where the recording begins to have much; what strikes a body may lie far below the pitch of it [Bark]. */
    private static double lowestHeard(StartContext g, FormantRecipe bank) {
        double[][] power =
                Followers.powers(bank, g.side().clip(), g.measurement().onsetSeconds());
        double most = 0;
        for (double[] band : power) {
            for (double p : band) {
                most = Math.max(most, p);
            }
        }
        for (int i = 0; i < power.length; i++) {
            for (double p : power[i]) {
                if (p > MUCH * most) {
                    return Bark.of(bank.bands().get(i).centreHz());
                }
            }
        }
        return Bark.of(bank.bands().get(0).centreHz());
    }

    /** Level of the line next to a frequency, less that of a saw's harmonic there [dB]. */
    private static double overSaw(StartContext g, double hz) {
        StartContext.Line next = g.lines().get(0);
        for (StartContext.Line l : g.lines()) {
            next = Math.abs(l.hz() - hz) < Math.abs(next.hz() - hz) ? l : next;
        }
        return next.db() - g.lines().get(0).db() + 20 * Math.log10(Math.max(1, next.hz() / g.f0()));
    }

    /** Bands side by side that all do the same, from where the recording has much. */
    private static FormantRecipe bank(StartContext g) {
        Oscillator source = g.isPitched() ? Oscillator.of(Wave.SAW, 1) : SILENT;
        double lowest = g.isPitched() ? Math.max(1, Bark.of(0.6 * g.f0())) : 1;
        List<FormantBand> bands = side(g, 1);
        FormantRecipe whole = recipe(g, Bank.SIDE_BY_SIDE, bands, Envelope.held(0.001, 0.2), source);
        return whole.withBands(side(g, Math.min(lowest, lowestHeard(g, whole))));
    }

    /** What the sources have in a band [dB]. */
    private static double sourceDb(StartContext g, FormantBand b) {
        double low = b.centreHz() - b.widthHz() / 2;
        double high = b.centreHz() + b.widthHz() / 2;
        double power = 1e-6;
        for (int n = (int) Math.max(1, Math.ceil(low / g.f0())); n * g.f0() < high; n++) {
            power += 0.2 / n / n;
        }
        // a band between two lines is not raised until it hears one
        double even = 0.2 * g.f0() * b.widthHz() / (b.centreHz() * b.centreHz());
        power = Math.max(power, 0.5 * even);
        double noise = 0.01 * b.widthHz() / 20_000;
        double share = b.noiseShare();
        return 10 * Math.log10((1 - share) * (1 - share) * power + share * share * noise);
    }

    /** Noise where no partial lies near, and everywhere if there are none; the wave elsewhere. */
    private static double share(StartContext g, double hz) {
        if (!g.isPitched()) {
            return 1;
        }
        double nearest = Double.POSITIVE_INFINITY;
        for (StartContext.Line l : g.lines()) {
            nearest = Math.min(nearest, Math.abs(Bark.of(l.hz()) - Bark.of(hz)));
        }
        return nearest < BARKS_APART / 2 ? 0.1 : nearest < BARKS_APART ? 0.5 : 0.9;
    }

    private static FormantRecipe recipe(
            StartContext g, Bank bank, List<FormantBand> bands, Envelope amplitude, Oscillator source) {
        return new FormantRecipe(
                g.key(),
                g.cents(),
                -12,
                bank,
                source,
                null,
                -20,
                bands,
                0,
                0,
                g.isHeld() ? 3 : 1,
                g.isHeld() ? 30 : 8, // what is struck falls fast
                STEP_SECONDS,
                amplitude,
                g.strike(),
                VelocityMap.USUAL,
                g.movement(false));
    }
}

package nightreed.claim;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import nightreed.claim.Claim.Moving;
import nightreed.measure.Measurement;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.held.HeldNote;
import nightreed.measure.held.Movement;
import nightreed.measure.traits.SourceWave;
import nightreed.measure.traits.Spectrum;
import nightreed.measure.traits.Traits;
import nightreed.sound.Clip;

/** Holds claims against their rivals on one recording. Immutable. */
public final class ClaimTest {
    /** Rates that a swing is looked for at [Hz]. */
    private static final double SLOWEST_HZ = 2;

    private static final double FASTEST_HZ = 12;

    /** Cycles that a note has to hold for a swing to be seen. */
    private static final double CYCLES = 2.5;

    /** What a claimed number may be off by, as a share, beside the error of the measurement: people round. */
    private static final double RATE_SHARE = 0.04;

    private static final double TUNING_CENTS = 3;
    private static final double ECHO_SECONDS = 0.003;

    /** A claimed rate, tuning or delay that is nearly right is neither true nor false: so many tolerances on. */
    private static final double CLEARLY = 1.5;

    /** Odds of a measurement that found nothing where it looks closely; measured on still notes. */
    private static final double SEEN = 0.97;

    /** Over the noise, and under the strongest, by which a harmonic's level is well known [dB]. */
    private static final double CLEAR_DB = 22;

    private static final double RANGE_DB = 56;

    /** What a plain wave leaves over a curve [dB]; measured on notes with noise 40 dB under them: 0.1 to 0.6. */
    private static final double PLAIN_DB = 0.9;

    /** What evidence of levels is worth where several voices beat, as a share of its logarithm; measured. */
    private static final double BENT = 0.4;

    private final Measurement m;
    private final Clip clip;
    private List<SourceWave> sources;
    private VoiceCount voices;

    /** @param clip what was measured */
    public ClaimTest(Measurement m, Clip clip) {
        this.m = m;
        this.clip = clip;
    }

    public Verdict of(Claim claim) {
        if (m.isChord()) {
            return Verdict.open(claim, Map.of(), "These are several notes at once; a recording of one would tell.");
        }
        return switch (kind(claim)) {
            case 0 -> moves((Claim.Moves) claim);
            case 1 -> still((Claim.Still) claim);
            case 2 -> source((Claim.Source) claim);
            case 3 -> slope((Claim.Slope) claim);
            case 4 -> attack((Claim.Attack) claim);
            case 5 -> tuning((Claim.Tuning) claim);
            case 6 -> echo((Claim.Echoes) claim);
            default -> voices((Claim.Voices) claim);
        };
    }

    private static int kind(Claim c) {
        List<Class<?>> kinds = List.of(
                Claim.Moves.class,
                Claim.Still.class,
                Claim.Source.class,
                Claim.Slope.class,
                Claim.Attack.class,
                Claim.Tuning.class,
                Claim.Echoes.class,
                Claim.Voices.class);
        return kinds.indexOf(c.getClass());
    }

    // ---- movement ----

    /** Slowest rate that could be seen in it [Hz]; null where no swing is looked for. */
    public static Double seenFromHz(Measurement m) {
        if (m.held() == null) {
            return null;
        }
        double seconds = m.held().releaseSeconds() - m.held().onsetSeconds();
        return Math.max(SLOWEST_HZ, CYCLES / Math.max(0.01, seconds));
    }

    private Movement found(Moving of) {
        HeldNote h = m.held();
        return h == null ? null : of == Moving.PITCH ? h.vibrato() : of == Moving.LEVEL ? h.tremolo() : h.filter();
    }

    private Verdict moves(Claim.Moves c) {
        Movement is = found(c.of());
        Double from = seenFromHz(m);
        if (from == null) {
            return Verdict.open(c, Map.of(), "It dies by itself; a held note of the same sound would tell.");
        }
        if (is == null) {
            if (c.rateHz() != null && (c.rateHz() < from || c.rateHz() > FASTEST_HZ)) {
                return Verdict.open(c, Map.of(), unseen(from));
            }
            return Verdict.of(
                    c,
                    1 - SEEN,
                    Map.of(),
                    String.format(
                            Locale.ROOT,
                            "No swing of the %s between %.1f and %.0f Hz stands out.",
                            c.of().title(),
                            from,
                            FASTEST_HZ));
        }
        Map<String, Object> best = values(c.of(), is);
        String why = String.format(
                Locale.ROOT, "It moves as a %s at %.2f ± %.2f Hz.", is.shape().title(), is.rateHz(), is.rateSeHz());
        if (c.rateHz() != null) {
            double off = Math.abs(is.rateHz() - c.rateHz());
            double allowed = RATE_SHARE * c.rateHz() + 3 * is.rateSeHz();
            if (off > CLEARLY * allowed) {
                return Verdict.of(c, 0.01, best, why);
            }
            if (off > allowed) {
                return Verdict.open(c, best, why + " That is near, and not it; a longer note would tell.");
            }
        }
        if (c.shape() == null) {
            return Verdict.of(c, 0.99, best, why);
        }
        double odds = is.ranked().stream()
                .filter(r -> r.shape() == c.shape())
                .mapToDouble(Movement.Ranked::odds)
                .max()
                .orElse(0);
        return Verdict.of(
                c,
                Math.min(0.99, Math.max(0.01, odds)),
                best,
                why + (odds > 0.05 && odds < 0.95 ? " Its shape cannot be told; a deeper or longer swing would." : ""));
    }

    private Verdict still(Claim.Still c) {
        Movement is = found(c.of());
        Double from = seenFromHz(m);
        if (from == null) {
            return Verdict.open(c, Map.of(), "It dies by itself; a held note of the same sound would tell.");
        }
        return is != null
                ? Verdict.of(
                        c, 0.01, values(c.of(), is), String.format(Locale.ROOT, "It moves at %.2f Hz.", is.rateHz()))
                : Verdict.of(c, SEEN, Map.of(), unseen(from));
    }

    private static String unseen(double from) {
        return String.format(
                Locale.ROOT,
                "Nothing moves between %.1f and %.0f Hz; slower cannot be told from a note of this length.",
                from,
                FASTEST_HZ);
    }

    private static Map<String, Object> values(Moving of, Movement is) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("of", of.name().toLowerCase(Locale.ROOT));
        out.put("shape", is.shape().title());
        out.put("rateHz", is.rateHz());
        out.put("depth", is.depth());
        return out;
    }

    // ---- source and filter ----

    private List<SourceWave> sources() {
        if (sources == null) {
            List<HeldHarmonic> all =
                    m.held() == null ? List.of() : clear(m.held().harmonics());
            sources = all.isEmpty()
                    ? List.of()
                    : Traits.explanations(
                            Spectrum.of(
                                    m.held().f0Hz(),
                                    all.stream().mapToInt(HeldHarmonic::number).toArray(),
                                    all.stream()
                                            .mapToDouble(h -> 20 * Math.log10(h.amplitude()))
                                            .toArray(),
                                    all.stream()
                                            .mapToDouble(HeldHarmonic::snrDb)
                                            .toArray()),
                            m.sampleRateHz());
        }
        return sources;
    }

    /** Up to the last that stands well over the noise: what is bent by it says nothing of a slope. */
    private static List<HeldHarmonic> clear(List<HeldHarmonic> all) {
        double most = all.stream().mapToDouble(HeldHarmonic::amplitude).max().orElse(1);
        int last = all.stream()
                .filter(h -> h.snrDb() > CLEAR_DB && h.amplitude() > most * Math.pow(10, -RANGE_DB / 20))
                .mapToInt(HeldHarmonic::number)
                .max()
                .orElse(0);
        return all.stream().filter(h -> h.number() <= last).toList();
    }

    private Verdict source(Claim.Source c) {
        if (sources().isEmpty()) {
            return Verdict.open(c, Map.of(), "Too few harmonics are held; a lower or longer note would tell.");
        }
        // a square is a pulse of half
        double odds = sources().stream()
                .filter(s ->
                        s.wave() == c.wave() || c.wave() == SourceWave.Wave.PULSE && s.wave() == SourceWave.Wave.SQUARE)
                .mapToDouble(SourceWave::certainty)
                .sum();
        SourceWave best = sources().get(0);
        return fitsNone(best)
                ? Verdict.open(c, values(best), words(best) + noneFits(best))
                : Verdict.of(c, bent(odds), values(best), words(best));
    }

    /** Whether even the best explanation leaves more over than lines of a plain wave differ by. */
    private static boolean fitsNone(SourceWave best) {
        return best.rmsDb() > PLAIN_DB;
    }

    private static String noneFits(SourceWave best) {
        return String.format(
                Locale.ROOT,
                " That leaves %.1f dB over, so none of them is believed; one voice without an echo would tell.",
                best.rmsDb());
    }

    private Verdict slope(Claim.Slope c) {
        if (sources().isEmpty()) {
            return Verdict.open(c, Map.of(), "Too few harmonics are held; a lower or longer note would tell.");
        }
        double odds = sources().stream()
                .filter(s ->
                        Math.abs(s.rollOffDbPerOctave() - c.dbPerOctave()) < 1 && s.wave() != SourceWave.Wave.OTHER)
                .mapToDouble(SourceWave::certainty)
                .sum();
        SourceWave best = sources().get(0);
        return best.wave() == SourceWave.Wave.OTHER
                ? Verdict.open(c, values(best), words(best) + " A plainer source would tell its filter.")
                : fitsNone(best)
                        ? Verdict.open(c, values(best), words(best) + noneFits(best))
                        : Verdict.of(c, bent(odds), values(best), words(best));
    }

    private static Map<String, Object> values(SourceWave s) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("wave", s.wave().title());
        out.put("width", s.width());
        out.put("rollOffDbPerOctave", s.rollOffDbPerOctave());
        out.put("cutoffHz", s.cutoffHz());
        out.put("resonanceDb", s.resonanceDb());
        return out;
    }

    private static String words(SourceWave s) {
        return s.wave() == SourceWave.Wave.OTHER
                ? "A body with formants explains it best."
                : String.format(
                        Locale.ROOT,
                        "Best is a %s%s: %.0f %%.",
                        s.wave().title(),
                        s.rollOffDbPerOctave() == 0
                                ? " without a filter"
                                : String.format(
                                        Locale.ROOT,
                                        " through %.0f dB per octave from %.0f Hz",
                                        s.rollOffDbPerOctave(),
                                        s.cutoffHz()),
                        100 * s.certainty());
    }

    private Verdict attack(Claim.Attack c) {
        if (m.held() == null) {
            return Verdict.open(c, Map.of(), "It is struck; a note that is held would tell.");
        }
        AttackBy is = AttackBy.of(m.held());
        Map<String, Object> best = new LinkedHashMap<>();
        best.put("by", is.verdict().name().toLowerCase(Locale.ROOT));
        best.put("apartSeconds", is.apartSeconds());
        if (is.verdict() == AttackBy.Verdict.OPEN) {
            return Verdict.open(c, best, "Too few harmonics stand clear of the noise at the start.");
        }
        String why = String.format(
                Locale.ROOT, "The harmonics come %.0f ms apart, the lowest first.", 1000 * is.apartSeconds());
        return Verdict.of(c, is.verdict() == c.by() ? is.odds() : 1 - is.odds(), best, why);
    }

    // ---- numbers ----

    private Verdict tuning(Claim.Tuning c) {
        Double cents = m.centsFromConcert();
        if (cents == null) {
            return Verdict.open(c, Map.of(), "No pitch was found.");
        }
        return near(
                c,
                c.cents(),
                cents,
                TUNING_CENTS,
                Map.of("cents", cents),
                String.format(Locale.ROOT, "It is %+.1f cents off %s.", cents, m.nearestNote()));
    }

    private Verdict echo(Claim.Echoes c) {
        if (m.echo() == null) {
            if (m.held() != null) {
                return Verdict.open(
                        c, Map.of(), "The note is held over its repeats; a short one with the same echo would tell.");
            }
            double heard = m.durationSeconds() - m.onsetSeconds();
            return heard < 1.5 * c.seconds()
                    ? Verdict.open(c, Map.of(), "The recording ends too soon after that; a longer one would tell.")
                    : Verdict.of(c, 1 - SEEN, Map.of(), "No repeat stands out.");
        }
        double is = m.echo().delaySeconds();
        return near(
                c,
                c.seconds(),
                is,
                ECHO_SECONDS,
                Map.of("seconds", is),
                String.format(Locale.ROOT, "There is an echo after %.1f ms.", 1000 * is));
    }

    private static Verdict near(
            Claim c, double claimed, double is, double allowed, Map<String, Object> best, String why) {
        double off = Math.abs(claimed - is);
        return off > CLEARLY * allowed
                ? Verdict.of(c, 0.01, best, why)
                : off > allowed
                        ? Verdict.open(c, best, why + " That is near, and not it.")
                        : Verdict.of(c, 0.99, best, why);
    }

    private VoiceCount counted() {
        if (voices == null) {
            voices = VoiceCount.of(clip, m);
        }
        return voices;
    }

    /** Odds of what levels tell, where voices that beat or an echo bend them. */
    private double bent(double odds) {
        boolean plain = counted().voices() <= 1 && m.echo() == null;
        double p = Math.max(1e-9, Math.min(1 - 1e-9, odds));
        return plain ? odds : 1 / (1 + Math.exp(-BENT * Math.log(p / (1 - p))));
    }

    private Verdict voices(Claim.Voices c) {
        if (counted().voices() == 0) {
            return Verdict.open(c, Map.of(), "Too few harmonics are held for long enough; a longer note would tell.");
        }
        if (found(Moving.PITCH) != null || found(Moving.LEVEL) != null && voices.isEvenlyApart()) {
            return Verdict.open(c, Map.of(), "Its movement puts lines beside each harmonic; a still note would tell.");
        }
        Map<String, Object> best = new LinkedHashMap<>();
        best.put("count", voices.voices());
        String why = String.format(
                Locale.ROOT,
                "Of %d harmonics %.0f %% are of %d line%s; voices nearer than %.1f cents are one.",
                voices.looked(),
                100 * voices.share(),
                voices.voices(),
                voices.voices() == 1 ? "" : "s",
                voices.leastCents());
        double odds = Math.min(0.99, 0.5 + voices.share());
        if (voices.share() < 0.7) {
            return Verdict.open(c, best, why);
        }
        return Verdict.of(c, voices.voices() == c.count() ? odds : 1 - odds, best, why);
    }
}

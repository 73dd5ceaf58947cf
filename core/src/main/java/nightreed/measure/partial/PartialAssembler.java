package nightreed.measure.partial;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** Turns fitted terms into partials: back to the onset, two stages put together, pairs named, doubts stated. */
public final class PartialAssembler {
    /** A term that dies sooner is part of the strike, not a partial [s]. */
    public static final double SHORTEST_RINGING = 0.03;

    /** Two frequencies closer than this, or than 14 cents, count as one place [Hz]. */
    private static final double PLACE_HZ = 6;

    private final double fs;
    private final int samples;
    private final int sinceOnset;

    /**
     * @param sampleRateHz rate [Hz]
     * @param samples      length of the analysed segment
     * @param sinceOnset   samples from the onset to its start
     */
    public PartialAssembler(double sampleRateHz, int samples, int sinceOnset) {
        this.fs = sampleRateHz;
        this.samples = samples;
        this.sinceOnset = sinceOnset;
    }

    public List<Partial> of(List<DampedSinusoid> terms) {
        List<DampedSinusoid> sorted = new ArrayList<>(terms);
        sorted.sort(Comparator.comparingDouble((DampedSinusoid t) -> -sizeAtOnset(t)));
        double strongest = sorted.stream()
                .filter(t -> clear(t))
                .mapToDouble(this::sizeAtOnset)
                .max()
                .orElse(sorted.stream().mapToDouble(this::sizeAtOnset).max().orElse(1));
        Set<DampedSinusoid> splinters = splinters(sorted);
        List<DampedSinusoid> taken = new ArrayList<>();
        List<Partial> out = new ArrayList<>();
        for (DampedSinusoid t : sorted) {
            DampedSinusoid stage = partnerStage(t, sorted, taken);
            if (!taken.contains(t)) {
                taken.add(t);
                if (stage != null) {
                    taken.add(stage);
                }
                out.add(partial(t, stage, sorted, strongest, splinters.contains(t)));
            }
        }
        return out;
    }

    /**
     * Terms that are likely parts of a stronger one close by: a body has at most two modes in one place, and what a real
     * decay leaves over when two exponentials are taken out of it is no third mode.
     */
    private Set<DampedSinusoid> splinters(List<DampedSinusoid> terms) {
        List<DampedSinusoid> byEnergy = new ArrayList<>(terms);
        byEnergy.sort(Comparator.comparingDouble(t -> -PartialSearch.power(t, samples)));
        Set<DampedSinusoid> out = new HashSet<>();
        for (int i = 0; i < byEnergy.size(); i++) {
            DampedSinusoid head = byEnergy.get(i);
            if (out.contains(head)) {
                continue;
            }
            int companions = 0;
            for (DampedSinusoid t : byEnergy.subList(i + 1, byEnergy.size())) {
                double width = 0.7 * Math.max(head.alpha(), t.alpha());
                double zone = Math.max(Math.max(2 * Math.PI * PLACE_HZ / fs, 0.008 * head.omega()), width);
                if (!out.contains(t) && Math.abs(t.omega() - head.omega()) < zone) {
                    boolean partner = companions == 0
                            && PartialSearch.power(t, samples) > 0.003 * PartialSearch.power(head, samples);
                    if (!partner) {
                        out.add(t);
                    }
                    companions++;
                }
            }
        }
        return out;
    }

    /** The term carried back to the onset. */
    public DampedSinusoid atOnset(DampedSinusoid t) {
        return t.movedBy(-sinceOnset);
    }

    private double sizeAtOnset(DampedSinusoid t) {
        return t.amplitude() * Math.exp(t.alpha() * sinceOnset);
    }

    private double t60(DampedSinusoid t) {
        return Math.log(1000) / (t.alpha() * fs);
    }

    /** A term well above the noise and slow enough to be more than part of the strike. */
    private boolean clear(DampedSinusoid t) {
        return t.snr() > 32 && t60(t) > SHORTEST_RINGING;
    }

    /** A term at the same frequency that decays at another pace: the second stage of one partial. */
    private DampedSinusoid partnerStage(DampedSinusoid t, List<DampedSinusoid> all, List<DampedSinusoid> taken) {
        for (DampedSinusoid o : all) {
            double apart = Math.abs(o.omega() - t.omega());
            boolean same = apart < 0.35 * Math.abs(o.alpha() - t.alpha()) && apart < 2 * Math.PI / samples;
            if (o != t
                    && !taken.contains(o)
                    && same
                    && Math.max(o.alpha(), t.alpha()) > 1.6 * Math.min(o.alpha(), t.alpha())) {
                return o;
            }
        }
        return null;
    }

    private Partial partial(
            DampedSinusoid t, DampedSinusoid stage, List<DampedSinusoid> all, double strongest, boolean splinter) {
        DampedSinusoid early = stage != null && stage.alpha() > t.alpha() ? stage : t;
        DampedSinusoid late = stage == null ? null : early == t ? stage : t;
        double hz = t.omega() * fs / (2 * Math.PI);
        DampedSinusoid begun = atOnset(t);
        double re = begun.cRe();
        double im = begun.cIm();
        if (stage != null) {
            re += atOnset(stage).cRe();
            im += atOnset(stage).cIm();
        }
        double amplitude = Math.hypot(re, im);
        double phase = Math.atan2(im, re);
        double decay = late == null ? t60(early) : firstPace(early, late);
        double relativeSe = early.omegaSe() / early.alpha();
        // a tone that is held falls by next to nothing over the clip: it is there, but its decay is not known
        boolean held = early.alpha() * samples < 1;
        boolean decays = early.alpha() * samples > 0.05 && relativeSe < 0.35;
        boolean shadowed = all.stream().anyMatch(o -> shadows(o, t) || held && accompanies(o, t));
        return new Partial(
                hz,
                1,
                20 * Math.log10(amplitude / strongest),
                amplitude,
                Math.IEEEremainder(phase, 2 * Math.PI),
                decays ? decay : null,
                late == null || !decays
                        ? null
                        : new TwoStages(t60(early), t60(late), 20 * Math.log10(sizeAtOnset(late) / amplitude)),
                beat(t, stage, all),
                null,
                t.omegaSe() * fs / (2 * Math.PI),
                decays ? decay * relativeSe : null,
                10 * Math.log10(t.snr()),
                clear(t) && !shadowed && !splinter && (held || relativeSe < 0.35));
    }

    /** Three times the time in which two stages together fall by 20 dB [s]. */
    private double firstPace(DampedSinusoid early, DampedSinusoid late) {
        DampedSinusoid a = atOnset(early);
        DampedSinusoid b = atOnset(late);
        double start = Math.hypot(a.cRe() + b.cRe(), a.cIm() + b.cIm());
        double low = 0;
        double high = t60(late);
        for (int i = 0; i < 60; i++) {
            double middle = (low + high) / 2;
            double ea = Math.exp(-early.alpha() * middle * fs);
            double eb = Math.exp(-late.alpha() * middle * fs);
            boolean fallen = Math.hypot(a.cRe() * ea + b.cRe() * eb, a.cIm() * ea + b.cIm() * eb) < 0.1 * start;
            low = fallen ? low : middle;
            high = fallen ? middle : high;
        }
        return 3 * low;
    }

    /** Whether a term is so much weaker than a close one that it is likely what the fit of that one left over. */
    private boolean shadows(DampedSinusoid strong, DampedSinusoid t) {
        if (t60(strong) < SHORTEST_RINGING) {
            return false;
        }
        double apart = Math.abs(strong.omega() - t.omega()) * fs / (2 * Math.PI);
        double reach = Math.max(4, 3 * Math.max(strong.alpha(), t.alpha()) * fs / (2 * Math.PI));
        return apart < reach && sizeAtOnset(t) < 0.05 * sizeAtOnset(strong) && t.snr() < strong.snr() * 0.01;
    }

    /** Whether a held term is a side line of a stronger one: vibrato and unrest make such, within a quarter tone. */
    private boolean accompanies(DampedSinusoid strong, DampedSinusoid t) {
        boolean stronger = strong != t && sizeAtOnset(strong) > sizeAtOnset(t) && clear(strong);
        return stronger && Math.abs(Math.log(strong.omega() / t.omega())) < Math.log(2) / 24;
    }

    private Double beat(DampedSinusoid t, DampedSinusoid stage, List<DampedSinusoid> all) {
        Double best = null;
        for (DampedSinusoid o : all) {
            double apart = Math.abs(o.omega() - t.omega()) * fs / (2 * Math.PI);
            boolean audible = o != t && o != stage && apart < 12 && sizeAtOnset(o) > 0.1 * sizeAtOnset(t) && clear(o);
            if (audible && (best == null || apart < best)) {
                best = apart;
            }
        }
        return best;
    }
}

package nightreed.measure;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import nightreed.measure.held.HeldHarmonic;
import nightreed.measure.held.HeldNote;
import nightreed.measure.law.Chord;
import nightreed.measure.law.SeriesFit;
import nightreed.measure.law.StiffString;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.law.StrikeNotes;
import nightreed.measure.law.TwinStrings;
import nightreed.measure.partial.NoiseFloor;
import nightreed.measure.partial.Partial;
import nightreed.measure.take.ArtifactDetector;
import nightreed.measure.take.Channels;
import nightreed.measure.take.Echo;
import nightreed.measure.take.NoteOnsets;
import nightreed.measure.take.Offset;
import nightreed.measure.take.Onset;
import nightreed.measure.take.RecordingWarnings;
import nightreed.measure.take.SampleLoop;
import nightreed.music.Pitch;
import nightreed.sound.Clip;
import nightreed.sound.Loudness;
import nightreed.sound.UnusableSound;
import nightreed.work.Progress;

/**
 * The road from a clip to its measurement: onset, background, partials, what they make, what is left.
 */
public final class Measurer {
    /** Shortest note that partials can be told apart in [s]. */
    public static final double SHORTEST_SECONDS = 0.05;

    /** The first part of a long note says all; more would only take longer [s]. */
    private static final double LONGEST_ANALYSED = 10;

    /** Time after the onset in which the strike's own noise may hide the partials [s]. */
    private static final double STRIKE_SECONDS = 0.012;

    /** A note is measured up to its first echo if that leaves so much of it [s]. */
    private static final double LEAST_BEFORE_ECHO = 0.2;

    /** A note is measured up to the end of the first pass of its loop if that leaves so much of it [s]. */
    private static final double LEAST_BEFORE_LOOP = 0.35;

    private Measurer() {}

    /** {@link #measure(Clip, Progress)} with nobody waiting. */
    public static Measurement measure(Clip clip) throws UnusableSound {
        return measure(clip, Progress.NONE);
    }

    /**
     * @param clip     one note; several channels are mixed
     * @param progress told how far it is; may cancel
     * @throws UnusableSound if the clip is silent, shorter than {@link #SHORTEST_SECONDS}, or not a number somewhere
     */
    public static Measurement measure(Clip clip, Progress progress) throws UnusableSound {
        return measure(clip, true, progress);
    }

    /**
     * The same of what a voice plays. Its vibrato may repeat to the last digit without having been copied, so that no loop of
     * a sampler is looked for.
     */
    public static Measurement rendered(Clip clip, Progress progress) throws UnusableSound {
        return measure(clip, false, progress);
    }

    /** So many seeming notes that follow without a rest on one pitch are more likely one, unsteady. */
    private static final int MOST_NOTES_OF_ONE_PITCH = 3;

    private static Measurement measure(Clip clip, boolean mayBeLooped, Progress progress) throws UnusableSound {
        double fs = clip.sampleRateHz();
        double[] x = usable(clip);
        progress.report(0.02, "finding the onset");
        Onset begin = Onset.find(x, fs);
        Onset first = begin.strike(x, fs);
        int swell = first.sample() - begin.sample();
        List<Integer> starts = new ArrayList<>(NoteOnsets.find(x, fs, first.sample()));
        Onset onset = first;
        int quiet = 0; // from where on the background is that of the room
        if (starts.get(0) > first.sample()) {
            // silence and then the room: the note comes later
            quiet = first.sample() + (int) (0.005 * fs);
            Onset later = Onset.find(Arrays.copyOfRange(x, quiet, x.length), fs);
            onset = new Onset(quiet + later.sample(), later.hasLeadIn());
            starts.set(0, onset.sample());
        }
        double[] all = x;
        x = first(all, starts, fs);
        int start = onset.sample() + (int) Math.round(STRIKE_SECONDS * fs);
        int end = (int) Math.min(x.length, start + LONGEST_ANALYSED * fs);
        if (end - start < (SHORTEST_SECONDS - STRIKE_SECONDS) * fs) {
            throw new UnusableSound(String.format(
                    Locale.ROOT,
                    "After its onset the sound lasts only %.0f ms; a note needs at least %.0f ms.",
                    1000 * (x.length - onset.sample()) / fs,
                    1000 * SHORTEST_SECONDS));
        }
        NoiseFloor floor = onset.hasLeadIn()
                ? NoiseFloor.of(x, quiet, onset.sample() - swell - (int) (0.002 * fs), fs)
                : NoiseFloor.none(fs);
        progress.report(0.04, "looking whether it is held");
        HeldNote held = null;
        if (starts.size() > 1) {
            held = HeldNote.measure(all, fs, onset.sample(), onset.hasLeadIn(), floor.total());
            if (held != null && held.isOnePitch() && (held.isBeaten() || starts.size() > MOST_NOTES_OF_ONE_PITCH)) {
                // swells of one note, not notes
                x = all;
                starts = new ArrayList<>(starts.subList(0, 1));
            } else {
                held = null;
            }
        }
        if (held == null) {
            held = HeldNote.measure(x, fs, onset.sample(), onset.hasLeadIn(), floor.total());
        }
        if (held != null) {
            List<Double> onsets = seconds(starts, fs);
            SampleLoop loop =
                    mayBeLooped ? SampleLoop.find(x, fs, onset.sample(), (int) (held.releaseSeconds() * fs)) : null;
            if (loop == null) {
                return describe(clip, x, onset, held, floor, onsets, null);
            }
            double[] before = Arrays.copyOf(x, loop.end(fs));
            HeldNote played = before.length - onset.sample() < LEAST_BEFORE_LOOP * fs
                    ? null
                    : HeldNote.measure(before, fs, onset.sample(), onset.hasLeadIn(), floor.total());
            return played != null
                    ? describe(clip, before, onset, played, floor, onsets, loop.words(true))
                    : describe(clip, x, onset, held.withoutMovement(), floor, onsets, loop.words(false));
        }
        double[] heard = Arrays.copyOf(all, (int) Math.min(all.length, onset.sample() + LONGEST_ANALYSED * fs));
        Echo found = Echo.find(heard, fs, onset.sample(), floor);
        Echo echo = found == null ? null : found.sided(clip, onset.sample(), floor);
        if (echo != null) {
            int strike = onset.sample();
            starts.removeIf(s -> echo.repeats((s - strike) / fs));
            x = first(all, starts, fs);
            if (echo.delaySeconds() > LEAST_BEFORE_ECHO) { // what comes after it is not the instrument alone
                x = Arrays.copyOf(x, (int) Math.min(x.length, onset.sample() + (echo.delaySeconds() - 0.005) * fs));
                end = Math.min(end, x.length);
            }
        }
        StruckNote struck = StruckNote.analyse(x, fs, onset.sample(), start, end, floor, progress.part(0.05, 0.9));
        progress.report(0.9, "naming what was found");
        return describe(clip, x, onset, struck, floor, echo, starts);
    }

    /** Up to the second note, which is no part of the first. */
    private static double[] first(double[] x, List<Integer> starts, double fs) {
        return starts.size() > 1 ? Arrays.copyOf(x, starts.get(1) - (int) (0.005 * fs)) : x;
    }

    private static List<Double> seconds(List<Integer> starts, double fs) {
        return starts.stream().map(i -> i / fs).toList();
    }

    /**
     * Every note of a recording by itself, in the order of the recording; those in which nothing can be measured are left
     * out.
     *
     * @throws UnusableSound if the recording itself cannot be used
     */
    public static List<Measurement> notes(Clip clip, Progress progress) throws UnusableSound {
        double fs = clip.sampleRateHz();
        double[] x = usable(clip);
        List<Integer> starts = NoteOnsets.find(x, fs, Onset.find(x, fs).sample());
        AtomicInteger done = new AtomicInteger();
        return IntStream.range(0, starts.size())
                .parallel()
                .mapToObj(i -> {
                    int from = i == 0 ? 0 : starts.get(i) - (int) (0.01 * fs);
                    int to = i + 1 < starts.size() ? starts.get(i + 1) - (int) (0.005 * fs) : x.length;
                    try {
                        Measurement m = measure(clip.span(from, to)).shifted(from / fs);
                        progress.report((double) done.incrementAndGet() / starts.size(), "measuring the notes");
                        return m;
                    } catch (UnusableSound tooShort) {
                        return null;
                    }
                })
                .filter(m -> m != null)
                .toList();
    }

    private static Measurement describe(
            Clip clip, double[] x, Onset onset, StruckNote struck, NoiseFloor floor, Echo echo, List<Integer> starts) {
        double fs = clip.sampleRateHz();
        List<Double> onsets = seconds(starts, fs);
        List<Partial> found = struck.partials();
        Chord chord = Chord.of(found);
        List<SeriesFit> ranked = chord != null ? List.of() : SeriesFit.rank(found);
        StiffString string = chord != null ? null : struck.string();
        List<StrikeNote> notes = chord != null ? StrikeNotes.of(chord) : StrikeNotes.rank(found, ranked, string);
        SeriesFit series = ranked.isEmpty() || ranked.get(0).matched() < 2 ? null : ranked.get(0);
        Double f0 = string != null
                ? (Double) string.f0Hz()
                : notes.isEmpty() || chord != null
                        ? null
                        : (Double) notes.get(0).frequencyHz();
        List<Partial> partials = new ArrayList<>();
        double base = f0 != null ? f0 : found.isEmpty() ? 1 : found.get(0).frequencyHz();
        for (Partial p : found) {
            partials.add(p.withRatio(p.frequencyHz() / base));
        }
        partials.sort(Comparator.comparingDouble(Partial::frequencyHz));
        double strongest = found.stream()
                .filter(Partial::reliable)
                .mapToDouble(Partial::amplitude)
                .max()
                .orElse(0);
        StrikeResidual residue =
                StrikeResidual.of(x, fs, onset.sample(), struck.start(), struck.terms(), struck.fm(), floor, strongest);
        List<String> remarks = new ArrayList<>();
        if (chord != null) {
            remarks.add(chord.words());
        }
        TwinStrings twins = chord != null ? null : TwinStrings.find(found);
        if (twins != null) {
            remarks.add(twins.words());
        }
        remarks.addAll(RecordingWarnings.of(clip, x, onset, floor, false, onsets));
        remarks.addAll(ArtifactDetector.of(x, fs, starts, partials, string == null, echo));
        ReverbTail tail = ReverbTail.between(x, fs, onset.sample(), struck, floor, strongest);
        if (tail != null) {
            remarks.add(tail.words(false));
        }
        return new Measurement(
                facts(clip, onset.sample() / fs, onsets, remarks),
                HeardPitch.of(f0, notes),
                new PartialSet(
                        partials,
                        series,
                        string == null || !string.isStiff() ? null : (Double) string.b(),
                        struck.fm()),
                new StrikeFacts(
                        Attack.seconds(x, fs, onset.sample()), residue.strikeNoise(), residue.bands(x, onset.sample())),
                BrightnessPath.of(x, fs, onset.sample(), floor).summary(),
                null,
                TraitExtractor.of(partials, string),
                new RoomFacts(echo, tail));
    }

    /** A note that is held: its harmonics are its partials, and none of them decays. */
    private static Measurement describe(
            Clip clip, double[] x, Onset rough, HeldNote held, NoiseFloor floor, List<Double> onsets, String loop) {
        double fs = clip.sampleRateHz();
        double strongest = held.harmonics().stream()
                .mapToDouble(HeldHarmonic::amplitude)
                .max()
                .orElse(1);
        List<Partial> partials = new ArrayList<>();
        for (HeldHarmonic h : held.harmonics()) {
            partials.add(new Partial(
                    h.frequencyHz(),
                    h.frequencyHz() / held.f0Hz(),
                    20 * Math.log10(h.amplitude() / strongest),
                    h.amplitude(),
                    h.phaseRad(),
                    null,
                    null,
                    null,
                    h.attackSeconds(),
                    h.frequencySeHz(),
                    null,
                    h.snrDb(),
                    true));
        }
        Onset onset = new Onset((int) Math.round(held.onsetSeconds() * fs), rough.hasLeadIn());
        double f0 = held.f0Hz();
        List<SeriesFit> ranked = SeriesFit.rank(partials);
        StrikeResidual residue = StrikeResidual.of(x, fs, onset.sample(), onset.sample(), List.of(), null, floor, 0);
        int release = (int) Math.round(held.releaseSeconds() * fs);
        ReverbTail tail = ReverbTail.released(x, fs, release, floor, strongest * strongest / 2);
        List<String> remarks = new ArrayList<>(RecordingWarnings.of(clip, x, onset, floor, true, onsets));
        if (loop != null) {
            remarks.add(0, loop);
        }
        if (tail != null) {
            remarks.add(tail.words(true));
        }
        StrikeNote harmonic = new StrikeNote(
                Pitch.name(Pitch.nearestKey(f0)),
                f0,
                held.share(),
                String.format(
                        Locale.ROOT, "%.0f %% of the sound are its harmonics, and move with it", 100 * held.share()));
        return new Measurement(
                facts(clip, held.onsetSeconds(), onsets, remarks),
                HeardPitch.of(f0, List.of(harmonic)),
                new PartialSet(
                        partials, ranked.isEmpty() || ranked.get(0).matched() < 2 ? null : ranked.get(0), null, null),
                new StrikeFacts(Attack.seconds(x, fs, onset.sample()), null, residue.bands(x, onset.sample())),
                BrightnessPath.of(x, fs, onset.sample(), floor).summary(),
                held,
                TraitExtractor.of(held),
                new RoomFacts(null, tail));
    }

    private static ClipFacts facts(Clip clip, double onsetSeconds, List<Double> onsets, List<String> remarks) {
        double lufs = Loudness.integrated(clip);
        return new ClipFacts(
                clip.sampleRateHz(),
                clip.seconds(),
                onsetSeconds,
                onsets,
                Double.isFinite(lufs) ? lufs : null,
                remarks);
    }

    private static double[] usable(Clip clip) throws UnusableSound {
        if (clip.seconds() < SHORTEST_SECONDS) {
            throw new UnusableSound(String.format(
                    Locale.ROOT,
                    "The sound is %d sample%s long (%.1f ms); a note needs at least %.0f ms.",
                    clip.length(),
                    clip.length() == 1 ? "" : "s",
                    1000 * clip.seconds(),
                    1000 * SHORTEST_SECONDS));
        }
        double[] x = Channels.of(clip).samples();
        for (int i = 0; i < x.length; i++) {
            if (!Double.isFinite(x[i])) {
                throw new UnusableSound("The sound holds a value that is not a number at sample " + i
                        + ": the file is damaged, export it again.");
            }
        }
        double offset = Offset.of(x, clip.sampleRateHz());
        double peak = 0;
        for (int i = 0; i < x.length; i++) {
            x[i] -= offset;
            peak = Math.max(peak, Math.abs(x[i]));
        }
        if (peak < 1e-5) {
            throw new UnusableSound(
                    "The sound is silent (nothing above -100 dB): check the recording level and the chosen channel.");
        }
        return x;
    }
}

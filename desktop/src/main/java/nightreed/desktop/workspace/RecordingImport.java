package nightreed.desktop.workspace;

import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import nightreed.claim.Claim;
import nightreed.claim.ClaimJudge;
import nightreed.claim.Verdict;
import nightreed.files.Shown;
import nightreed.measure.ManualCorrections;
import nightreed.measure.Measurement;
import nightreed.measure.PartialNear;
import nightreed.measure.partial.Partial;
import nightreed.measure.take.TakeTempo;
import nightreed.music.Pitch;
import nightreed.project.ProjectFile;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import nightreed.sound.file.Outline;
import nightreed.sound.file.SoundFiles;
import nightreed.sound.file.SoundFormat;

/**
 * How a recording comes to the bench and is measured: from a file, a span of one, a microphone, the recording room or a part of
 * what is there, and again as a person has its partials. All public methods are called on the UI thread and return at once.
 */
public final class RecordingImport {
    /** Files longer than this are looked through first, and the note in them is pointed out by hand [s]. */
    static final double TAKEN_AT_ONCE_SECONDS = 60;

    private final Workspace bench;
    private final Executor ui;
    private final ReadOnlyObjectWrapper<LongFile> longFile = new ReadOnlyObjectWrapper<>();

    /** A file too long to be one note, waiting for a span of it to be chosen. */
    public record LongFile(Path file, Outline outline) {}

    RecordingImport(Workspace bench, Executor ui) {
        this.bench = bench;
        this.ui = ui;
    }

    /** Puts a long file away without taking anything from it. */
    public void leaveLongFile() {
        longFile.set(null);
    }

    /** A long file that waits for a span of it to be chosen, null if there is none. */
    public ReadOnlyObjectProperty<LongFile> longFileProperty() {
        return longFile.getReadOnlyProperty();
    }

    /**
     * Measures a sound file and makes it the recording; an imitation that has one already is left alone. A file too long
     * to be one note is looked through, and waits until a span of it is chosen.
     */
    public void file(Path file) {
        String name = String.valueOf(file.getFileName());
        longFile.set(null);
        if (name.endsWith(ProjectFile.ENDING)) { // not even looked into: that would unlock it while it is open
            bench.say(Shown.of(name) + " is a project and no recording: open it from the menu of projects.");
            return;
        }
        bench.run("measuring " + name, progress -> {
            SoundFormat format = SoundFiles.format(file);
            if (format.seconds() > TAKEN_AT_ONCE_SECONDS || Double.isNaN(format.seconds())) {
                Outline outline = SoundFiles.outline(
                        file,
                        seconds -> progress.report(
                                Math.min(1, seconds / Math.max(seconds, format.seconds())),
                                String.format(Locale.ROOT, "looking through, %.0f s", seconds)));
                if (outline.seconds() > TAKEN_AT_ONCE_SECONDS) {
                    ui.execute(() -> longFile.set(new LongFile(file, outline)));
                    return;
                }
            }
            bench.take(withoutEnding(name), name, told(SoundFiles.read(file)), progress);
        });
    }

    /** Measures a span of a long file [s]. */
    public void span(Path file, double from, double to) {
        String name = String.valueOf(file.getFileName());
        String span = String.format(Locale.ROOT, "%s, %.1f to %.1f s", withoutEnding(name), from, to);
        bench.run("measuring " + span, progress -> {
            bench.take(
                    span,
                    name + String.format(Locale.ROOT, " from %.1f s", from),
                    told(SoundFiles.read(file, from, to)),
                    progress);
            ui.execute(() -> longFile.set(null));
        });
    }

    /** Measures what a microphone has picked up. */
    public void clip(String name, Clip clip) {
        bench.run("measuring " + name, progress -> bench.take(name, name, clip, progress));
    }

    private Clip told(SoundFiles.Loaded loaded) {
        if (loaded.warning() != null) {
            bench.say(loaded.warning());
        }
        return loaded.clip();
    }

    private static String withoutEnding(String name) {
        return name.replaceFirst("\\.[A-Za-z0-9]{2,4}$", "");
    }

    /** Has the recording room play a note and makes it the recording. */
    public void record(RecordingRoom.Instrument instrument, int key, double velocity, long seed) {
        String name = String.format(Locale.ROOT, "%s %s, strength %.1f", instrument.title(), Pitch.name(key), velocity);
        bench.run("recording " + name, progress -> {
            progress.report(0, "playing");
            Clip clip = RecordingRoom.record(instrument, key, velocity, seed);
            bench.take(name, "recording room: " + name, clip, progress);
        });
    }

    /** Measures another note of the recording on the bench, as an imitation of its own. */
    public void note(int index) {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            return;
        }
        List<Double> onsets = at.recording().measurement().noteOnsets();
        Clip clip = at.recording().clip();
        double fs = clip.sampleRateHz();
        int from = (int) Math.max(0, (onsets.get(index) - 0.01) * fs);
        int to = index + 1 < onsets.size() ? (int) ((onsets.get(index + 1) - 0.005) * fs) : clip.length();
        String name = at.recordingName() + ", note " + (index + 1);
        bench.run("measuring note " + (index + 1), progress -> bench.take(name, name, clip.span(from, to), progress));
    }

    /** Measures a part of the recording on the bench, as a recording of its own [s]. */
    public void part(double from, double to) {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            return;
        }
        Clip clip = at.recording().clip();
        double fs = clip.sampleRateHz();
        Clip part = clip.span((int) (from * fs), (int) Math.min(clip.length(), to * fs));
        String name = String.format(Locale.ROOT, "%s, %.2f to %.2f s", at.recordingName(), from, to);
        bench.run("measuring the span", progress -> bench.take(name, name, part, progress));
    }

    /** Measures the tempo of the recording on the bench, and tells it on the UI thread. */
    public void tempo(Consumer<TakeTempo> then) {
        WorkspaceState at = bench.state();
        if (at.recording() != null) {
            bench.run("measuring the tempo", progress -> {
                TakeTempo found = TakeTempo.of(at.recording().clip());
                ui.execute(() -> then.accept(found));
            });
        }
    }

    /** Holds claims against the recording on the bench, and tells the verdicts, in their order, on the UI thread. */
    public void test(List<Claim> claims, Consumer<List<Verdict>> then) {
        WorkspaceState at = bench.state();
        if (at.recording() != null) {
            bench.beside( // beside a fit that is under way, too
                    () -> {
                        ClaimJudge judge = new ClaimJudge(
                                at.recording().measurement(), at.recording().clip());
                        return claims.stream().map(judge::of).toList();
                    },
                    then,
                    () -> {});
        }
    }

    /** Looks for a partial near a frequency [Hz] and takes it in; says so where there is none. */
    public void takeInNear(double hz) {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            return;
        }
        bench.run("looking near " + Math.round(hz) + " Hz", progress -> {
            Partial p = at.recording().measurement().partials().stream()
                    .filter(q -> !q.reliable() && Math.abs(q.frequencyHz() - hz) < Math.max(2, 0.006 * hz))
                    .max(Comparator.comparingDouble(Partial::levelDb))
                    .orElseGet(() -> PartialNear.find(
                            at.recording().clip(), at.recording().measurement(), hz));
            if (p == null) {
                bench.say(String.format(
                        Locale.ROOT,
                        "Nothing stands out of the noise near %.0f Hz: try another frequency, or listen to what is left"
                                + " without the partials.",
                        hz));
                return;
            }
            ui.execute(() -> bench.shaping()
                    .decide(
                            String.format(Locale.ROOT, "partial at %.1f Hz taken in", p.frequencyHz()),
                            bench.state().snapshot().hand().takeIn(p.frequencyHz())));
        });
    }

    /** Fits the partials of the recording anew as a person has them; where that changes nothing, it says so. */
    public void refit(String label, ManualCorrections hand, String otherwise) {
        WorkspaceState at = bench.state();
        if (at.recording() == null) {
            return;
        }
        bench.run("fitting it anew", progress -> {
            Measurement now = at.recording().byHand(hand).measurement();
            if (now.partials().equals(at.recording().measurement().partials())) {
                bench.say(otherwise);
            } else {
                ui.execute(() -> bench.shaping().decide(label, hand));
            }
        });
    }
}

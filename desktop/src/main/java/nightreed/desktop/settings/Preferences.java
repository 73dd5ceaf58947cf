package nightreed.desktop.settings;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import nightreed.desktop.reedbed.Axis;
import nightreed.device.SoundOut;
import nightreed.machine.Machine;
import nightreed.match.hearing.JndThresholds;

/**
 * Everything a user can set.
 *
 * @param look         night or day
 * @param scalePercent size of everything in the window, 100 to 200; takes effect at the next start
 * @param output       name of the sound output, null for the system's own choice
 * @param blockSamples samples per block of sound: fewer are heard sooner, more are safer on a busy machine
 * @param referenceHz  pitch of A4 that offsets are told against [Hz], 400 to 480
 * @param tempoBpm     tempo that rates and delays are told against [quarters a minute], 20 to 400
 * @param axis         frequency axis that pictures start with
 * @param hearing      thresholds of hearing
 * @param place        where the window was
 * @param recent       projects opened before, the latest first
 * @param welcomed     whether the first words have been shown
 * @param midi         what plays the keys from outside
 * @param machine      that has to play what is fitted, null for none in particular
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record Preferences(
        Look look,
        int scalePercent,
        String output,
        int blockSamples,
        double referenceHz,
        double tempoBpm,
        Axis.Kind axis,
        JndThresholds hearing,
        Place place,
        List<String> recent,
        boolean welcomed,
        Midi midi,
        Machine machine) {
    /** Sizes of blocks that can be chosen [samples]. */
    public static final List<Integer> BLOCKS = List.of(64, 128, 256, 512, 1024, 2048);

    private static final int MOST_RECENT = 8;

    public static final Preferences USUAL = new Preferences(
            Look.NIGHT,
            100,
            null,
            SoundOut.USUAL_BLOCK,
            440,
            120,
            Axis.Kind.RATIO,
            JndThresholds.USUAL,
            Place.USUAL,
            List.of(),
            false,
            Midi.USUAL,
            null);

    /** The two looks. */
    public enum Look {
        NIGHT,
        DAY
    }

    /**
     * Where the window was, in screen units; NaN where the system may choose.
     *
     * @param dividerShare share of the width that the stage has, the rest being the margin
     * @param notes        whether the margin is open
     */
    public record Place(
            double x, double y, double width, double height, boolean maximized, double dividerShare, boolean notes) {
        public static final Place USUAL = new Place(Double.NaN, Double.NaN, 1280, 800, false, 0.77, true);
    }

    /**
     * What plays from outside.
     *
     * @param device   name of a MIDI device, of the stand-in, "none", or null for the first there is
     * @param controls id of the value that a controller (0 to 119) moves
     */
    public record Midi(String device, Map<Integer, String> controls) {
        public static final Midi USUAL = new Midi(null, Map.of());

        public Midi {
            Map<Integer, String> kept = new TreeMap<>();
            if (controls != null) {
                controls.forEach((c, id) -> {
                    if (c != null && c >= 0 && c < 120 && id != null && !id.isBlank()) {
                        kept.put(c, id);
                    }
                });
            }
            controls = Collections.unmodifiableMap(kept);
        }
    }

    /** Values out of range, as a hand-edited file may hold, become the usual ones. */
    public Preferences {
        look = look == null ? Look.NIGHT : look;
        scalePercent = Math.max(100, Math.min(200, scalePercent));
        blockSamples = BLOCKS.contains(blockSamples) ? blockSamples : SoundOut.USUAL_BLOCK;
        referenceHz = referenceHz >= 400 && referenceHz <= 480 ? referenceHz : 440;
        tempoBpm = tempoBpm >= 20 && tempoBpm <= 400 ? tempoBpm : 120;
        axis = axis == null ? Axis.Kind.RATIO : axis;
        hearing = hearing == null ? JndThresholds.USUAL : hearing;
        place = place == null ? Place.USUAL : place;
        midi = midi == null ? Midi.USUAL : midi;
        recent = recent == null ? List.of() : List.copyOf(recent.subList(0, Math.min(MOST_RECENT, recent.size())));
    }

    public Preferences withLook(Look l) {
        return changed(d -> d.look = l);
    }

    public Preferences withScalePercent(int percent) {
        return changed(d -> d.scalePercent = percent);
    }

    public Preferences withOutput(String name, int block) {
        return changed(d -> {
            d.output = name;
            d.blockSamples = block;
        });
    }

    public Preferences withReferenceHz(double hz) {
        return changed(d -> d.referenceHz = hz);
    }

    public Preferences withTempoBpm(double bpm) {
        return changed(d -> d.tempoBpm = bpm);
    }

    public Preferences withAxis(Axis.Kind k) {
        return changed(d -> d.axis = k);
    }

    public Preferences withHearing(JndThresholds h) {
        return changed(d -> d.hearing = h);
    }

    public Preferences withPlace(Place p) {
        return changed(d -> d.place = p);
    }

    public Preferences withRecent(String path) {
        List<String> next = new ArrayList<>(recent);
        next.remove(path);
        next.add(0, path);
        return changed(d -> d.recent = next);
    }

    public Preferences asWelcomed() {
        return changed(d -> d.welcomed = true);
    }

    public Preferences withMachine(Machine other) {
        return changed(d -> d.machine = other);
    }

    public Preferences withMidi(Midi m) {
        return changed(d -> d.midi = m);
    }

    /** Distance of a frequency from a key at the reference pitch, given that at A4 = 440 Hz [cents]. */
    public double centsAtReference(double centsFrom440) {
        return centsFrom440 - 1200 * Math.log(referenceHz / 440) / Math.log(2);
    }

    private Preferences changed(Consumer<Draft> change) {
        Draft d = new Draft(this);
        change.accept(d);
        return d.done();
    }

    /** All of it, to be changed in places. */
    private static final class Draft {
        private Look look;
        private int scalePercent;
        private String output;
        private int blockSamples;
        private double referenceHz;
        private double tempoBpm;
        private Axis.Kind axis;
        private JndThresholds hearing;
        private Place place;
        private List<String> recent;
        private boolean welcomed;
        private Midi midi;
        private Machine machine;

        Draft(Preferences p) {
            look = p.look;
            scalePercent = p.scalePercent;
            output = p.output;
            blockSamples = p.blockSamples;
            referenceHz = p.referenceHz;
            tempoBpm = p.tempoBpm;
            axis = p.axis;
            hearing = p.hearing;
            place = p.place;
            recent = p.recent;
            welcomed = p.welcomed;
            midi = p.midi;
            machine = p.machine;
        }

        Preferences done() {
            return new Preferences(
                    look,
                    scalePercent,
                    output,
                    blockSamples,
                    referenceHz,
                    tempoBpm,
                    axis,
                    hearing,
                    place,
                    recent,
                    welcomed,
                    midi,
                    machine);
        }
    }
}

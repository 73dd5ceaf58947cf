package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.partial.Partial;
import nightreed.music.Pitch;
import nightreed.room.RecordingRoom;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What is in a recording besides one note of an instrument: echoes, clicks, drive, other notes. */
class SurroundingsTest {
    private static Measurement measured(MadeUpNote note) throws Exception {
        return Measurer.measure(note.clip());
    }

    private static MadeUpNote bar(long seed) {
        return new MadeUpNote(seed, 0.2, 3)
                .mode(311, 0.25, 1.4)
                .mode(857, 0.15, 0.8)
                .mode(1680, 0.08, 0.4)
                .burst(0.1, 0.03);
    }

    @ParameterizedTest
    @CsvSource({"0.125, 0.5, false", "0.375, 0.4, true", "0.0833, 0.3, true", "0.3, 0.25, false"})
    void anEchoIsReportedAndTakenForNoNote(double seconds, double gain, boolean feedback) throws Exception {
        Measurement m = measured(bar(1).echo(seconds, gain, feedback).noise(60));
        assertThat(m.echo()).isNotNull();
        assertThat(m.echo().delaySeconds()).isCloseTo(seconds, within(0.0005));
        assertThat(m.echo().gain()).isCloseTo(gain, within(0.3 * gain));
        assertThat(m.echo().feedback()).isEqualTo(feedback);
        assertThat(m.noteOnsets()).hasSize(1);
        assertThat(m.remarks()).anyMatch(r -> r.startsWith("There is an echo in it"));
        assertThat(m.f0Hz()).isCloseTo(311, within(0.3));
    }

    @ParameterizedTest
    @CsvSource({"left, 0.3, 0.1", "right, 0.05, 0.4", ", 0.3, 0.3"})
    void anEchoIsHeardOnItsSide(String side, double left, double right) throws Exception {
        float[][] sides = new float[2][];
        for (int k = 0; k < 2; k++) {
            Clip one = bar(1).echo(0.21, k == 0 ? left : right, false).noise(60).clip();
            sides[k] = one.channel(0);
        }
        Measurement m = Measurer.measure(new Clip(sides, MadeUpNote.FS));
        assertThat(m.echo()).isNotNull();
        assertThat(m.echo().side()).isEqualTo(side);
    }

    @ParameterizedTest
    @CsvSource({"0.5, -12", "1.2, -18", "2.5, -15"})
    void aRoomIsToldFromThePartials(double t60, double db) throws Exception {
        aRoomIsToldFromThePartials(0, t60, db);
    }

    @ParameterizedTest
    @Tag("long")
    @CsvSource({"1, 0.5, -12", "2, 0.5, -12", "1, 1.2, -18", "2, 1.2, -18", "1, 2.5, -15", "2, 2.5, -15"})
    void aRoomIsToldFromThePartials(int seed, double t60, double db) throws Exception {
        MadeUpNote note = new MadeUpNote(seed, 0.2, 3)
                .mode(330 + 40 * seed, 0.3, 1.1)
                .mode(905 + 90 * seed, 0.2, 0.8)
                .mode(2130, 0.1, 0.4)
                .burst(0.3, 0.02)
                .room(t60, db)
                .noise(70);
        Measurement m = measured(note);
        assertThat(m.tail()).isNotNull();
        assertThat(m.tail().t60Seconds()).isCloseTo(t60, within(0.2 * t60));
        assertThat(m.remarks()).anyMatch(r -> r.startsWith("Between the partials something dies in"));
    }

    @Test
    void theLevelOfWhatRingsOnIsThatAtTheStrike() throws Exception {
        double sigma = 0.01;
        ReverbTail tail = measured(new MadeUpNote(4, 0.2, 3)
                        .mode(700, 0.3, 1.2)
                        .mode(1930, 0.1, 0.8)
                        .burst(sigma, 0.8)
                        .noise(75))
                .tail();
        double share = (10_000 - 150) / 24_000.0; // of white noise lies where it is looked for
        double expected = 10 * Math.log10(share * sigma * sigma / (0.3 * 0.3 / 2));
        assertThat(tail.t60Seconds()).isCloseTo(0.8, within(0.05));
        assertThat(tail.levelDb()).isCloseTo(expected, within(1.0));
        assertThat(tail.t60SeSeconds()).isBetween(0.001, 0.05);
    }

    @ParameterizedTest
    @ValueSource(doubles = {45, 90})
    void anUnknownBackgroundDoesNotMakeARoomLonger(double snr) throws Exception {
        MadeUpNote note =
                new MadeUpNote(4, 0, 2).mode(700, 0.3, 1.2).burst(0.02, 0.5).noise(snr);
        ReverbTail tail = measured(note).tail();
        assertThat(tail == null ? 0.5 : tail.t60Seconds()).isCloseTo(0.5, within(0.06));
        if (snr > 60) {
            assertThat(tail).as("with so little noise it can be told").isNotNull();
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {0})
    void whatIsDryHasNoRoom(int seed) throws Exception {
        assertThat(measured(bar(seed).burst(0.3, 0.01).noise(60)).tail()).isNull();
        MadeUpNote string = new MadeUpNote(seed, 0.2, 2.5)
                .string(98 * (1 + seed), 1e-4, 0.2, 1.5, 1e-6, 24)
                .burst(0.1, 0.02)
                .noise(65);
        assertThat(measured(string).tail()).isNull();
        MadeUpNote fm = new MadeUpNote(seed, 0.2, 2)
                .modulated(310 + 90 * seed, 140 + 71 * seed, 3, 0.5, 1.5)
                .noise(60);
        assertThat(measured(fm).tail()).isNull();
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {1, 2, 3})
    void moreWhatIsDryHasNoRoom(int seed) throws Exception {
        whatIsDryHasNoRoom(seed);
    }

    @Test
    void whatRingsOnAfterTheReleaseIsMeasured() throws Exception {
        MadeUpNote note = new MadeUpNote(3, 0.2, 3)
                .held(220, 10, 0.05, 1.5, t -> 0, t -> 0)
                .noise(60);
        ReverbTail release = measured(note).tail();
        assertThat(release.t60Seconds()).isCloseTo(0.15, within(0.02));
        // ten harmonics that fall by their number have 1.55 times the power of the first
        assertThat(release.levelDb()).isCloseTo(10 * Math.log10(1.55), within(1.0));
        MadeUpNote wet = new MadeUpNote(3, 0.2, 3)
                .held(220, 10, 0.05, 1.5, t -> 0, t -> 0)
                .room(0.9, -6)
                .noise(60);
        assertThat(measured(wet).tail().t60Seconds()).isCloseTo(0.9, within(0.2));
    }

    @ParameterizedTest
    @CsvSource({"0.9, 0.2374", "0.7, 0.0125", "1.2, 0.51"})
    void theLoopOfASampleIsNotThePlayer(double from, double length) throws Exception {
        double[] x = new MadeUpNote(5, 0.1, 3)
                .held(320, 12, 0.04, 2.9, t -> 12 * Math.sin(2 * Math.PI * 6 * t), t -> 0)
                .noise(40)
                .samples();
        int start = (int) (from * MadeUpNote.FS);
        int pass = (int) (length * MadeUpNote.FS);
        for (int i = start + pass; i < x.length; i++) {
            x[i] = x[i - pass];
        }
        Measurement m = Measurer.measure(Clip.mono(x, MadeUpNote.FS));
        assertThat(m.remarks().get(0))
                .startsWith(String.format(
                        java.util.Locale.ROOT, "From %.2f s on it repeats every %.1f ms", from, 1000 * length));
        assertThat(m.held().releaseSeconds()).isLessThan(from + length + 0.01);
        assertThat(m.held().vibrato().rateHz()).isCloseTo(6, within(0.3));
    }

    @Test
    void whatIsHeldWithoutMovementIsNoLoop() throws Exception {
        for (double snr : new double[] {30, 60, 110}) {
            MadeUpNote note = new MadeUpNote(6, 0.2, 2)
                    .held(300, 12, 0.05, 1.6, t -> 0, t -> 0)
                    .noise(snr);
            Measurement m = measured(note);
            assertThat(m.remarks()).noneMatch(r -> r.contains("repeats"));
            assertThat(m.held().releaseSeconds()).isCloseTo(1.8, within(0.05));
        }
    }

    @Test
    void aLateEchoDoesNotMakeTheDecayLonger() throws Exception {
        Measurement m = measured(bar(2).echo(0.5, 0.6, true).noise(60));
        assertThat(m.strongest().t60Seconds()).isCloseTo(1.4, within(0.02));
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1})
    void whatHasNoEchoIsNotSaidToHaveOne(int seed) throws Exception {
        assertThat(measured(bar(seed).noise(seed % 2 == 0 ? 20 : 50)).echo()).isNull();
        MadeUpNote string = new MadeUpNote(seed, 0.2, 2.5)
                .string(90 + 40 * seed, 2e-4, 0.13 + 0.03 * seed, 2, 1e-6, 20)
                .noise(50);
        assertThat(measured(string).echo()).isNull();
        Clip room = RecordingRoom.record(RecordingRoom.instruments().get(seed % 2), 55 + seed, 0.7, seed);
        assertThat(Measurer.measure(room).echo()).isNull();
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {2, 3})
    void moreWhatHasNoEchoIsNotSaidToHaveOne(int seed) throws Exception {
        whatHasNoEchoIsNotSaidToHaveOne(seed);
    }

    @Test
    void clicksThatRepeatAreCounted() throws Exception {
        Measurement m = measured(bar(3).clicks(0.55, 0.25, 0.05).noise(60));
        assertThat(m.remarks()).anyMatch(r -> r.contains("10 clicks") && r.contains("one every 250.0 ms"));
        assertThat(measured(bar(3).noise(40)).remarks()).noneMatch(r -> r.contains("clicks"));
    }

    @Test
    void driveIsToldFromPartialsOfTheInstrument() throws Exception {
        Measurement driven = measured(bar(4).driven(0.5, 0.6).noise(70));
        assertThat(driven.remarks()).anyMatch(r -> r.contains("the sound was driven"));
        assertThat(measured(bar(4).noise(70)).remarks()).noneMatch(r -> r.contains("driven"));
    }

    @Test
    void whatRisesBeforeTheStrikeIsSaid() throws Exception {
        Clip clean = bar(5).noise(70).clip();
        double[] x = clean.mixed();
        java.util.Random chance = new java.util.Random(5);
        for (int i = 0; i < 900; i++) { // 19 ms of noise that swells towards the strike
            x[9600 - 900 + i] += 0.004 * i / 900 * chance.nextGaussian();
        }
        Measurement m = Measurer.measure(Clip.mono(x, MadeUpNote.FS));
        assertThat(m.remarks()).anyMatch(r -> r.startsWith("Something sounds just before the strike"));
        assertThat(Measurer.measure(clean).remarks()).noneMatch(r -> r.startsWith("Something sounds"));
    }

    /** Two strings of one note, as a course or a unison has them, down to where they beat once in ten seconds. */
    @ParameterizedTest
    @ValueSource(doubles = {-1.5, 28})
    void twoStringsOutOfTuneAreOneNoteWhosePartialsBeat(double cents) throws Exception {
        double f0 = 146.8;
        double other = f0 * Math.pow(2, cents / 1200);
        Measurement m = measured(new MadeUpNote(3, 0.2, 3.5)
                .string(f0, 1e-5, 0.21, 2, 4e-7, 12)
                .string(other, 1e-5, 0.21, 2, 4e-7, 12)
                .noise(55));
        assertThat(m.isChord()).isFalse();
        assertThat(m.remarks()).anyMatch(r -> r.contains("two strings of one note"));
        assertThat(m.f0Hz()).isBetween(Math.min(f0, other) - 0.1, Math.max(f0, other) + 0.1);
        List<Partial> paired = m.reliablePartials().stream()
                .filter(p -> p.beatHz() != null && p.levelDb() > -30)
                .toList();
        assertThat(paired).hasSizeGreaterThan(7).allSatisfy(p -> {
            assertThat(p.t60Seconds()).as("T60 at " + p.frequencyHz()).isNotNull();
            double nearer = Math.rint(p.ratio()) * f0;
            double apart = p.beatHz() / nearer / (Math.log(2) / 1200);
            assertThat(apart).as("cents at " + p.frequencyHz()).isCloseTo(Math.abs(cents), within(0.5));
        });
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(doubles = {4, -12})
    void moreTwoStringsOutOfTuneAreOneNoteWhosePartialsBeat(double cents) throws Exception {
        twoStringsOutOfTuneAreOneNoteWhosePartialsBeat(cents);
    }

    @ParameterizedTest
    @CsvSource({"220, 277.18, 329.63", "146.83, 220, 0", "174.61, 261.63, 440"})
    void aChordIsRefusedUntilOneOfItsNotesIsChosen(double a, double b, double c) throws Exception {
        MadeUpNote chord = new MadeUpNote(6, 0.2, 2.5);
        for (double f0 : new double[] {a, b, c}) {
            if (f0 > 0) {
                chord.string(f0, 1e-5, 0.21, 2, 4e-7, 12);
            }
        }
        Clip clip = chord.noise(55).clip();
        Measurement m = Measurer.measure(clip);
        assertThat(m.isChord()).isTrue();
        assertThat(m.f0Hz()).isNull();
        assertThat(m.remarks().get(0)).startsWith("These are several notes at once");
        List<Double> notes =
                m.strikeNotes().stream().map(StrikeNote::frequencyHz).toList();
        assertThat(notes).hasSize(c > 0 ? 3 : 2);
        assertThat(notes.get(1)).isCloseTo(b, within(0.2));
        Measurement one = ManualCorrections.NONE.strikeNote(notes.get(0)).over(m, clip);
        assertThat(one.f0Hz()).isCloseTo(a, within(0.2));
        assertThat(one.reliablePartials())
                .allSatisfy(p ->
                        assertThat(Pitch.cents(Math.rint(p.ratio()), p.ratio())).isBetween(-10.0, 20.0))
                .hasSizeGreaterThan(5);
    }

    @Test
    void oneNoteIsNoChord() throws Exception {
        oneNoteIsNoChord(0);
        oneNoteIsNoChord(5);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {1, 2, 3, 4})
    void oneNoteIsNoChord(int seed) throws Exception {
        MadeUpNote string = new MadeUpNote(seed, 0.2, 2)
                .string(82.4 * Math.pow(1.31, seed), 1e-4 * seed, 0.11 + 0.05 * seed, 2, 1e-6, 24)
                .noise(40);
        Measurement one = measured(string);
        assertThat(one.isChord()).isFalse();
        assertThat(one.remarks()).noneMatch(r -> r.contains("two strings"));
        MadeUpNote fm = new MadeUpNote(seed, 0.2, 2)
                .modulated(300 + 90 * seed, 140 + 71 * seed, 3, 0.5, 1.5)
                .noise(40);
        assertThat(measured(fm).isChord()).isFalse();
        Clip room = RecordingRoom.record(RecordingRoom.instruments().get(seed % 2), 50 + 5 * seed, 0.6, seed);
        assertThat(Measurer.measure(room).isChord()).isFalse();
    }

    @ParameterizedTest
    @CsvSource({"261.63, 329.63, 391.99"})
    void aChordThatIsHeldIsRefusedToo(double a, double b, double c) throws Exception {
        MadeUpNote chord = new MadeUpNote(7, 0.2, 2.2);
        for (double f0 : new double[] {a, b, c}) {
            if (f0 > 0) {
                chord.held(f0, 10, 0.04, 1.8, t -> 0, t -> 0);
            }
        }
        Measurement m = Measurer.measure(chord.noise(50).clip());
        assertThat(m.f0Hz()).as("%s", m.remarks()).isNull();
        assertThat(m.isChord()).isTrue();
        assertThat(m.strikeNotes().get(0).frequencyHz()).isCloseTo(a, within(0.5));
    }

    @ParameterizedTest
    @Tag("long")
    @CsvSource({"146.83, 207.65, 0", "220, 293.66, 369.99"})
    void moreAChordThatIsHeldIsRefusedToo(double a, double b, double c) throws Exception {
        aChordThatIsHeldIsRefusedToo(a, b, c);
    }

    @Test
    void driveIsFoundWhereverTheStrongPartialsLie() throws Exception {
        // many weak partials lie under the three strong ones
        MadeUpNote note = new MadeUpNote(8, 0.2, 2.5);
        for (int k = 0; k < 6; k++) {
            note.mode(90 + 37.3 * k, 0.016, 0.9);
        }
        note.mode(700, 0.3, 1.2).mode(1130, 0.25, 0.9).mode(1630, 0.2, 0.8);
        assertThat(Measurer.measure(note.driven(0.4, 0.5).noise(75).clip()).remarks())
                .anyMatch(r -> r.contains("the sound was driven"));
    }

    @Test
    void theOnsetIsTheStrikeAndNotWhatComesBefore() throws Exception {
        double[] x = bar(9).noise(70).samples();
        java.util.Random chance = new java.util.Random(9);
        for (int i = 0; i < 1200; i++) {
            x[9600 - 1200 + i] += 0.003 * i / 1200 * chance.nextGaussian();
        }
        Measurement m = Measurer.measure(Clip.mono(x, MadeUpNote.FS));
        assertThat(m.onsetSeconds()).isCloseTo(0.2, within(0.0008));
        Measurement swelling = Measurer.measure(new MadeUpNote(9, 0.2, 2)
                .held(300, 8, 0.06, 1.7, t -> 0, t -> 0)
                .noise(60)
                .clip());
        assertThat(swelling.onsetSeconds()).as("a swell has no strike").isCloseTo(0.2, within(0.005));
    }
}

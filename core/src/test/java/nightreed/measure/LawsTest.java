package nightreed.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import nightreed.measure.law.FmLaw;
import nightreed.measure.law.StrikeNote;
import nightreed.measure.partial.Partial;
import nightreed.measure.take.NoteOnsets;
import nightreed.sound.Clip;
import nightreed.work.Progress;
import org.hipparchus.special.BesselJ;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What partials have in common: strings, sidebands, tubes, two stages. */
class LawsTest {
    @ParameterizedTest
    @CsvSource({"90, 2e-4, 60", "190, 5e-5, 40", "330, 4e-4, 30"})
    void stiffnessAndPitchOfAString(double f0, double b, double snr) throws Exception {
        Measurement m = Measurer.measure(new MadeUpNote(1, 0.12, 2.4)
                .string(f0, b, 0.22, 1.2, 2e-6, 24)
                .noise(snr)
                .clip());
        assertThat(m.f0Hz()).isCloseTo(f0, within(f0 * 1e-4));
        assertThat(m.inharmonicityB()).isCloseTo(b, within(0.02 * b));
        // the pitch and its first candidate are one and the same, and the certainties are shares of one
        assertThat(m.strikeNotes().get(0).frequencyHz()).isEqualTo(m.f0Hz());
        assertThat(m.strikeNotes().stream().mapToDouble(StrikeNote::certainty).sum())
                .isBetween(0.5, 1.0001);
    }

    @Test
    void weakPartialsOfAStringAreFoundWhereTheyMustBe() throws Exception {
        // some 10 dB over the noise: at any one place alone such a line could be chance
        MadeUpNote note = new MadeUpNote(2, 0.12, 2).string(220, 1e-4, 0.19, 2, 4e-6, 30);
        Measurement m = Measurer.measure(note.noise(40).clip());
        assertThat(m.reliablePartials())
                .hasSizeGreaterThan(24)
                .allSatisfy(p -> assertThat(note.modes())
                        .anyMatch(t -> Math.abs(t.hz() - p.frequencyHz()) < 2 + 4 * p.frequencySeHz()));
    }

    @Test
    void barsAndBellsAreNoStrings() throws Exception {
        MadeUpNote bar = new MadeUpNote(3, 0.1, 2);
        for (double r : new double[] {1, 2.756, 5.404, 8.933, 13.344, 18.6}) {
            bar.mode(200 * r, 0.2 / r, 1.5 / r);
        }
        assertThat(Measurer.measure(bar.noise(50).clip()).inharmonicityB()).isNull();
    }

    @Test
    void aDecayInTwoStages() throws Exception {
        Partial p = Measurer.measure(new MadeUpNote(4, 0.1, 4)
                        .stages(440, 0.3, 1.2, 0.2, 8)
                        .noise(60)
                        .clip())
                .strongest();
        assertThat(p.stages().earlyT60Seconds()).isCloseTo(1.2, within(0.02));
        assertThat(p.stages().lateT60Seconds()).isCloseTo(8, within(0.2));
        assertThat(p.stages().lateLevelDb()).isCloseTo(-14, within(0.2));
        // three times the time in which the two together fall by 20 dB
        assertThat(p.levelDbAt(p.t60Seconds() / 3)).isCloseTo(p.levelDb() - 20, within(0.1));
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3})
    void oneSineThatModulatesAnotherIsKnownByItsLaw(int seed) throws Exception {
        Random chance = new Random(seed);
        double carrier = 120 * Math.pow(8, chance.nextDouble());
        double modulator = carrier * (0.6 + 2.6 * chance.nextDouble());
        double index = 1.5 + 5 * chance.nextDouble();
        double seconds = 0.1 + 0.6 * chance.nextDouble();
        double t60 = 0.8 + 2 * chance.nextDouble();
        MadeUpNote note = new MadeUpNote(seed, 0.2, 2.4)
                .modulated(carrier, modulator, index, seconds, t60)
                .noise(seed % 2 == 0 ? 30 : 55);
        Measurement m = Measurer.measure(note.clip());
        FmLaw fm = m.fm();
        assertThat(fm).isNotNull();
        assertThat(fm.carrierHz()).isCloseTo(carrier, within(0.02));
        assertThat(fm.modulatorHz()).isCloseTo(modulator, within(0.02));
        assertThat(fm.index()).isCloseTo(index, within(0.03 * index));
        assertThat(fm.indexSeconds()).isCloseTo(seconds, within(0.05 * seconds));
        assertThat(fm.t60Seconds()).isCloseTo(t60, within(0.05 * t60));
        assertThat(m.tail()).as("its lines leave nothing between them").isNull();
        double[] rest = PartialSounds.rest(note.clip(), m).mixed();
        double[] whole = note.clip().mixed();
        int from = (int) (0.22 * MadeUpNote.FS);
        double left = Arrays.stream(rest, from, from + 9_600).map(v -> v * v).sum()
                / Arrays.stream(whole, from, from + 9_600).map(v -> v * v).sum();
        assertThat(10 * Math.log10(left))
                .as("without it only the noise is left")
                .isLessThan(seed % 2 == 0 ? -20 : -38);
        double[] j = BesselJ.rjBesl(index, 0, 8).getVals();
        double strongest = Arrays.stream(j).map(Math::abs).max().orElse(1);
        for (int k = 0; k < 8; k++) {
            double db = 20 * Math.log10(Math.abs(j[k]) / strongest);
            double hz = carrier + k * modulator;
            if (db > -25 && hz < 20_000) {
                assertThat(m.reliablePartials()).anySatisfy(p -> {
                    assertThat(p.frequencyHz()).isCloseTo(hz, within(0.2));
                    assertThat(p.levelDb()).isCloseTo(db, within(1.0));
                });
            }
        }
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {4, 5, 6, 7, 8})
    void moreOneSineThatModulatesAnotherIsKnownByItsLaw(int seed) throws Exception {
        oneSineThatModulatesAnotherIsKnownByItsLaw(seed);
    }

    @Test
    void whatIsNoFrequencyModulationFollowsNoLawOfIt() throws Exception {
        whatIsNoFrequencyModulationFollowsNoLawOfIt(2);
    }

    @ParameterizedTest
    @Tag("long")
    @ValueSource(ints = {0, 1, 3, 4})
    void whatIsNoFrequencyModulationFollowsNoLawOfIt(int seed) throws Exception {
        MadeUpNote ring = new MadeUpNote(seed, 0.2, 2);
        double a = 300 + 77 * seed;
        double b = 410 + 131 * seed;
        for (int k = 1; k <= 3; k++) { // two waves multiplied: lines on a lattice that die by exponentials
            ring.mode(Math.abs(a - k * b), 0.2 / k, 1.2).mode(a + k * b, 0.2 / k, 1.2);
        }
        assertThat(Measurer.measure(ring.noise(50).clip()).fm()).isNull();
        MadeUpNote string = new MadeUpNote(seed, 0.2, 2)
                .string(110 * (1 + seed), 0, 0.2, 1.5, 1e-6, 16)
                .noise(50);
        assertThat(Measurer.measure(string.clip()).fm()).isNull();
        MadeUpNote lonely = new MadeUpNote(seed, 0.2, 2) // nearly all of it is one partial
                .mode(440 + 31 * seed, 0.3, 1)
                .mode(1190 + 57 * seed, 0.015, 0.5)
                .mode(2300, 0.01, 0.3)
                .noise(20 + 10 * seed);
        assertThat(Measurer.measure(lonely.clip()).fm()).isNull();
    }

    @ParameterizedTest
    @ValueSource(doubles = {1.4, 1.618, 2.756})
    void sidebandsAreOnePartialEach(double ratio) throws Exception {
        double fc = 400;
        double fm = ratio * fc;
        Measurement m = Measurer.measure(new MadeUpNote(5, 0.1, 2.4)
                .modulated(fc, fm, 3.5, 0.3, 2)
                .noise(50)
                .clip());
        List<Partial> loud =
                m.reliablePartials().stream().filter(p -> p.levelDb() > -40).toList();
        assertThat(loud).hasSizeGreaterThan(7).allSatisfy(p -> {
            double off = 1e9;
            for (int k = -12; k <= 12; k++) {
                off = Math.min(off, Math.abs(Math.abs(fc + k * fm) - p.frequencyHz()));
            }
            assertThat(off).isLessThan(0.5);
        });
        assertThat(loud.stream().map(p -> Math.round(p.frequencyHz())).distinct())
                .hasSameSizeAs(loud);
    }

    @Test
    void aStruckTubeIsHeardAnOctaveUnderItsFourthMode() throws Exception {
        MadeUpNote tube = new MadeUpNote(6, 0.1, 2);
        double[] level = {-40, -25, -20, -8, -4, 0};
        double[] ratio = {1, 2.756, 5.404, 8.933, 13.344, 18.638};
        for (int k = 0; k < 6; k++) {
            tube.mode(118 * ratio[k], 0.2 * Math.pow(10, level[k] / 20), 2.5);
        }
        Measurement m = Measurer.measure(tube.noise(60).clip());
        assertThat(m.nearestNote()).isEqualTo("C5");
        assertThat(m.strikeNotes().get(0).why()).contains("struck tube");
    }

    @Test
    void aPulledFundamentalDoesNotMoveThePitch() throws Exception {
        MadeUpNote note = new MadeUpNote(7, 0.1, 2).mode(197.5, 0.03, 1); // 20 cents under the others
        for (int n = 2; n <= 9; n++) {
            note.mode(n * 200, 0.2 / n, 1.5 / n);
        }
        assertThat(Measurer.measure(note.noise(50).clip()).f0Hz()).isCloseTo(200, within(0.7));
    }

    // ---- recordings as they come ----

    @Test
    void everyNoteOfARecordingIsNamed() throws Exception {
        double[] x = new double[6 * MadeUpNote.FS];
        double[] hz = {220, 330, 247, 440};
        for (int i = 0; i < hz.length; i++) {
            double[] one = new MadeUpNote(i, 0.01, 1.4)
                    .mode(hz[i], 0.3, 1)
                    .mode(2.756 * hz[i], 0.1, 0.4)
                    .mode(5.404 * hz[i], 0.05, 0.2)
                    .samples();
            for (int k = 0; k < one.length; k++) {
                x[(int) ((0.3 + 1.3 * i) * MadeUpNote.FS) + k] += one[k];
            }
        }
        java.util.Random r = new java.util.Random(3);
        for (int i = 0; i < x.length; i++) {
            x[i] += 1e-4 * r.nextGaussian();
        }
        List<Measurement> notes = Measurer.notes(Clip.mono(x, MadeUpNote.FS), Progress.NONE);
        assertThat(notes).extracting(Measurement::nearestNote).containsExactly("A3", "E4", "B3", "A4");
        assertThat(notes).extracting(Measurement::onsetSeconds).satisfies(on -> {
            for (int i = 0; i < 4; i++) {
                assertThat(on.get(i)).isCloseTo(0.31 + 1.3 * i, within(0.012));
            }
        });
        assertThat(Measurer.measure(Clip.mono(x, MadeUpNote.FS)).remarks()).anyMatch(s -> s.contains("holds 4 notes"));
    }

    @Test
    void beatsAndVibratoBeginNoNote() {
        double[] beating =
                new MadeUpNote(1, 0.1, 4).mode(400, 0.2, 6).mode(402, 0.2, 6).samples();
        assertThat(NoteOnsets.find(beating, MadeUpNote.FS, (int) (0.1 * MadeUpNote.FS)))
                .hasSize(1);
        double[] swinging = new MadeUpNote(2, 0.1, 3)
                .held(300, 10, 0.05, 2.5, t -> 40 * Math.sin(35 * t), t -> 4 * Math.sin(30 * t))
                .samples();
        assertThat(NoteOnsets.find(swinging, MadeUpNote.FS, (int) (0.1 * MadeUpNote.FS)))
                .hasSize(1);
    }

    private static MadeUpNote bar() {
        return new MadeUpNote(9, 0.3, 2).mode(440, 0.3, 1).mode(1212, 0.1, 0.5);
    }

    private static List<String> remarks(Clip clip) throws Exception {
        return Measurer.measure(clip).remarks();
    }

    @Test
    void faultsOfARecordingAreNamed() throws Exception {
        assertThat(remarks(bar().noise(50).clip())).isEmpty();
        assertThat(remarks(bar().noise(50)
                        .line(60, 0.01)
                        .line(120, 0.006)
                        .line(180, 0.004)
                        .clip()))
                .anyMatch(s -> s.contains("hum at 60 Hz"));
        assertThat(remarks(bar().noise(50).line(0.0001, 0).clip())).isEmpty();
        double[] cut = java.util.Arrays.copyOf(bar().noise(60).samples(), (int) (0.8 * MadeUpNote.FS));
        assertThat(remarks(Clip.mono(cut, MadeUpNote.FS))).anyMatch(s -> s.contains("cut off"));
        double[] offset = bar().noise(50).samples();
        for (int i = 0; i < offset.length; i++) {
            offset[i] += 0.03;
        }
        assertThat(remarks(Clip.mono(offset, MadeUpNote.FS))).anyMatch(s -> s.contains("constant offset"));
    }

    @Test
    void oneDeadOrInvertedChannelDoesNotSpoilTheMeasurement() throws Exception {
        float[] x = bar().noise(50).clip().channel(0);
        float[] inverted = x.clone();
        for (int i = 0; i < x.length; i++) {
            inverted[i] = -0.9f * x[i];
        }
        Measurement dead = Measurer.measure(new Clip(new float[][] {x, new float[x.length]}, MadeUpNote.FS));
        assertThat(dead.remarks()).anyMatch(s -> s.contains("Only the left channel"));
        Measurement against = Measurer.measure(new Clip(new float[][] {x, inverted}, MadeUpNote.FS));
        assertThat(against.remarks()).anyMatch(s -> s.contains("cancel each other"));
        Measurement mono = Measurer.measure(Clip.mono(x, MadeUpNote.FS));
        assertThat(dead.f0Hz()).isEqualTo(mono.f0Hz());
        assertThat(against.f0Hz()).isEqualTo(mono.f0Hz());
    }
}

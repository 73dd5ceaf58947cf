package nightreed.device;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import nightreed.Tones;
import nightreed.recipe.RecipeTest;
import nightreed.sound.Clip;
import nightreed.sound.TruePeak;
import org.junit.jupiter.api.Test;

class OutputMixerTest {
    private static final int FS = 48_000;

    private static float[] play(OutputMixer desk, double seconds) {
        float[] out = new float[(int) (seconds * FS)];
        float[] block = new float[256];
        float[] right = new float[256];
        for (int at = 0; at + 256 <= out.length; at += 256) {
            desk.render(block, right, 256);
            System.arraycopy(block, 0, out, at, 256);
        }
        return out;
    }

    private static OutputMixer loaded(double imitationGain) {
        OutputMixer d = new OutputMixer(FS);
        Clip recording = Clip.mono(Tones.sine(FS, 400, 0.3, 1), FS);
        Clip imitation = Clip.mono(Tones.sine(FS, 900, 0.3 * imitationGain, 1), FS);
        d.load(recording, imitation, -20 * Math.log10(imitationGain));
        d.volumeDb(0);
        play(d, 0.35); // the sound comes up softly at first
        return d;
    }

    @Test
    void recordingAndImitationAreEquallyLoud() {
        OutputMixer d = loaded(0.1);
        d.play();
        float[] a = play(d, 0.5);
        d.hearImitation(true);
        float[] b = play(d, 0.4);
        assertThat(Tones.rmsDb(b, 6000, 16_000)).isCloseTo(Tones.rmsDb(a, 6000, 20_000), within(0.1));
        assertThat(Tones.amplitudeAt(a, FS, 400, 6000, 9600)).isCloseTo(0.3, within(0.003));
        assertThat(Tones.amplitudeAt(b, FS, 400, 6000, 9600)).isLessThan(1e-3);
        assertThat(Tones.amplitudeAt(b, FS, 900, 6000, 9600)).isCloseTo(0.3, within(0.003));
    }

    @Test
    void playingEndsWithTheClipUnlessItLoops() {
        OutputMixer d = loaded(1);
        d.play();
        play(d, 0.9);
        assertThat(d.playing()).isTrue();
        play(d, 0.3);
        assertThat(d.playing()).isFalse();
        d.loop(true);
        d.play();
        play(d, 2.5);
        assertThat(d.playing()).isTrue();
        d.stop();
        play(d, 0.2);
        assertThat(d.playing()).isFalse();
    }

    @Test
    void startingAndStoppingDoNotClick() {
        OutputMixer d = loaded(1);
        play(d, 0.1);
        d.play();
        float[] x = play(d, 0.3);
        d.stop();
        float[] y = play(d, 0.2);
        double steepest = 0.3 * 2 * Math.PI * 400 / FS;
        for (int i = 1; i < x.length - 256; i++) {
            assertThat(Math.abs(x[i] - x[i - 1])).isLessThan((float) (1.5 * steepest));
        }
        for (int i = 1; i < y.length - 256; i++) {
            assertThat(Math.abs(y[i] - y[i - 1])).isLessThan((float) (1.5 * steepest));
        }
    }

    @Test
    void nothingPassesTheCeiling() {
        OutputMixer d = new OutputMixer(FS);
        d.instrument(RecipeTest.bar().with("level", 6).with("noise.level", 20));
        d.volumeDb(0);
        play(d, 0.35);
        for (int k = 40; k < 90; k++) {
            d.noteOn(k, 1);
        }
        float[] x = play(d, 1);
        assertThat(TruePeak.db(Clip.mono(x, FS))).isLessThanOrEqualTo(-0.8);
        assertThat(d.takeReductionDb()).isLessThan(-3);
        assertThat(d.takePeak()).isBetween(0.5, 0.9);
    }

    @Test
    void theFirstVolumeIsLow() {
        OutputMixer d = new OutputMixer(FS);
        assertThat(d.volumeDb()).isCloseTo(-18, within(1e-9));
        d.volumeDb(40);
        assertThat(d.volumeDb()).isCloseTo(0, within(1e-9));
    }

    @Test
    void aMovedValueIsInTheVeryNextBlocks() {
        OutputMixer d = new OutputMixer(FS);
        d.volumeDb(0);
        play(d, 0.35);
        d.instrument(RecipeTest.bar().with("mode.1.t60", 10));
        d.noteOn(57, 0.7);
        float[] before = play(d, 0.5);
        d.instrument(RecipeTest.bar().with("mode.1.t60", 10).with("level", -60));
        float[] after = play(d, 0.05); // what a listener may have to wait for
        double fall = Tones.rmsDb(after, 1900, 2300) - Tones.rmsDb(before, before.length - 5000, before.length - 4000);
        assertThat(fall).isLessThan(-20);
    }

    @Test
    void panicSilencesEverything() {
        OutputMixer d = loaded(1);
        d.instrument(RecipeTest.bar());
        d.play();
        d.noteOn(60, 1);
        play(d, 0.2);
        d.panic();
        float[] x = play(d, 0.3);
        assertThat(Tones.rmsDb(x, 9600, 14_000)).isLessThan(-80);
    }

    @Test
    void theAudioThreadAllocatesNothing() {
        OutputMixer d = loaded(1);
        d.instrument(RecipeTest.bar());
        d.loop(true);
        d.play();
        d.noteOn(60, 1);
        float[] left = new float[256];
        float[] right = new float[256];
        for (int i = 0; i < 400; i++) {
            d.render(left, right, 256);
        }
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long id = Thread.currentThread().getId();
        long before = threads.getThreadAllocatedBytes(id);
        for (int i = 0; i < 2000; i++) {
            d.render(left, right, 256);
        }
        assertThat(threads.getThreadAllocatedBytes(id) - before).isLessThan(2000); // the counter's own calls
    }

    @Test
    void theStandInPlaysInRealTimeAndKeepsWhatWasPlayed() throws Exception {
        OutputMixer d = loaded(1);
        d.play();
        try (StandInOutput out = new StandInOutput(d, FS)) {
            long start = System.nanoTime();
            while (out.played() < FS / 2 && System.nanoTime() - start < 5_000_000_000L) {
                Thread.onSpinWait();
            }
            double seconds = (System.nanoTime() - start) / 1e9;
            assertThat(seconds).isBetween(0.4, 3.0); // half a second of sound, on a busy machine
            Clip kept = out.kept(FS / 4, FS / 2);
            assertThat(kept.length()).isEqualTo(FS / 4);
            assertThat(Tones.amplitudeAt(kept.channel(0), FS, 400, 0, 9600)).isCloseTo(0.3, within(0.01));
            assertThat(out.standIn()).isTrue();
            assertThat(out.name()).contains("stand-in");
        }
    }

    @Test
    void twoSidesStayTwoSides() {
        OutputMixer d = new OutputMixer(FS);
        float[] l = Clip.mono(Tones.sine(FS, 400, 0.3, 1), FS).channel(0);
        float[] r = Clip.mono(Tones.sine(FS, 700, 0.2, 1), FS).channel(0);
        d.load(new Clip(new float[][] {l, r}, FS), null, 0);
        d.volumeDb(0);
        play(d, 0.35);
        d.play();
        float[] left = new float[FS / 2];
        float[] right = new float[FS / 2];
        d.render(left, right, FS / 2);
        assertThat(Tones.amplitudeAt(left, FS, 400, 4800, 9600)).isCloseTo(0.3, within(0.003));
        assertThat(Tones.amplitudeAt(left, FS, 700, 4800, 9600)).isLessThan(1e-3);
        assertThat(Tones.amplitudeAt(right, FS, 700, 4800, 9600)).isCloseTo(0.2, within(0.003));
    }

    @Test
    void theLoadIsTheShareOfTheBlock() {
        OutputMixer d = loaded(1);
        d.takeLoad();
        float[] left = new float[FS];
        long began = System.nanoTime();
        d.render(left, new float[FS], FS);
        assertThat(d.takeLoad()).isBetween(1e-6, 1.1e-9 * (System.nanoTime() - began));
        assertThat(d.takeLoad()).isZero();
    }

    @Test
    void theSoundComesUpSoftly() {
        OutputMixer d = loaded(1);
        d.loop(true);
        d.play();
        double steady = Tones.rmsDb(play(d, 0.3), 9600, 14_000);
        d.softStart();
        float[] x = play(d, 0.5);
        assertThat(Tones.rmsDb(x, 0, 1000)).isLessThan(steady - 30);
        for (int at = 0; at + 2400 < 14_000; at += 1200) {
            assertThat(Tones.rmsDb(x, at + 1200, at + 2400)).isGreaterThan(Tones.rmsDb(x, at, at + 1200) - 0.5);
        }
        assertThat(Tones.rmsDb(x, 16_000, 22_000)).isCloseTo(steady, within(0.3));
    }
}

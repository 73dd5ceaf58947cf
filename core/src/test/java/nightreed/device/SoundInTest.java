package nightreed.device;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.concurrent.locks.LockSupport;
import java.util.function.BooleanSupplier;
import nightreed.Tones;
import nightreed.sound.Clip;
import org.junit.jupiter.api.Test;

class SoundInTest {
    private static void await(BooleanSupplier done) {
        long end = System.nanoTime() + 10_000_000_000L;
        while (!done.getAsBoolean()) {
            assertThat(System.nanoTime()).as("within ten seconds").isLessThan(end);
            LockSupport.parkNanos(5_000_000);
        }
    }

    @Test
    void theStandInIsHeardAtItsLevelAndRecordedWithAMomentFromBefore() {
        Clip tone = Clip.mono(Tones.sine(48_000, 500, 0.4, 1), 48_000);
        try (SoundIn in = new SoundIn(() -> tone)) {
            assertThat(in.input().standIn()).isTrue(); // no machine of ours has a microphone
            await(() -> in.takePeak() > 0.39);
            LockSupport.parkNanos(400_000_000); // more than is kept from before
            in.record();
            assertThat(in.recording()).isTrue();
            await(() -> in.seconds() > 0.8);
            Clip heard = in.stop();
            assertThat(heard.seconds()).isBetween(0.8, 2.0);
            assertThat(Tones.amplitudeAt(heard.channel(0), 48_000, 500, 0, 9600))
                    .isCloseTo(0.4, within(0.002)); // without a seam
            assertThat(in.clipped()).isZero();
            assertThat(in.loudest()).isCloseTo(0.4, within(0.01));
        }
    }

    @Test
    void clippingIsCounted() {
        float[] hot = Tones.sine(48_000, 500, 3, 1);
        for (int i = 0; i < hot.length; i++) {
            hot[i] = Math.max(-1, Math.min(1, hot[i]));
        }
        try (SoundIn in = new SoundIn(() -> Clip.mono(hot, 48_000))) {
            in.record();
            await(() -> in.recording() && in.seconds() > 0.5);
            in.stop();
            assertThat(in.clipped()).isGreaterThan(1000);
        }
    }
}

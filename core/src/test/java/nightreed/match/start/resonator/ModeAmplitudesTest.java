package nightreed.match.start.resonator;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nightreed.recipe.Mode;
import org.junit.jupiter.api.Test;

/** Levels and phases of modes that are solved for together. */
class ModeAmplitudesTest {
    private static final double FS = 48_000;

    private static double[] sound(List<Mode> modes, double f0) {
        double[] x = new double[24_000];
        for (Mode m : modes) {
            for (int i = 0; i < x.length; i++) {
                double t = i / FS;
                x[i] += Math.pow(10, m.levelDb() / 20)
                        * Math.pow(10, -3 * t / m.t60Seconds())
                        * Math.cos(2 * Math.PI * m.ratio() * f0 * t + m.phaseRad());
            }
        }
        return x;
    }

    @Test
    void twinsThatNearlyCancelAreToldApart() {
        List<Mode> truth = List.of(
                new Mode(1, 0, 1.1, 0.3), new Mode(1.004, -1, 0.5, 0.3 + Math.PI), new Mode(2.7, -12, 0.4, -1.2));
        List<Mode> asked = truth.stream()
                .map(m -> new Mode(m.ratio(), -60, m.t60Seconds(), 0))
                .toList();
        List<Mode> solved = ModeAmplitudes.solved(asked, 220, sound(truth, 220), FS, 1);
        assertThat(solved).hasSize(3);
        for (int i = 0; i < 3; i++) {
            assertThat(solved.get(i).levelDb()).isCloseTo(truth.get(i).levelDb(), within(0.1));
            assertThat(Math.IEEEremainder(
                            solved.get(i).phaseRad() - truth.get(i).phaseRad(), 2 * Math.PI))
                    .isCloseTo(0, within(0.02));
        }
    }

    @Test
    void aModeThatIsNotThereComesOutSilent() {
        List<Mode> truth = List.of(new Mode(1, 0, 1.1, 0.3));
        List<Mode> asked = List.of(new Mode(1, 0, 1.1, 0), new Mode(3.3, 0, 0.8, 0));
        List<Mode> solved = ModeAmplitudes.solved(asked, 220, sound(truth, 220), FS, 1);
        assertThat(solved.get(0).levelDb()).isCloseTo(0, within(0.05));
        assertThat(solved.stream().filter(m -> m.ratio() > 3)).allMatch(m -> m.levelDb() < -60);
    }
}

package nightreed.match.compare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class BlindTestTest {
    private static BlindTest answered(int right) {
        BlindTest t = BlindTest.of(12, 7);
        while (!t.over()) {
            boolean x = t.xIsImitation();
            t = t.answered(t.trial() < right ? x : !x);
        }
        return t;
    }

    @Test
    void theChanceOfGuessingIsThatOfTheCoin() {
        assertThat(answered(9).chance()).isCloseTo(299.0 / 4096, within(1e-12));
        assertThat(answered(12).chance()).isCloseTo(1.0 / 4096, within(1e-12));
        assertThat(answered(0).chance()).isCloseTo(1, within(1e-12));
        assertThat(answered(9).verdict()).contains("9 of 12", "7.3 %", "no difference was shown");
        assertThat(answered(10).verdict()).contains("the difference is heard");
    }

    @Test
    void bothSoundsComeUpAndTooFewTrialsAreRefused() {
        BlindTest t = BlindTest.of(40, 1);
        assertThat(t.hidden()).contains(true, false);
        assertThat(BlindTest.of(40, 2).hidden()).isNotEqualTo(t.hidden());
        assertThatThrownBy(() -> BlindTest.of(9, 1)).isInstanceOf(IllegalArgumentException.class);
    }
}

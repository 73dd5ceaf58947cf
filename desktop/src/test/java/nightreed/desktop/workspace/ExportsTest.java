package nightreed.desktop.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ExportsTest {
    @ParameterizedTest
    @CsvSource({
        "Harbour bar, harbour-bar",
        "鐘 二, 鐘-二",
        "Höhe/Tiefe: 1\\2, höhe-tiefe-1-2",
        "'../../etc', etc",
        "'...', imitation",
        "'', imitation"
    })
    void filesBearTheNameOfTheImitationInAnyScript(String name, String file) {
        assertThat(Exports.inFileName(name)).isEqualTo(file);
    }
}

package nightreed.desktop.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javafx.scene.control.Label;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** The guide as files and as pages of the window. */
class GuideTest {
    private static final Path FOLDER = Path.of("..", "docs", "guide");

    @BeforeAll
    static void toolkit() throws Exception {
        FxToolkit.registerPrimaryStage();
    }

    static Stream<String> chapters() throws Exception {
        try (Stream<Path> files = Files.list(FOLDER)) {
            return List.copyOf(files.map(f -> f.getFileName().toString())
                            .filter(n -> n.endsWith(".md"))
                            .map(n -> n.substring(0, n.length() - 3))
                            .sorted()
                            .toList())
                    .stream();
        }
    }

    @ParameterizedTest
    @MethodSource("chapters")
    void everyChapterOpensAndItsLinksLeadSomewhere(String chapter) throws Exception {
        GuidePage page = WaitForAsyncUtils.waitForAsyncFx(5000, () -> {
            GuidePage p = new GuidePage(() -> {});
            p.open(chapter);
            return p;
        });
        assertThat(page.chapter()).isEqualTo(chapter); // the side list knows it
        String text = Files.readString(FOLDER.resolve(chapter + ".md"));
        try (var in = GuidePage.class.getResourceAsStream("/nightreed/desktop/guide/" + chapter + ".md")) {
            assertThat(new String(in.readAllBytes(), StandardCharsets.UTF_8)).isEqualTo(text);
        }
        Matcher links = Pattern.compile("]\\(([^)#]*)(#[^)]*)?\\)").matcher(text);
        while (links.find()) {
            Path target = FOLDER.resolve(links.group(1));
            assertThat(target).exists();
            if (links.group(2) != null) {
                Prose prose =
                        WaitForAsyncUtils.waitForAsyncFx(5000, () -> new Prose(Files.readString(target), l -> {}));
                assertThat(prose.anchor(links.group(2).substring(1))).isInstanceOf(Label.class);
            }
        }
    }
}

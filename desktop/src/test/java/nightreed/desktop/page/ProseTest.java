package nightreed.desktop.page;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import nightreed.desktop.OnStage;
import org.junit.jupiter.api.Test;

/** The guide's Markdown as nodes. */
class ProseTest {
    private final List<String> followed = new ArrayList<>();

    private Prose prose(String markdown) throws Exception {
        Prose[] p = new Prose[1];
        OnStage.show(() -> {
            p[0] = new Prose(markdown, followed::add);
            return p[0].node();
        });
        return p[0];
    }

    private static <T extends Node> List<T> all(Node n, Class<T> type) {
        List<T> out = new ArrayList<>();
        if (type.isInstance(n)) {
            out.add(type.cast(n));
        }
        if (n instanceof Parent p) {
            p.getChildrenUnmodifiable().forEach(c -> out.addAll(all(c, type)));
        }
        return out;
    }

    private static String text(TextFlow f) {
        StringBuilder s = new StringBuilder();
        f.getChildren().forEach(c -> s.append(c instanceof Text t ? t.getText() : ((Hyperlink) c).getText()));
        return s.toString();
    }

    @Test
    void linesOfAParagraphRunTogetherAndStressIsKept() throws Exception {
        Prose p = prose("One *two*\n**three** `four`.\n\nFive.");
        List<TextFlow> flows = all(p.node(), TextFlow.class);
        assertThat(flows).hasSize(2);
        assertThat(text(flows.get(0))).isEqualTo("One two three four.");
        assertThat(flows.get(0).getChildren()).anyMatch(t -> t.getStyleClass().contains("code"));
        assertThat(flows.get(0).getChildren().stream()
                        .filter(t -> t.getStyleClass().contains("strong"))
                        .count())
                .isEqualTo(2);
    }

    @Test
    void linksAreFollowedAndHeadingsCanBeFound() throws Exception {
        Prose p = prose("# Your ears\n\nSee [the rail](listening.md#your-ears) and [keys](keys.md).");
        assertThat(((Label) p.anchor("your-ears")).getText()).isEqualTo("Your ears");
        assertThat(p.anchor("elsewhere")).isNull();
        for (Hyperlink h : all(p.node(), Hyperlink.class)) {
            OnStage.fx(() -> {
                h.fire();
                return null;
            });
        }
        assertThat(followed).containsExactly("listening.md#your-ears", "keys.md");
    }

    @Test
    void listsAreNumberedOrMarkedAndTablesAreGrids() throws Exception {
        Prose p = prose("1. first\n2. second\n\n- a\n- b\n\n| keys | what |\n|---|---|\n| Space | play |\n");
        List<String> marks = all(p.node(), Label.class).stream()
                .map(Label::getText)
                .filter(t -> t.matches("\\d\\.|–"))
                .toList();
        assertThat(marks).containsExactly("1.", "2.", "–", "–");
        GridPane grid = all(p.node(), GridPane.class).get(0);
        assertThat(grid.getChildren()).hasSize(4);
        assertThat(text((TextFlow) grid.getChildren().get(3))).isEqualTo("play");
    }

    @Test
    void codeKeepsItsLines() throws Exception {
        Prose p = prose("```\n./night-reed demo\n./check\n```\n");
        assertThat(all(p.node(), Label.class)).anyMatch(l -> l.getText().equals("./night-reed demo\n./check"));
    }

    @Test
    void aPictureIsShownWithItsWordsForThoseWhoCannotSeeIt() throws Exception {
        VBox out = prose("![The reeds](pictures/measure-reeds.png)\n\n![Gone](pictures/none.png)")
                .node();
        ImageView shown = (ImageView) out.getChildren().get(0);
        assertThat(shown.getImage().isError()).isFalse();
        assertThat(shown.getFitWidth()).isBetween(400.0, 700.0);
        assertThat(shown.getAccessibleText()).isEqualTo("The reeds");
        assertThat(((Label) out.getChildren().get(1)).getText()).isEqualTo("Gone");
    }

    @Test
    void theLastCellOfATableBreaksItsLinesWhereThePageEnds() throws Exception {
        Prose p = prose("| method | taken |\n| --- | --- |\n| FM | " + "as its sidebands lie ".repeat(30) + "|\n");
        GridPane table = all(p.node(), GridPane.class).get(0);
        assertThat(OnStage.fx(() -> table.minWidth(-1))).isLessThan(300);
        TextFlow cell = all(table, TextFlow.class).get(3);
        assertThat(OnStage.fx(() -> cell.prefHeight(400))).isGreaterThan(OnStage.fx(() -> cell.prefHeight(-1)));
    }
}

package nightreed.desktop.page;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Consumer;
import javafx.scene.Node;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.image.ImageView;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import org.commonmark.ext.gfm.tables.TableBlock;
import org.commonmark.ext.gfm.tables.TableCell;
import org.commonmark.ext.gfm.tables.TableRow;
import org.commonmark.ext.gfm.tables.TablesExtension;
import org.commonmark.node.BulletList;
import org.commonmark.node.Code;
import org.commonmark.node.Emphasis;
import org.commonmark.node.FencedCodeBlock;
import org.commonmark.node.Heading;
import org.commonmark.node.Image;
import org.commonmark.node.Link;
import org.commonmark.node.ListBlock;
import org.commonmark.node.Paragraph;
import org.commonmark.node.SoftLineBreak;
import org.commonmark.node.StrongEmphasis;
import org.commonmark.parser.Parser;

/** Markdown as nodes of the window: what the guide uses of it, and no more. */
final class Prose {
    private static final double WIDEST_PICTURE = 660;

    private final Consumer<String> follow;
    private final VBox out = new VBox(9);
    private final Map<String, Node> anchors = new LinkedHashMap<>();

    /** @param follow called with the target of a link that was chosen */
    Prose(String markdown, Consumer<String> follow) {
        this.follow = follow;
        out.getStyleClass().add("prose");
        org.commonmark.node.Node document = Parser.builder()
                .extensions(List.of(TablesExtension.create()))
                .build()
                .parse(markdown);
        for (org.commonmark.node.Node n : children(document)) {
            Node block = block(n);
            if (block != null) {
                out.getChildren().add(block);
            }
        }
    }

    VBox node() {
        return out;
    }

    /** The heading that a link's {@code #part} names, null if there is none. */
    Node anchor(String name) {
        return anchors.get(name);
    }

    private static List<org.commonmark.node.Node> children(org.commonmark.node.Node parent) {
        List<org.commonmark.node.Node> all = new ArrayList<>();
        for (var n = parent.getFirstChild(); n != null; n = n.getNext()) {
            all.add(n);
        }
        return all;
    }

    private Node block(org.commonmark.node.Node n) {
        if (n instanceof Heading h) {
            String text = plain(h);
            Label l = new Label(text);
            l.getStyleClass().add(h.getLevel() == 1 ? "page-title" : "page-heading");
            anchors.put(text.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-"), l);
            return l;
        }
        if (n instanceof Paragraph) {
            return n.getFirstChild() instanceof Image i && i.getNext() == null ? picture(i) : flow(n);
        }
        if (n instanceof ListBlock list) {
            VBox box = new VBox(4);
            int number = 1;
            for (org.commonmark.node.Node item : children(list)) {
                Label mark = new Label(list instanceof BulletList ? "–" : number++ + ".");
                mark.getStyleClass().add("body");
                mark.setMinWidth(20);
                VBox inside = new VBox(4);
                for (org.commonmark.node.Node part : children(item)) {
                    inside.getChildren().add(block(part));
                }
                HBox row = new HBox(4, mark, inside);
                HBox.setHgrow(inside, javafx.scene.layout.Priority.ALWAYS);
                box.getChildren().add(row);
            }
            return box;
        }
        if (n instanceof FencedCodeBlock code) {
            Label l = new Label(code.getLiteral().stripTrailing());
            l.getStyleClass().add("code-block");
            l.setMaxWidth(Double.MAX_VALUE);
            return l;
        }
        return n instanceof TableBlock ? table(n) : null;
    }

    /** A picture that stands by itself; what it shows is said in the words that stand for it. */
    private static Node picture(Image image) {
        String words = plain(image);
        InputStream in = Prose.class.getResourceAsStream("/nightreed/desktop/guide/" + image.getDestination());
        if (in == null) {
            return new Label(words);
        }
        ImageView view = new ImageView(new javafx.scene.image.Image(in));
        view.setPreserveRatio(true);
        view.setFitWidth(Math.min(WIDEST_PICTURE, view.getImage().getWidth()));
        view.setAccessibleText(words);
        return view;
    }

    private GridPane table(org.commonmark.node.Node table) {
        GridPane grid = new GridPane();
        grid.setHgap(24);
        grid.setVgap(6);
        int row = 0;
        for (org.commonmark.node.Node part : children(table)) {
            for (org.commonmark.node.Node line : children(part)) {
                int column = 0;
                List<org.commonmark.node.Node> cells = line instanceof TableRow ? children(line) : List.of();
                for (org.commonmark.node.Node cell : cells) {
                    TextFlow text = flow(cell);
                    if (((TableCell) cell).isHeader()) {
                        text.getChildren().forEach(t -> t.getStyleClass().add("strong"));
                    }
                    boolean last = column == cells.size() - 1;
                    text.setMinWidth(last ? 0 : Region.USE_PREF_SIZE); // the last one breaks its lines
                    GridPane.setHgrow(text, last ? Priority.ALWAYS : Priority.NEVER);
                    grid.add(text, column++, row);
                }
                row++;
            }
        }
        return grid;
    }

    private TextFlow flow(org.commonmark.node.Node n) {
        TextFlow flow = new TextFlow();
        flow.setLineSpacing(2);
        inline(n, flow, "plain");
        return flow;
    }

    private void inline(org.commonmark.node.Node parent, TextFlow into, String style) {
        for (org.commonmark.node.Node n : children(parent)) {
            if (n instanceof org.commonmark.node.Text t) {
                into.getChildren().add(text(t.getLiteral(), style));
            } else if (n instanceof SoftLineBreak) {
                into.getChildren().add(text(" ", style));
            } else if (n instanceof Code c) {
                into.getChildren().add(text(c.getLiteral(), "code"));
            } else if (n instanceof StrongEmphasis || n instanceof Emphasis) {
                inline(n, into, "strong");
            } else if (n instanceof Link link) {
                Hyperlink h = new Hyperlink(plain(link));
                h.setOnAction(e -> follow.accept(link.getDestination()));
                into.getChildren().add(h);
            }
        }
    }

    private static Text text(String s, String style) {
        Text t = new Text(s);
        t.getStyleClass().addAll("words", style);
        return t;
    }

    private static String plain(org.commonmark.node.Node n) {
        StringBuilder s = new StringBuilder();
        for (org.commonmark.node.Node c : children(n)) {
            s.append(
                    c instanceof org.commonmark.node.Text t
                            ? t.getLiteral()
                            : c instanceof Code code ? code.getLiteral() : plain(c));
        }
        return s.toString();
    }
}

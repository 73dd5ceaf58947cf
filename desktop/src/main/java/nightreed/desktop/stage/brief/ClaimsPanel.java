package nightreed.desktop.stage.brief;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nightreed.claim.Claim;
import nightreed.claim.Claim.Moving;
import nightreed.claim.Verdict;
import nightreed.desktop.stage.NodeFactory;
import nightreed.desktop.workspace.Workspace;
import nightreed.desktop.workspace.WorkspaceState;
import nightreed.measure.held.AttackBy;
import nightreed.measure.held.Movement;
import nightreed.measure.traits.SourceWave;

/** What was heard or read of the sound, each with what the recording says of it. */
final class ClaimsPanel extends VBox {
    private final Workspace bench;
    private final ComboBox<String> kind = new ComboBox<>();
    private final TextField value = new TextField();
    private final Label wrong = NodeFactory.quiet("");
    private final GridPane rows = new GridPane();
    private final Map<String, Kind> kinds = new LinkedHashMap<>();
    private List<Claim> shown = List.of();
    private Object shownOf;

    /** @param hint what is to be typed; empty for nothing */
    private record Kind(String hint, Function<String, Claim> made) {}

    ClaimsPanel(Workspace bench) {
        super(8);
        this.bench = bench;
        getStyleClass().add("panel");
        kinds();
        kind.getItems().addAll(kinds.keySet());
        kind.setId("claim-kind");
        kind.setAccessibleText("What is claimed");
        kind.setPrefWidth(190);
        value.setId("claim-value");
        value.setPrefWidth(200);
        value.setAccessibleText("Value that is claimed");
        value.setOnAction(e -> add());
        kind.valueProperty().addListener((o, was, is) -> {
            String hint = kinds.get(is).hint();
            value.setPromptText(hint);
            value.setDisable(hint.isEmpty());
            value.clear();
        });
        kind.getSelectionModel().selectFirst();
        Button add = new Button("Test it");
        add.setId("claim-add");
        add.setOnAction(e -> add());
        wrong.setWrapText(true);
        wrong.managedProperty().bind(wrong.textProperty().isNotEmpty());
        HBox form = new HBox(8, kind, value, add);
        form.setAlignment(Pos.CENTER_LEFT);
        rows.setHgap(14);
        rows.setVgap(6);
        ScrollPane all = new ScrollPane(rows);
        all.setFitToWidth(true);
        all.getStyleClass().add("plain-scroll");
        VBox.setVgrow(all, Priority.ALWAYS);
        getChildren().addAll(form, wrong, all);
    }

    private void kinds() {
        for (Moving of : Moving.values()) {
            String what = of == Moving.CUTOFF ? "filter" : of.name().toLowerCase(Locale.ROOT);
            kinds.put("the " + what + " moves", new Kind("5.2, or 5.2 sine, or nothing", text -> moves(of, text)));
            kinds.put("the " + what + " is still", new Kind("", text -> new Claim.Still(of)));
        }
        kinds.put(
                "the wave is",
                new Kind(
                        "saw, square, pulse or triangle",
                        text -> new Claim.Source(one(SourceWave.Wave.values(), text))));
        kinds.put("the filter falls by", new Kind("dB per octave: 12", text -> new Claim.Slope(number(text))));
        kinds.put(
                "the start is made by",
                new Kind("amplitude, filter or both", text -> new Claim.Attack(one(AttackBy.Verdict.values(), text))));
        kinds.put("it is out of tune by", new Kind("cents: -18", text -> new Claim.Tuning(number(text))));
        kinds.put("there is an echo after", new Kind("ms: 270", text -> new Claim.Echoes(number(text) / 1000)));
        kinds.put("voices, detuned", new Kind("how many: 3", text -> new Claim.Voices((int) Math.rint(number(text)))));
    }

    private static Claim moves(Moving of, String text) {
        Double rate = null;
        Movement.Shape shape = null;
        for (String word : text.trim().split("\\s+")) {
            if (word.matches("[0-9.,]+")) {
                rate = number(word);
            } else if (word.startsWith("step")) {
                shape = Movement.Shape.STEPPED;
            } else if (!word.isEmpty() && !word.equalsIgnoreCase("hz")) {
                shape = one(Movement.Shape.values(), word);
            }
        }
        return new Claim.Moves(of, shape, rate);
    }

    private static double number(String text) {
        try {
            return Double.parseDouble(text.trim().replace(',', '.'));
        } catch (NumberFormatException e) {
            throw new IllegalArgumentException("'" + text.trim() + "' is no number");
        }
    }

    private static <E extends Enum<E>> E one(E[] of, String text) {
        for (E e : of) {
            if (e.name().equalsIgnoreCase(text.trim())) {
                return e;
            }
        }
        throw new IllegalArgumentException("'" + text.trim() + "' is none of those that can be told apart");
    }

    private void add() {
        Kind k = kinds.get(kind.getValue());
        try {
            Claim c = k.made().apply(value.getText());
            wrong.setText("");
            List<Claim> next = new ArrayList<>(bench.state().snapshot().claims());
            next.remove(c);
            next.add(c);
            bench.shaping().claims("claim: " + c.words(), next);
        } catch (IllegalArgumentException e) {
            wrong.setText(e.getMessage() + "; write " + (k.hint().isEmpty() ? "nothing" : k.hint()) + ".");
        }
    }

    /** The claims on the bench; they are tested anew only where they or the recording have changed. */
    void show(WorkspaceState s) {
        List<Claim> claims = s.snapshot().claims();
        Object of = s.recording() == null ? null : s.recording().measurement();
        if (claims.equals(shown) && of == shownOf) {
            return;
        }
        shown = claims;
        shownOf = of;
        rows.getChildren().clear();
        if (claims.isEmpty()) {
            rows.add(
                    NodeFactory.quiet("Put to the test what you heard or read of the sound, each against its rivals."),
                    0,
                    0);
            return;
        }
        if (s.recording() == null || s.isTypical()) {
            for (int i = 0; i < claims.size(); i++) {
                row(i, claims.get(i), null);
            }
            rows.add(NodeFactory.quiet("A recording tells; there is none yet."), 0, claims.size());
            return;
        }
        for (int i = 0; i < claims.size(); i++) {
            row(i, claims.get(i), null);
        }
        bench.intake().test(claims, verdicts -> {
            if (shown == claims && shownOf == of) {
                rows.getChildren().clear();
                for (int i = 0; i < verdicts.size(); i++) {
                    row(i, claims.get(i), verdicts.get(i));
                }
            }
        });
    }

    /** @param v null while it is not known */
    private void row(int i, Claim claim, Verdict v) {
        Label words = NodeFactory.body(claim.words());
        words.setMinWidth(Region.USE_PREF_SIZE);
        rows.add(words, 0, i);
        if (v != null) {
            String odds = v.odds() > 0 ? String.format(Locale.ROOT, " %.0f %%", Math.floor(100 * v.odds())) : "";
            Label answer = NodeFactory.styled(
                    v.answer().title() + odds,
                    v.answer() == Verdict.Answer.SUPPORTED
                            ? "within"
                            : v.answer() == Verdict.Answer.REFUTED ? "audible" : "quiet");
            answer.setId("claim-verdict-" + (i + 1));
            answer.setMinWidth(Region.USE_PREF_SIZE);
            rows.add(answer, 1, i);
            Label why = NodeFactory.quiet(v.why());
            why.setWrapText(true);
            why.setMinHeight(Region.USE_PREF_SIZE);
            GridPane.setHgrow(why, Priority.ALWAYS);
            rows.add(why, 2, i);
        }
        Button out = NodeFactory.link("claim-out-" + (i + 1), "take out", () -> {
            List<Claim> next = new ArrayList<>(shown);
            next.remove(claim);
            bench.shaping().claims("claim taken out", next);
        });
        out.setMinWidth(Region.USE_PREF_SIZE);
        rows.add(out, 3, i);
    }
}

package nightreed.desktop.shell;

import java.util.List;
import java.util.Locale;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.stage.Window;
import nightreed.desktop.stage.WorkStage;
import nightreed.desktop.workspace.Workspace;

/** Keys of the whole window. Letters play unless text is being typed. */
final class WindowKeys {
    private final Workspace bench;
    private final Shell shell;

    WindowKeys(Workspace bench, Shell shell) {
        this.bench = bench;
        this.shell = shell;
    }

    void enter(Scene scene) {
        scene.addEventFilter(KeyEvent.KEY_PRESSED, this::pressed);
        scene.addEventFilter(KeyEvent.KEY_RELEASED, e -> {
            if (shell.isComplete() && !isTyping(scene)) {
                shell.rail().keys().letterUp(e.getCode());
            }
        });
        // a key that is let go elsewhere would sound for ever
        scene.windowProperty().flatMap(Window::focusedProperty).orElse(false).addListener((o, was, is) -> {
            if (!is && shell.isComplete()) {
                shell.rail().keys().releaseAll();
            }
        });
    }

    private void pressed(KeyEvent e) {
        shell.complete();
        boolean used = e.isControlDown() && controlled(e) || plain(e);
        if (used) {
            e.consume();
        }
    }

    private boolean controlled(KeyEvent e) {
        KeyCode code = e.getCode();
        if (code.isDigitKey() && digit(code) >= 1 && digit(code) <= 6) {
            shell.go(List.of(WorkStage.values()).get(digit(code) - 1));
            return true;
        }
        switch (code) {
            case Z -> {
                if (isTyping(shell.getScene())) {
                    return false;
                }
                step(e.isShiftDown());
            }
            case ENTER -> applyFirstMove();
            case PERIOD -> {
                shell.rail().keys().releaseAll();
                bench.desk().panic();
            }
            case T -> shell.keep().keepTake();
            case N -> shell.projects().chooseNew();
            case O -> shell.projects().chooseOpen();
            case S -> {
                if (!e.isShiftDown()) {
                    return false;
                }
                shell.projects().chooseCopy();
            }
            case COMMA -> shell.openPreferences();
            default -> {
                return false;
            }
        }
        return true;
    }

    private void step(boolean forth) {
        if (forth) {
            bench.redo();
        } else {
            bench.undo();
        }
    }

    private void applyFirstMove() {
        if (bench.state().moves() != null && !bench.state().moves().isEmpty()) {
            bench.shaping().apply(bench.state().moves().get(0));
        }
    }

    private boolean plain(KeyEvent e) {
        boolean typing = isTyping(shell.getScene());
        KeyCode code = e.getCode();
        if (code == KeyCode.F1) {
            if (e.isShiftDown()) {
                shell.openGuide("index");
            } else {
                shell.help();
            }
            return true;
        }
        if (code == KeyCode.ESCAPE && shell.escape()) {
            return true;
        }
        if (typing) {
            return false;
        }
        if (code == KeyCode.SPACE && !isOnButton()) {
            if (e.isShiftDown()) {
                shell.rail().swap();
            } else {
                shell.rail().playOrStop();
            }
            return true;
        }
        if (code == KeyCode.PAGE_UP || code == KeyCode.PAGE_DOWN) {
            shell.rail().keys().octave(code == KeyCode.PAGE_UP ? 1 : -1);
            return true;
        }
        return !e.isControlDown()
                && !e.isAltDown()
                && !e.isMetaDown()
                && (shell.rail().keys().letterDown(code) || shell.stageTakes(e));
    }

    private static boolean isTyping(Scene scene) {
        return scene.getFocusOwner() instanceof TextInputControl;
    }

    /** Space presses a button that was reached with Tab; a button that was clicked gives Space back to the player. */
    private boolean isOnButton() {
        Node owner = shell.getScene().getFocusOwner();
        return owner instanceof ButtonBase && owner.isFocusVisible();
    }

    private static int digit(KeyCode code) {
        String name = code.getName().toLowerCase(Locale.ROOT);
        char last = name.charAt(name.length() - 1);
        return Character.isDigit(last) ? last - '0' : -1;
    }
}

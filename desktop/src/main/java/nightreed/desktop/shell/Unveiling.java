package nightreed.desktop.shell;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import javafx.animation.AnimationTimer;
import javafx.scene.Node;
import javafx.scene.Parent;

/**
 * Shows what has to be styled anew a piece in each frame. The toolkit styles all that is visible within one frame, and for a
 * whole window that takes far longer than a frame may; what is invisible is left alone until it is shown.
 */
final class Unveiling extends AnimationTimer {
    private static final int NODES_A_PIECE = 24;
    private static final int NODES_A_FRAME = 40;

    private final Deque<Node> hidden = new ArrayDeque<>();
    private final Node focus;
    private boolean skeleton = true; // the first frame is for what holds the pieces

    private Unveiling(Node focus) {
        this.focus = focus;
    }

    /**
     * Hides the pieces under a node, makes a change that has them styled anew, and shows them again piece by piece.
     *
     * @param own nodes that others show and hide: only what is in them is hidden
     */
    static void after(Parent root, Set<Node> own, Runnable change) {
        Node focus = root.getScene() == null ? null : root.getScene().getFocusOwner();
        Unveiling u = new Unveiling(focus);
        List<Node> pieces = new ArrayList<>();
        pieces(root, own, pieces);
        for (Node n : pieces) {
            n.setVisible(false);
        }
        u.hidden.addAll(pieces);
        change.run();
        u.start();
    }

    /** The largest visible parts that are still small. */
    private static void pieces(Parent p, Set<Node> own, List<Node> into) {
        for (Node n : p.getChildrenUnmodifiable()) {
            if (!n.isVisible() || n.visibleProperty().isBound()) {
                continue;
            }
            if (n instanceof Parent q && (own.contains(n) || size(q) > NODES_A_PIECE)) {
                pieces(q, own, into);
            } else {
                into.add(n);
            }
        }
    }

    private static int size(Node n) {
        int all = 1;
        if (n instanceof Parent p) {
            for (Node c : p.getChildrenUnmodifiable()) {
                all += size(c);
            }
        }
        return all;
    }

    @Override
    public void handle(long now) {
        if (skeleton) {
            skeleton = false;
            return;
        }
        int shown = 0;
        while (!hidden.isEmpty() && shown < NODES_A_FRAME) {
            Node next = hidden.poll();
            shown += size(next);
            next.setVisible(true);
        }
        if (hidden.isEmpty()) {
            stop();
            // what is hidden loses the keyboard
            if (focus != null && focus.getScene() != null && focus.isVisible()) {
                focus.requestFocus();
            }
        }
    }
}

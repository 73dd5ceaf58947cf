package nightreed.desktop.shell;

import javafx.scene.Node;
import javafx.scene.control.Labeled;
import javafx.scene.control.Tooltip;

/** What F1 says about the thing that has the keyboard. */
final class Help {
    private static final String KEY = "nightreed.help";

    private Help() {}

    /**
     * An answer.
     *
     * @param words  what the thing is
     * @param target chapter of the guide that says more
     */
    record Answer(String words, String target) {}

    /** Marks a part of the window with the chapter of the guide that is about it. */
    static void chapter(Node part, String target) {
        part.getProperties().put(KEY, target);
    }

    static Answer about(Node node) {
        if (node == null) {
            return new Answer("Nothing has the keyboard now: press Tab to walk through the window.", "index");
        }
        String target = "index";
        for (Node n = node; n != null; n = n.getParent()) {
            if (n.getProperties().get(KEY) instanceof String t) {
                target = t;
                break;
            }
        }
        StringBuilder words = new StringBuilder();
        for (Node n = node; n != null && words.isEmpty(); n = n.getParent()) {
            words.append(own(n));
        }
        return new Answer(words.toString(), target);
    }

    private static String own(Node n) {
        String name =
                n.getAccessibleText() != null ? n.getAccessibleText() : n instanceof Labeled l ? l.getText() : null;
        if (name == null || name.isBlank()) {
            return "";
        }
        String more = n.getAccessibleHelp();
        if (more == null && n instanceof javafx.scene.control.Control c) {
            Tooltip tip = c.getTooltip();
            more = tip == null ? null : tip.getText();
        }
        return more == null || more.equals(name)
                ? name + "."
                : name + ": " + more.replace('\n', ' ').strip();
    }
}

package nightreed.desktop.stage;

import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;

/** A menu whose items are looked up when it opens, so that nothing has to be kept ready that nobody may ask for. */
public final class LateMenu extends MenuButton {
    private final Runnable filling;

    /** @param filling puts the items of now into the menu, which is empty then */
    public LateMenu(String text, String id, Runnable filling) {
        super(text);
        this.filling = filling;
        setId(id);
        getStyleClass().add("link-menu");
        setMinWidth(USE_PREF_SIZE);
        getItems().add(new MenuItem("…")); // an empty menu does not open
        setOnShowing(e -> fill());
    }

    /** Looks its items up. */
    public void fill() {
        getItems().clear();
        filling.run();
        if (getItems().isEmpty()) {
            MenuItem nothing = new MenuItem("nothing");
            nothing.setDisable(true);
            getItems().add(nothing);
        }
    }
}

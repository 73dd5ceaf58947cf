package nightreed.desktop;

import java.util.concurrent.Callable;
import javafx.scene.Parent;
import javafx.scene.Scene;
import javafx.scene.layout.StackPane;
import javafx.stage.Stage;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;

/** Parts of the window on a stage of their own. */
public final class OnStage {
    private OnStage() {}

    /** Makes a part on the FX thread and shows it alone, 900 by 340. */
    public static <T extends Parent> T show(Callable<T> make) throws Exception {
        FxToolkit.registerPrimaryStage();
        T part = WaitForAsyncUtils.waitForAsyncFx(10_000, () -> {
            T node = make.call();
            Stage stage = FxToolkit.registerStage(Stage::new);
            stage.setScene(new Scene(new StackPane(node), 900, 340));
            stage.show();
            return node;
        });
        WaitForAsyncUtils.waitForFxEvents();
        return part;
    }

    /** Does something on the FX thread and waits for what follows from it. */
    public static <T> T fx(Callable<T> work) {
        T result = WaitForAsyncUtils.waitForAsyncFx(10_000, work);
        WaitForAsyncUtils.waitForFxEvents();
        return result;
    }
}

package nightreed.desktop.settings;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.Executor;
import java.util.function.UnaryOperator;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import nightreed.files.OutputFile;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** Preferences in a file. A file that cannot be read gives the usual ones; one that cannot be written costs no more than that. */
public final class PreferenceStore {
    private static final Logger LOG = LoggerFactory.getLogger(PreferenceStore.class);
    private final ReadOnlyObjectWrapper<Preferences> current;
    private final Path file;
    private final Executor writer;

    /** @param writer where files are written; away from the FX thread */
    public PreferenceStore(Path file, Executor writer) {
        this.file = file;
        this.writer = writer;
        this.current = new ReadOnlyObjectWrapper<>(read(file));
    }

    /** What a file holds; the usual preferences if it is missing or damaged. */
    public static Preferences read(Path file) {
        if (!Files.isRegularFile(file)) {
            return Preferences.USUAL;
        }
        try {
            Preferences p = mapper().readValue(file.toFile(), Preferences.class);
            return p == null ? Preferences.USUAL : p;
        } catch (IOException | RuntimeException e) {
            LOG.warn("{} could not be read; the usual preferences are used", file, e);
            return Preferences.USUAL;
        }
    }

    private static ObjectMapper mapper() {
        return JsonMapper.builder().build();
    }

    public ReadOnlyObjectProperty<Preferences> currentProperty() {
        return current.getReadOnlyProperty();
    }

    public Preferences get() {
        return current.get();
    }

    /** Changes something and keeps it. FX thread. */
    public void change(UnaryOperator<Preferences> how) {
        Preferences next = how.apply(current.get());
        if (next.equals(current.get())) {
            return;
        }
        current.set(next);
        writer.execute(() -> {
            try {
                OutputFile.write(file, mapper().writerWithDefaultPrettyPrinter().writeValueAsBytes(next));
            } catch (IOException e) {
                LOG.warn("preferences were not kept", e);
            }
        });
    }
}

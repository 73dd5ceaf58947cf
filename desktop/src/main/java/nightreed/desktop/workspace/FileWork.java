package nightreed.desktop.workspace;

import java.io.IOException;

/** Work with a file that may fail. */
public interface FileWork<T> {
    T get() throws IOException;
}

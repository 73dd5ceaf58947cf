package nightreed.desktop.workspace;

import java.util.Map;

/** What people call the methods. */
public final class MethodNames {
    private static final Map<String, String> NAMES = Map.of(
            "resonators", "Resonators",
            "fm", "FM",
            "ring", "Ring",
            "formant", "Formant",
            "string", "String",
            "subtractive", "Subtractive");

    private MethodNames() {}

    /** @param method one of {@link nightreed.match.method.Starts#METHODS} */
    public static String of(String method) {
        return NAMES.get(method);
    }
}

package nightreed.recipe.part;

/** How a recipe follows the key. */
public record KeyTracking(
        @ParameterSpec(
                id = "decay",
                name = "key to decay",
                most = 3,
                meaning = "0 keeps the decay on all keys; 1 halves it an octave higher.")
        double decayPower,

        @ParameterSpec(id = "strike", name = "key to strike", meaning = "How far contact and noise follow the key.")
        double exciterShare) {
    public static final KeyTracking USUAL = new KeyTracking(0.5, 0.5);

    public KeyTracking {
        ParameterAccess.check(KeyTracking.class, decayPower, exciterShare);
    }
}

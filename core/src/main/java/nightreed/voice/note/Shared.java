package nightreed.voice.note;

import nightreed.recipe.Recipe;

/** What all notes of a player use together. Called before the notes, on the same thread, while any of them sounds. */
public interface Shared<R extends Recipe> {
    /** Before the next step of up to {@link Note#STEP} samples. */
    void step(R recipe);

    /** Makes the next {@code n} samples. */
    void render(int n);

    /** Nothing. */
    static <R extends Recipe> Shared<R> nothing() {
        return new Shared<>() {
            @Override
            public void step(R recipe) {
                // nothing to prepare
            }

            @Override
            public void render(int n) {
                // nothing to make
            }
        };
    }
}

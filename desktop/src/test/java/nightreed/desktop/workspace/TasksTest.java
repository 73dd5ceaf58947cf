package nightreed.desktop.workspace;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import org.junit.jupiter.api.Test;

/** Long work by itself: what waits for the worker is let run by hand. */
class TasksTest {
    private final Deque<Runnable> worker = new ArrayDeque<>();
    private final List<String> told = new ArrayList<>();
    private final Tasks tasks = new Tasks(Runnable::run, worker::add, told::add);

    @Test
    void oneAtATimeAndTheSecondIsToldToWait() {
        List<String> done = new ArrayList<>();
        tasks.run("measuring", progress -> done.add("first"));
        tasks.run("fitting", progress -> done.add("second"));
        assertThat(tasks.taskProperty().get().name()).isEqualTo("measuring");
        assertThat(told).singleElement().asString().contains("'measuring' is still under way");
        worker.remove().run();
        assertThat(worker).isEmpty();
        assertThat(done).containsExactly("first");
        assertThat(tasks.taskProperty().get()).isNull();
    }

    @Test
    void whatIsStoppedEndsAtItsNextWordAndSaysNothing() {
        List<String> reached = new ArrayList<>();
        tasks.run("fitting", progress -> {
            tasks.cancel();
            progress.report(0.5, "half");
            reached.add("after");
        });
        worker.remove().run();
        assertThat(reached).isEmpty();
        assertThat(told).isEmpty();
        assertThat(tasks.taskProperty().get()).isNull();
        tasks.run("again", progress -> reached.add("again"));
        worker.remove().run();
        assertThat(reached).as("the next is not stopped by it").containsExactly("again");
    }

    @Test
    void aSearchIsToldThatWhatItHasIsEnoughAndTheNextIsNot() {
        List<Boolean> told = new ArrayList<>();
        for (int i = 0; i < 2; i++) {
            boolean first = i == 0;
            tasks.search("fitting", progress -> {
                assertThat(tasks.taskProperty().get().search()).isTrue();
                if (first) {
                    tasks.enough();
                }
                progress.part(0.2, 0.8).named("fm").report(0.5, "half");
                told.add(progress.part(0.2, 0.8).named("fm").isEnough());
            });
            worker.remove().run();
        }
        assertThat(told).containsExactly(true, false);
    }

    @Test
    void whatFailsIsToldInWordsAndLeavesTheBenchFree() {
        tasks.run("reading", progress -> {
            throw new IOException("The disk is full: make room and try again.");
        });
        worker.remove().run();
        tasks.run("fitting", progress -> {
            throw new IllegalStateException("index 7 of 3");
        });
        worker.remove().run();
        assertThat(told.get(0)).isEqualTo("The disk is full: make room and try again.");
        assertThat(told.get(1))
                .contains("'fitting' stopped on an internal error")
                .doesNotContain("index 7");
        assertThat(tasks.taskProperty().get()).isNull();
    }
}

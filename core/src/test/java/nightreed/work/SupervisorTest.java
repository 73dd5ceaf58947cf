package nightreed.work;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicReference;
import nightreed.work.Supervisor.Control;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** Work that does not listen: it waits until the test has ended. */
@Timeout(60)
class SupervisorTest {
    private final CountDownLatch end = new CountDownLatch(1);
    private final AtomicReference<Control> seen = new AtomicReference<>();

    @AfterEach
    void letWorkEnd() {
        end.countDown();
    }

    private String deaf(Control control) throws InterruptedException {
        seen.set(control);
        control.report(0.5, "not listening");
        end.await();
        return "too late";
    }

    private static Progress asked(AtomicBoolean cancelled, AtomicBoolean enough) {
        return new Progress() {
            @Override
            public void report(double fraction, String doing) {}

            @Override
            public boolean isCancelled() {
                return cancelled.get();
            }

            @Override
            public boolean isEnough() {
                return enough.get();
            }
        };
    }

    @Test
    void theResultOfTheWorkComesBackAndProgressIsToldOnTheCallersThread() throws Exception {
        Set<Thread> told = ConcurrentHashMap.newKeySet();
        CountDownLatch heard = new CountDownLatch(1);
        Progress progress = (fraction, doing) -> {
            told.add(Thread.currentThread());
            heard.countDown();
        };
        String result = Supervisor.run(
                progress,
                Double.POSITIVE_INFINITY,
                0,
                control -> {
                    control.report(0.3, "working");
                    heard.await();
                    return "done";
                },
                () -> null);
        assertThat(result).isEqualTo("done");
        assertThat(told).containsExactly(Thread.currentThread());
    }

    @Test
    void aCancelEndsTheWaitingAndTheWorkIsTold() {
        AtomicBoolean cancelled = new AtomicBoolean(true);
        assertThatThrownBy(() -> Supervisor.run(
                        asked(cancelled, new AtomicBoolean()), 1e9, 0, this::deaf, () -> "what there is"))
                .isInstanceOf(CancellationException.class);
        cancelled.set(false);
        assertThat(seen.get() == null || seen.get().isCancelled()).isTrue();
    }

    @Test
    void aReportThatThrowsIsACancel() {
        Progress refuses = (fraction, doing) -> {
            throw new CancellationException();
        };
        assertThatThrownBy(() -> Supervisor.run(refuses, 1e9, 0, this::deaf, () -> "what there is"))
                .isInstanceOf(CancellationException.class);
        assertThat(seen.get().isCancelled()).isTrue();
        assertThatThrownBy(() -> seen.get().check()).isInstanceOf(CancellationException.class);
    }

    @Test
    void enoughReturnsWhatThereIs() throws Exception {
        assertThat(Supervisor.run(
                        asked(new AtomicBoolean(), new AtomicBoolean(true)), 1e9, 0, this::deaf, () -> "what there is"))
                .isEqualTo("what there is");
    }

    @Test
    void soDoesTheEndOfTheTime() throws Exception {
        assertThat(Supervisor.run(Progress.NONE, 0.02, 0.02, this::deaf, () -> "what there is"))
                .isEqualTo("what there is");
    }

    /** Work that can be ended has until the end of the time to return what it has itself. */
    @Test
    void workThatListensEndsByItself() throws Exception {
        String result = Supervisor.run(
                Progress.NONE,
                0.02,
                1e9,
                control -> {
                    while (!control.isEnough()) {
                        Thread.onSpinWait();
                    }
                    assertThat(control.isCancelled()).isFalse();
                    assertThat(control.endedByEnough().isCancelled()).isTrue();
                    return "ended";
                },
                () -> "what there is");
        assertThat(result).isEqualTo("ended");
    }

    @Test
    void whereThereIsNothingYetTheWorkIsWaitedFor() throws Exception {
        AtomicBoolean asked = new AtomicBoolean();
        String result = Supervisor.run(
                Progress.NONE,
                0,
                0,
                control -> {
                    while (!asked.get()) {
                        Thread.onSpinWait();
                    }
                    return "the first thing there is";
                },
                () -> {
                    asked.set(true);
                    return null;
                });
        assertThat(result).isEqualTo("the first thing there is");
    }

    @Test
    void whatTheWorkThrowsIsThrown() {
        assertThatThrownBy(() -> Supervisor.run(
                        Progress.NONE,
                        1e9,
                        0,
                        control -> {
                            throw new IOException("no such file");
                        },
                        () -> null))
                .isInstanceOf(IOException.class)
                .hasMessage("no such file");
    }
}

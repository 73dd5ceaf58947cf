package nightreed.device.midi;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.BooleanSupplier;
import nightreed.device.OutputMixer;
import nightreed.play.Performance;
import nightreed.recipe.RecipeTest;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/** Devices that come and go. */
class MidiInTest {
    /** A machine whose keyboards can be pulled out. */
    private static final class Machine implements MidiDevices {
        final List<String> names = new CopyOnWriteArrayList<>();
        final List<Keyboard> opened = new CopyOnWriteArrayList<>();
        volatile boolean busy;
        volatile int asked; // by the watcher alone

        @Override
        public List<String> names() {
            return List.copyOf(names);
        }

        @Override
        public MidiInput open(String name, MidiInput.Listener listener) {
            int before = asked;
            asked = before + 1;
            if (busy) {
                return null;
            }
            Keyboard k = new Keyboard(name, listener, new boolean[1]);
            opened.add(k);
            return k;
        }
    }

    private record Keyboard(String name, MidiInput.Listener listener, boolean[] closed) implements MidiInput {
        @Override
        public boolean standIn() {
            return false;
        }

        @Override
        public void close() {
            closed[0] = true;
        }
    }

    private final Machine machine = new Machine();
    private final OutputMixer desk = new OutputMixer(48_000);
    private MidiIn in;

    private void start(String wanted) {
        desk.instrument(RecipeTest.bar());
        in = new MidiIn(desk, machine, () -> Performance.phrase(57), wanted);
    }

    @AfterEach
    void end() {
        in.close();
    }

    private static void await(String what, BooleanSupplier condition) throws InterruptedException {
        long end = System.nanoTime() + 10_000_000_000L;
        while (!condition.getAsBoolean()) {
            assertThat(System.nanoTime()).as(what).isLessThan(end);
            Thread.sleep(10);
        }
    }

    private int voices() {
        desk.render(new float[512], new float[512], 512);
        return desk.voices();
    }

    @Test
    void aKeyboardThatIsPluggedInPlaysAndOneThatGoesFallsSilent() throws Exception {
        start(null);
        assertThat(in.name()).isNull();
        machine.names.add("keys");
        await("opened", () -> "keys".equals(in.name()));
        machine.opened.get(0).listener().message(0x90, 60, 100);
        machine.opened.get(0).listener().message(0xB0, 64, 127);
        assertThat(voices()).isEqualTo(1);
        machine.names.clear();
        await("gone", () -> in.name() == null);
        assertThat(machine.opened.get(0).closed()[0]).isTrue();
        await("silent", () -> voices() == 0);
    }

    @Test
    void theChosenOneIsTakenBackWhenItComesBack() throws Exception {
        machine.names.addAll(List.of("pads", "keys"));
        start("keys");
        await("chosen", () -> "keys".equals(in.name()));
        machine.names.remove("keys");
        await("the other meanwhile", () -> "pads".equals(in.name()));
        machine.names.add("keys");
        await("back", () -> "keys".equals(in.name()));
        in.choose(MidiIn.NONE);
        await("none", () -> in.name() == null);
    }

    @Test
    void oneThatRefusesIsAskedAgainWhenItIsChosen() throws Exception {
        machine.busy = true;
        machine.names.add("keys");
        start(null);
        await("asked", () -> machine.asked > 0);
        assertThat(in.name()).isNull();
        machine.busy = false;
        in.choose("keys");
        await("opened", () -> "keys".equals(in.name()));
    }

    @Test
    void controllersAreTold() throws Exception {
        machine.names.add("keys");
        start(null);
        List<String> turned = new CopyOnWriteArrayList<>();
        in.setOnControl((c, v) -> turned.add(c + " " + v));
        await("opened", () -> in.name() != null);
        machine.opened.get(0).listener().message(0xB0, 21, 127);
        assertThat(turned).containsExactly("21 1.0");
        assertThat(in.messages()).isEqualTo(1);
    }

    @Test
    void theScriptedPlayerPlaysInRealTime() throws Exception {
        start(ScriptedPlayer.NAME);
        await("playing", () -> voices() > 0);
        assertThat(in.names()).containsExactly(ScriptedPlayer.NAME);
        long began = System.nanoTime();
        long before = in.messages();
        await("more", () -> in.messages() > before + 4);
        // the phrase begins with two notes, on and off, in 0.7 s, and is never denser than 60 messages a second
        assertThat(in.messages() - before).isLessThan(8 + (long) (60e-9 * (System.nanoTime() - began)));
    }
}

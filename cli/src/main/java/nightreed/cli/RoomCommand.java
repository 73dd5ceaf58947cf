package nightreed.cli;

import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import nightreed.room.RecordingRoom;
import nightreed.sound.WavFiles;
import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.ParameterException;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

@Command(name = "room", description = "Has the stand-in recording room play and record a note.")
final class RoomCommand implements Callable<Integer> {
    @Spec
    CommandSpec spec;

    @Parameters(
            paramLabel = "INSTRUMENT",
            description = "What is played: slate-bars, buoy-bell, ferry-horn, long-bow, eel-lute, ratchet-kit.")
    String instrument;

    @Option(
            names = "--note",
            paramLabel = "KEY",
            converter = KeyConverter.class,
            description = "Key (69 or A4); the instrument's usual one by default.")
    Integer key;

    @Option(names = "--velocity", description = "Strength, above 0 to 1; 0.7 by default.")
    double velocity = 0.7;

    @Option(names = "--seed", paramLabel = "N", description = "Which bar, player and moment; 1 by default.")
    long seed = 1;

    @Option(names = "--out", paramLabel = "OUT.wav", required = true, description = "WAV file to write.")
    Path out;

    @Mixin
    Results results;

    @Override
    public Integer call() throws IOException {
        results.check(out, List.of());
        try {
            RecordingRoom.Instrument i = RecordingRoom.instrument(instrument);
            int played = key == null ? i.usualKey() : key;
            WavFiles.write(RecordingRoom.record(i, played, velocity, seed), WavFiles.Format.PCM24, out);
        } catch (IllegalArgumentException e) {
            throw new ParameterException(spec.commandLine(), e.getMessage());
        }
        return 0;
    }
}

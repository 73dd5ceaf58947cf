package nightreed.cli;

import nightreed.music.Pitch;
import picocli.CommandLine.ITypeConverter;
import picocli.CommandLine.TypeConversionException;

/** A key as MIDI number or name. */
final class KeyConverter implements ITypeConverter<Integer> {
    @Override
    public Integer convert(String value) {
        try {
            return Pitch.key(value);
        } catch (IllegalArgumentException e) {
            throw new TypeConversionException(e.getMessage());
        }
    }
}

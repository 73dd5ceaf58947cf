package nightreed.recipe.part;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;

/** Parts of one record taken over by another that has the like: an LFO, a strike, effects, a whole bank of bands. */
public final class Lending {
    private Lending() {}

    /**
     * A part that can be lent.
     *
     * @param path where it lies in both
     * @param name what people call it
     */
    public record Lent(String path, String name) {}

    /** Parts that both can have, that are there in the one that lends, and that are not alike already. */
    public static List<Lent> possible(Record to, Record from) {
        List<Lent> out = new ArrayList<>();
        possible(to, from, "", out);
        return out;
    }

    private static void possible(Record to, Record from, String path, List<Lent> out) {
        RecordShape source = RecordShape.of(from.getClass());
        RecordShape target = RecordShape.of(to.getClass());
        for (int i = 0; i < source.components.length; i++) {
            int k = target.like(source, i);
            if (source.parts[i] == null || k < 0) {
                continue;
            }
            Object theirs = source.get(from, i);
            Object ours = target.get(to, k);
            if (theirs == null || Objects.equals(theirs, ours) || theirs.equals(List.of())) {
                continue;
            }
            String here = path + source.components[i].getName();
            boolean holder = source.parts[i].id().isEmpty() && !(theirs instanceof Exciter);
            if (!holder || theirs instanceof Effects) {
                out.add(new Lent(here, name(source, i)));
            }
            if (holder && theirs instanceof Record r && ours instanceof Record o) {
                possible(o, r, here + ".", out);
            }
        }
    }

    private static String name(RecordShape s, int i) {
        String given = s.parts[i].name();
        if (s.components[i].getType() == List.class) {
            return "all " + given + "s";
        }
        return given.isEmpty()
                ? s.components[i]
                        .getName()
                        .replaceAll("([A-Z])", " $1")
                        .toLowerCase(Locale.ROOT)
                        .replace("exciter", "strike")
                : given;
    }

    /**
     * A record with a part as another has it.
     *
     * @throws IllegalArgumentException if one of the two has no such part, or it does not fit with the rest
     */
    @SuppressWarnings("unchecked") // the constructor of the same class makes the same class
    public static <R extends Record> R lent(R to, Record from, String path) {
        return (R) take(to, from, path);
    }

    private static Record take(Record to, Record from, String path) {
        int dot = path.indexOf('.');
        String own = dot < 0 ? path : path.substring(0, dot);
        RecordShape source = RecordShape.of(from.getClass());
        RecordShape target = RecordShape.of(to.getClass());
        for (int i = 0; i < source.components.length; i++) {
            int k = source.components[i].getName().equals(own) ? target.like(source, i) : -1;
            if (k >= 0) {
                Object theirs = source.get(from, i);
                Object now =
                        dot < 0 ? theirs : take((Record) target.get(to, k), (Record) theirs, path.substring(dot + 1));
                return (Record) target.with(to, k, now);
            }
        }
        throw new IllegalArgumentException("there is no part '" + path + "' that both have");
    }
}

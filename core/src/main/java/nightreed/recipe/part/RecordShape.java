package nightreed.recipe.part;

import java.lang.reflect.Constructor;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;

/** Components, their descriptions and the canonical constructor of one kind of record, looked up once. */
final class RecordShape {
    private static final ClassValue<RecordShape> SHAPES = new ClassValue<>() {
        @Override
        protected RecordShape computeValue(Class<?> type) {
            return new RecordShape(type);
        }
    };

    static RecordShape of(Class<?> type) {
        return SHAPES.get(type);
    }

    /** What a {@link ParameterSpec} says, read once: reading an annotation looks each of its values up in a table. */
    record Spec(
            String id,
            String name,
            String unit,
            double least,
            double most,
            double leastEver,
            double mostEver,
            Parameter.Law law,
            int decimals,
            Parameter.Group group,
            String meaning,
            List<Double> neutral) {
        static Spec of(RecordComponent c) {
            ParameterSpec d = c.getAnnotation(ParameterSpec.class);
            return d == null
                    ? null
                    : new Spec(
                            id(c, d),
                            d.name(),
                            d.unit(),
                            d.least(),
                            d.most(),
                            Double.isNaN(d.leastEver()) ? d.least() : d.leastEver(),
                            Double.isNaN(d.mostEver()) ? d.most() : d.mostEver(),
                            d.law(),
                            d.decimals(),
                            d.group(),
                            d.meaning(),
                            Arrays.stream(d.neutral()).boxed().toList());
        }

        private static String id(RecordComponent c, ParameterSpec d) {
            return d.id().isEmpty() ? c.getName().replaceFirst("(Seconds|Hz|Db|Cents|Ms|Rad|Octaves)$", "") : d.id();
        }
    }

    /** What a {@link Part} says. */
    record PartSpec(String id, String name, Parameter.Group group, int least, int most, Class<?> element) {
        static PartSpec of(RecordComponent c) {
            Part p = c.getAnnotation(Part.class);
            return p == null ? null : new PartSpec(p.id(), p.name(), p.group(), p.least(), p.most(), element(c));
        }

        /** What a list holds; for a part by itself, that part. */
        private static Class<?> element(RecordComponent c) {
            return c.getGenericType() instanceof ParameterizedType list
                    ? (Class<?>) list.getActualTypeArguments()[0]
                    : c.getType();
        }
    }

    final RecordComponent[] components;
    final Spec[] dials;
    final PartSpec[] parts;
    final List<List<String>> choices;
    final Constructor<?> constructor;

    private RecordShape(Class<?> type) {
        components = type.getRecordComponents();
        dials = new Spec[components.length];
        parts = new PartSpec[components.length];
        choices = new ArrayList<>();
        Class<?>[] types = new Class<?>[components.length];
        for (int i = 0; i < components.length; i++) {
            dials[i] = Spec.of(components[i]);
            parts[i] = PartSpec.of(components[i]);
            types[i] = components[i].getType();
            choices.add(types[i].isEnum() || types[i] == boolean.class ? choices(types[i]) : List.of());
        }
        try {
            constructor = type.getDeclaredConstructor(types);
        } catch (NoSuchMethodException e) {
            throw new IllegalArgumentException(type + " is not a record", e);
        }
    }

    /** Place of the component that has the name and the type of another shape's; -1 if there is none. */
    int like(RecordShape other, int at) {
        for (int i = 0; i < components.length; i++) {
            if (components[i].getName().equals(other.components[at].getName())
                    && components[i].getGenericType().equals(other.components[at].getGenericType())) {
                return i;
            }
        }
        return -1;
    }

    Object get(Object record, int i) {
        try {
            return components[i].getAccessor().invoke(record);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(components[i] + " cannot be read", e);
        }
    }

    Object with(Object record, int changed, Object value) {
        Object[] all = new Object[components.length];
        for (int i = 0; i < all.length; i++) {
            all[i] = i == changed ? value : get(record, i);
        }
        try {
            return constructor.newInstance(all);
        } catch (InvocationTargetException e) {
            if (e.getCause() instanceof IllegalArgumentException bad) {
                throw bad;
            }
            throw new IllegalStateException(e);
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException(e);
        }
    }

    private static List<String> choices(Class<?> type) {
        if (type == boolean.class) {
            return List.of("off", "on");
        }
        return Arrays.stream(type.getEnumConstants())
                .map(e -> choice(((Enum<?>) e).name()))
                .toList();
    }

    private static String choice(String name) {
        if (name.startsWith("DB_")) {
            return name.substring(3) + " dB/oct";
        }
        return name.startsWith("FEET_")
                ? name.substring(5) + " feet"
                : name.toLowerCase(Locale.ROOT).replace('_', ' ');
    }
}

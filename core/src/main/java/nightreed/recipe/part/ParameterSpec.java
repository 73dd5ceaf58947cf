package nightreed.recipe.part;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * Describes a value where it is declared: a component of a record that is a number, a choice (enum) or a switch (boolean).
 * The same description checks the value when the record is made ({@link ParameterAccess#check}) and becomes its {@link Parameter}.
 */
@Documented
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface ParameterSpec {
    /** Last part of its id; the component's own name without its unit if empty. */
    String id() default "";

    /** What people call it. */
    String name();

    String unit() default "";

    /** Smallest value. */
    double least() default 0;

    /** Largest value. */
    double most() default 1;

    /** Smallest value a file or another program may ask for, where that lies beyond the ruler's end. */
    double leastEver() default Double.NaN;

    /** Largest value a file or another program may ask for, where that lies beyond the ruler's end. */
    double mostEver() default Double.NaN;

    Parameter.Law law() default Parameter.Law.LINEAR;

    int decimals() default 2;

    /** Values at which it does nothing, or what nothing needs to be said about; none if it always has to be set. */
    double[] neutral() default {};

    /** Where it belongs; the part's group if left as it is. */
    Parameter.Group group() default Parameter.Group.INHERITED;

    /** One line on what it does to the sound, ending with a full stop. */
    String meaning();
}

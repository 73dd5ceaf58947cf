package nightreed.recipe.part;

import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * Marks a component of a record that is itself a record of values, or a list of such. A part that may be left out is null
 * then; the record has a constant {@code USUAL} to begin with.
 */
@Documented
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.RECORD_COMPONENT)
public @interface Part {
    /** What the ids of its values begin with; nothing if empty. */
    String id() default "";

    /** What the names of its values begin with; nothing if empty. */
    String name() default "";

    Parameter.Group group() default Parameter.Group.INHERITED;

    /** Fewest elements of a list. */
    int least() default 0;

    /** Most elements of a list; none can be added to one that does not say. */
    int most() default 0;
}

package nightreed.recipe.part;

/** A record some of whose values do nothing while others stand as they do, such as the decay of an envelope that does not fall. */
public interface PartlyIdle {
    /** Whether a value of it or of its parts makes any difference. @param id of the value, as seen from this record */
    boolean inEffect(String id);
}

package sandpiper.model.definition;

import java.util.ArrayList;
import java.util.List;

/**
 * From where a field that a route made has its value.
 *
 * @param route its name
 * @param object the object that has the field the value comes from
 * @param field its name there
 * @param through the references that lead there; empty for a line item, whose record has the field
 * @param ofRecord whether they begin at the record of a line item, and not at the item itself
 * @param follows whether the value is worked out like a formula; otherwise it is taken over when
 *     the first of the references is chosen, or with a new line item
 */
public record TravelSource(
        String route,
        String object,
        String field,
        List<String> through,
        boolean ofRecord,
        boolean follows) {
    public TravelSource {
        through = List.copyOf(through);
    }

    /** The way to the value, as an expression: {@code vessel.owner.costCentre}. */
    public String written() {
        var steps = new ArrayList<>(through);
        steps.add(field);
        return String.join(".", steps);
    }
}

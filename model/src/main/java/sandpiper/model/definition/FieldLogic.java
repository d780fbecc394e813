package sandpiper.model.definition;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a definition says about how a field is worked out and entered. Everything is {@code null} or
 * empty when it says nothing.
 *
 * @param formula works out its value
 * @param requiredWhen when a record needs a value here
 * @param readOnlyWhen when nobody may change it
 * @param hiddenWhen when forms leave it out
 * @param offer which records a reference may point to
 * @param fill fields that get a value when a reference is chosen: field here by field there
 * @param requiredSay what is said when a value is missing, instead of the condition
 * @param readOnlySay what is said when it cannot be changed
 * @param offerSay what is said when a record cannot be chosen
 */
public record FieldLogic(
        @Nullable LogicText formula,
        @Nullable LogicText requiredWhen,
        @Nullable LogicText readOnlyWhen,
        @Nullable LogicText hiddenWhen,
        @Nullable LogicText offer,
        Map<String, LogicText> fill,
        @Nullable LogicText requiredSay,
        @Nullable LogicText readOnlySay,
        @Nullable LogicText offerSay) {
    /** Nothing is said. */
    public static final FieldLogic NONE =
            new FieldLogic(null, null, null, null, null, Map.of(), null, null, null);

    public FieldLogic {
        fill = new LinkedHashMap<>(fill);
    }
}

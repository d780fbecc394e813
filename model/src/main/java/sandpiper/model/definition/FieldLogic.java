package sandpiper.model.definition;

import java.util.LinkedHashMap;
import java.util.List;
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
 * @param travels the routes along which documents that are made from its record get it
 * @param source from where it has its value when a route made it
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
        @Nullable LogicText offerSay,
        List<Travels> travels,
        @Nullable TravelSource source) {
    /** Nothing is said. */
    public static final FieldLogic NONE =
            new FieldLogic(
                    null, null, null, null, null, Map.of(), null, null, null, List.of(), null);

    public FieldLogic {
        fill = new LinkedHashMap<>(fill);
        travels = List.copyOf(travels);
    }

    /** What a route says about a field it makes; with a formula where it follows its source. */
    public static FieldLogic of(TravelSource source, @Nullable LogicText formula) {
        return new FieldLogic(
                formula, null, null, null, null, Map.of(), null, null, null, List.of(), source);
    }

    /** Whether its value is taken over from elsewhere, once. */
    public boolean isTakenOver() {
        return source != null && !source.follows();
    }
}

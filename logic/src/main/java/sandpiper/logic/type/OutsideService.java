package sandpiper.logic.type;

import java.util.List;
import java.util.Optional;

/** A service outside, as logic that calls it sees it. */
public interface OutsideService {
    String name();

    /** What can be called, in the order of its definition. */
    List<? extends OutsideFunction> functions();

    /** The function of a name, or nothing. */
    default Optional<OutsideFunction> function(String name) {
        return functions().stream()
                .filter(one -> one.name().equals(name))
                .map(one -> (OutsideFunction) one)
                .findFirst();
    }

    /** What an outside service answers. */
    interface OutsideFunction extends FunctionType {
        /** As it is written in steps: {@code tide-table.rate}. */
        String written();

        /** Whether its answers are kept for a while, so that a change may read them. */
        boolean isKept();

        @Override
        default boolean isOnRecord() {
            return false;
        }

        @Override
        default boolean asksAnew() {
            return !isKept();
        }
    }
}

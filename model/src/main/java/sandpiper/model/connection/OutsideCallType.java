package sandpiper.model.connection;

import java.time.Duration;
import java.time.ZoneId;
import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.OutsideService.OutsideFunction;
import sandpiper.model.release.Release;
import sandpiper.model.release.ValueType;

/**
 * A question to an outside service that steps ask.
 *
 * @param describe what it gives, or {@code null}
 * @param takes its parameters
 * @param gives what it answers, or {@code null} when nothing of the answer is read
 * @param at where that is in the answer; empty for the answer itself
 * @param keep how long answers are kept, or {@code null} when each call asks anew
 * @param zone in which dates are meant
 */
public record OutsideCallType(
        String connection,
        String name,
        @Nullable String describe,
        OutsideOperation operation,
        ValueType.Group takes,
        @Nullable ValueType gives,
        List<String> at,
        @Nullable Duration keep,
        ZoneId zone)
        implements OutsideFunction {
    public OutsideCallType {
        at = List.copyOf(at);
    }

    @Override
    public String written() {
        return connection + "." + name;
    }

    /** Whether it can say how much of a currency one is on a day. */
    public boolean givesRates() {
        var types = parameters().stream().map(Parameter::type).toList();
        var result = returns();
        return keep != null
                && types.size() == 2
                && types.contains(LogicType.Simple.TEXT)
                && types.contains(LogicType.Simple.DATE)
                && result != null
                && result.isNumeric();
    }

    @Override
    public boolean isKept() {
        return keep != null;
    }

    @Override
    public List<Parameter> parameters() {
        return takes.entries().stream()
                .map(one ->
                        new Parameter(
                                one.name(), one.type().logicType(Release.EMPTY), one.required()))
                .toList();
    }

    @Override
    public @Nullable LogicType returns() {
        return gives == null ? null : gives.logicType(Release.EMPTY);
    }
}

package sandpiper.server.manage.outside;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.port.OutsideStorage.Reach;
import sandpiper.logic.value.TemporalText;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.connection.LookupType;
import sandpiper.model.connection.OutsideCallType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ValueType;

/**
 * A connection, as console and command line show it.
 *
 * @param setting by which the instance gives its address and credentials
 * @param live whether the live release has it, so that it can be used
 * @param leftAlone whether it has not answered of late and is not asked for a while
 * @param reach how it is reached, or {@code null} when nobody has said
 */
public record ConnectionView(
        String name,
        String packageName,
        String label,
        @Nullable String describe,
        String setting,
        String contract,
        List<LookupView> lookups,
        List<OutsideCallView> calls,
        boolean live,
        boolean leftAlone,
        @Nullable ReachView reach) {
    /**
     * Codes with labels for pick lists.
     *
     * @param search the parameter that takes what somebody types, or {@code null}
     * @param one the operation that gives one entry, or {@code null}
     * @param keep an ISO 8601 duration
     * @param whenDown {@code accept} or {@code refuse}
     */
    record LookupView(
            String name,
            String call,
            @Nullable String search,
            @Nullable String one,
            String items,
            String key,
            String label,
            String keep,
            String whenDown) {
        static LookupView of(LookupType lookup) {
            var single = lookup.single();
            return new LookupView(
                    lookup.name(),
                    lookup.operation().written(),
                    lookup.search(),
                    single == null ? null : single.written(),
                    String.join(".", lookup.items()),
                    String.join(".", lookup.key()),
                    String.join(".", lookup.label()),
                    TemporalText.write(lookup.keep()),
                    lookup.accepts() ? "accept" : "refuse");
        }
    }

    /**
     * A question that steps ask.
     *
     * @param returns its type in words, or {@code null} when it gives nothing back
     * @param keep an ISO 8601 duration, or {@code null} when each call asks anew
     */
    record OutsideCallView(
            String name,
            @Nullable String describe,
            String call,
            List<OutsideParameterView> parameters,
            @Nullable String returns,
            String at,
            @Nullable String keep) {
        static OutsideCallView of(OutsideCallType call) {
            var gives = call.gives();
            var keep = call.keep();
            return new OutsideCallView(
                    call.name(),
                    call.describe(),
                    call.operation().written(),
                    call.takes().entries().stream()
                            .map(one ->
                                    new OutsideParameterView(
                                            one.name(), word(one.type()), one.required()))
                            .toList(),
                    gives == null ? null : gives.logicType(Release.EMPTY).described(),
                    String.join(".", call.at()),
                    keep == null ? null : TemporalText.write(keep));
        }

        private static String word(ValueType type) {
            return type instanceof ValueType.Single(var field)
                    ? field.type().keyword().word()
                    : "text";
        }
    }

    /** What a call takes. */
    record OutsideParameterView(String name, String type, boolean required) {}

    /**
     * How a service is reached, without its secret.
     *
     * @param scheme {@code none}, {@code basic}, {@code bearer} or {@code client-credentials}
     * @param user the name that goes with the secret; empty for none
     */
    record ReachView(
            String setting,
            String address,
            String scheme,
            String user,
            String tokenAddress,
            String scope,
            boolean hasSecret,
            String changedAt,
            String changedBy) {
        static ReachView of(Reach reach) {
            return new ReachView(
                    reach.setting(),
                    reach.address(),
                    reach.scheme(),
                    reach.user(),
                    reach.tokenAddress(),
                    reach.scope(),
                    reach.sealedSecret() != null,
                    reach.changedAt().toString(),
                    reach.changedBy());
        }
    }

    static ConnectionView of(
            ConnectionType connection, boolean live, boolean leftAlone, @Nullable Reach reach) {
        return new ConnectionView(
                connection.name(),
                connection.packageName(),
                connection.label(),
                connection.describe(),
                connection.setting(),
                connection.contract(),
                connection.lookups().stream().map(LookupView::of).toList(),
                connection.functions().stream().map(OutsideCallView::of).toList(),
                live,
                leftAlone,
                reach == null ? null : ReachView.of(reach));
    }
}

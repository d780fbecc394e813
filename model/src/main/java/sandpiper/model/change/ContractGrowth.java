package sandpiper.model.change;

import java.util.ArrayList;
import java.util.List;
import sandpiper.model.contract.AnsweredShape;
import sandpiper.model.release.Release;

/**
 * What answers of a contract get that they had not. Who has a contract from before keeps what it
 * says.
 *
 * @param service its name
 * @param resource its name
 * @param fields as callers write them
 */
public record ContractGrowth(String service, int version, String resource, List<String> fields) {
    public ContractGrowth {
        fields = List.copyOf(fields);
    }

    /** What grows from one state of the definitions to the next. */
    public static List<ContractGrowth> between(Release before, Release after) {
        var growths = new ArrayList<ContractGrowth>();
        for (var service : after.services()) {
            var former = before.service(service.name(), service.version());
            if (former.isEmpty()) {
                continue;
            }
            var old = AnsweredShape.of(former.get());
            var now = AnsweredShape.of(service);
            for (var resource : service.resources()) {
                var fields = now.besides(old, resource.name());
                if (!fields.isEmpty() && former.get().resource(resource.name()).isPresent()) {
                    growths.add(
                            new ContractGrowth(
                                    service.name(), service.version(), resource.name(), fields));
                }
            }
        }
        return growths;
    }

    /** What it means for those who call. */
    public String sentence() {
        return "Service %s v%d: answers of %s get %s. Callers keep what their contract has; a contract that is fetched anew has it."
                .formatted(service, version, resource, String.join(", ", fields));
    }
}

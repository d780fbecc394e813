package sandpiper.server.manage.draft;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import sandpiper.model.Names;
import sandpiper.model.release.CallType;
import sandpiper.model.release.EventType;
import sandpiper.model.release.FieldPath;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ResourceType;
import sandpiper.model.release.ServiceType;
import sandpiper.server.service.ValueExamples;

/** A service as the console shows it. */
public record ServiceView(
        String name,
        int version,
        String packageName,
        String label,
        @Nullable String describe,
        List<String> protocols,
        List<ResourceView> resources,
        List<FunctionCallView> functions,
        List<String> events) {

    /**
     * One resource.
     *
     * @param where the condition its records meet, or {@code null}
     * @param needsVersion whether a change must say which version it is based on
     * @param presets values of records created through it, by field
     * @param operations for each operation the names of its fields
     */
    record ResourceView(
            String name,
            String object,
            String objectLabel,
            @Nullable String describe,
            @Nullable String where,
            boolean needsVersion,
            Map<String, String> presets,
            List<String> key,
            Map<String, List<String>> operations,
            List<String> filterable,
            List<String> sortable,
            List<CallView> calls) {}

    /**
     * A transition or function a caller may call on a record.
     *
     * @param address its name in addresses
     * @param example arguments that could be given
     * @param returns whether it gives something back besides the record
     */
    record CallView(
            String name,
            String address,
            String label,
            @Nullable String describe,
            Map<String, Object> example,
            boolean returns) {
        static CallView of(CallType call) {
            return new CallView(
                    call.name(),
                    Names.address(call.name()),
                    call.label(),
                    call.describe(),
                    ValueExamples.of(call.parameters()),
                    call.returns() != null);
        }
    }

    /** A function of an object as a whole. */
    record FunctionCallView(String object, CallView call) {}

    static ServiceView of(ServiceType service) {
        return new ServiceView(
                service.name(),
                service.version(),
                service.packageName(),
                service.label(),
                service.describe(),
                service.protocols(),
                service.resources().stream().map(ServiceView::resource).toList(),
                service.functions().stream()
                        .map(one ->
                                new FunctionCallView(
                                        one.object().name(),
                                        CallView.of(new CallType.OfFunction(one.definition()))))
                        .toList(),
                service.events().stream().map(EventType::name).toList());
    }

    private static ResourceView resource(ResourceType resource) {
        var operations = new TreeMap<String, List<String>>();
        resource.trees()
                .forEach((operation, tree) ->
                        operations.put(operation.name().toLowerCase(Locale.ROOT), names(tree)));
        return new ResourceView(
                resource.name(),
                resource.object().name(),
                resource.object().label(),
                resource.describe(),
                resource.where() == null ? null : resource.where().text(),
                resource.versioned(),
                presets(resource),
                resource.object().key(),
                operations,
                resource.filterNames(),
                resource.sortable().stream().map(FieldPath::written).toList(),
                resource.calls().stream().map(CallView::of).toList());
    }

    private static Map<String, String> presets(ResourceType resource) {
        var presets = new TreeMap<String, String>();
        resource.presets().forEach((field, value) -> presets.put(field.name(), value.written()));
        return presets;
    }

    private static List<String> names(FieldTree tree) {
        var names = new ArrayList<>(tree.paths().stream().map(FieldPath::written).toList());
        tree.parts()
                .forEach(part ->
                        part.paths()
                                .forEach(path ->
                                        names.add(part.part().name() + "." + path.written())));
        return names;
    }
}

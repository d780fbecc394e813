package sandpiper.server.odata.metadata;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.apache.olingo.commons.api.edm.FullQualifiedName;
import org.apache.olingo.commons.api.edm.provider.CsdlAction;
import org.apache.olingo.commons.api.edm.provider.CsdlActionImport;
import org.apache.olingo.commons.api.edm.provider.CsdlAnnotation;
import org.apache.olingo.commons.api.edm.provider.CsdlFunction;
import org.apache.olingo.commons.api.edm.provider.CsdlFunctionImport;
import org.apache.olingo.commons.api.edm.provider.CsdlParameter;
import org.apache.olingo.commons.api.edm.provider.CsdlReturnType;
import sandpiper.model.contract.ResourceNames;
import sandpiper.model.release.CallType;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ValueType;
import sandpiper.model.type.MoneyType;

/**
 * Writes what can be called down in the metadata. What only finds something out, and takes and
 * gives plain values, is a function, called with GET; everything else is an action.
 */
public final class OperationWriter {
    private final String namespace;
    private final EdmTypes types;
    private final Map<String, CsdlAction> actions = new LinkedHashMap<>();
    private final Map<String, CsdlFunction> functions = new LinkedHashMap<>();
    private final List<CsdlActionImport> actionImports = new ArrayList<>();
    private final List<CsdlFunctionImport> functionImports = new ArrayList<>();

    OperationWriter(String namespace, EdmTypes types) {
        this.namespace = namespace;
        this.types = types;
    }

    List<CsdlAction> actions() {
        return List.copyOf(actions.values());
    }

    List<CsdlFunction> functions() {
        return List.copyOf(functions.values());
    }

    List<CsdlActionImport> actionImports() {
        return actionImports;
    }

    List<CsdlFunctionImport> functionImports() {
        return functionImports;
    }

    /** Whether a call is a function of OData. */
    public static boolean isFunction(CallType call) {
        return call instanceof CallType.OfFunction(var function)
                && function.asksOnly()
                && call.parameters().entries().stream()
                        .allMatch(one ->
                                one.type() instanceof ValueType.Single(var field)
                                        && !EdmTypes.isComplex(field.type()))
                && call.returns() instanceof ValueType.Single(var result)
                && !(result.type() instanceof MoneyType)
                && !EdmTypes.isComplex(result.type());
    }

    /** What is called on a record of a set. */
    void bound(String set, EntityShape shape, CallType call) {
        var binding =
                new CsdlParameter().setName("record").setType(shape.type()).setNullable(false);
        var name = call.name();
        var prefix = ResourceNames.capital(shape.type().getName()) + ResourceNames.capital(name);
        var parameters = new ArrayList<>(List.of(binding));
        parameters.addAll(parameters(prefix, call.parameters()));
        if (isFunction(call)) {
            functions.put(
                    set + "/" + name,
                    new CsdlFunction()
                            .setName(name)
                            .setBound(true)
                            .setParameters(parameters)
                            .setReturnType(returned(prefix, Objects.requireNonNull(call.returns())))
                            .setAnnotations(List.of(described(call))));
            return;
        }
        var returns = call.returns();
        var action =
                new CsdlAction()
                        .setName(name)
                        .setBound(true)
                        .setParameters(parameters)
                        .setAnnotations(List.of(described(call)));
        if (returns == null) {
            action.setEntitySetPath("record")
                    .setReturnType(new CsdlReturnType().setType(shape.type()));
        } else {
            action.setReturnType(returned(prefix, returns));
        }
        actions.put(set + "/" + name, action);
    }

    /** What is called on no record. */
    void unbound(ObjectFunctionType function) {
        var call = new CallType.OfFunction(function.definition());
        var name = call.name();
        var prefix = ResourceNames.capital(name);
        var full = new FullQualifiedName(namespace, name);
        if (isFunction(call)) {
            functions.put(
                    name,
                    new CsdlFunction()
                            .setName(name)
                            .setParameters(parameters(prefix, call.parameters()))
                            .setReturnType(returned(prefix, Objects.requireNonNull(call.returns())))
                            .setAnnotations(List.of(described(call))));
            functionImports.add(new CsdlFunctionImport().setName(name).setFunction(full));
            return;
        }
        var returns = call.returns();
        var action =
                new CsdlAction()
                        .setName(name)
                        .setParameters(parameters(prefix, call.parameters()))
                        .setAnnotations(List.of(described(call)));
        if (returns != null) {
            action.setReturnType(returned(prefix, returns));
        }
        actions.put(name, action);
        actionImports.add(new CsdlActionImport().setName(name).setAction(full));
    }

    private static CsdlAnnotation described(CallType call) {
        var described = call.describe();
        return Annotations.description(described == null ? call.label() : described);
    }

    private List<CsdlParameter> parameters(String prefix, ValueType.Group group) {
        var parameters = new ArrayList<CsdlParameter>();
        for (var one : group.entries()) {
            var type = types.value(prefix + ResourceNames.capital(one.name()), one.type());
            parameters.add(
                    new CsdlParameter()
                            .setName(one.name())
                            .setType(type.getTypeAsFQNObject())
                            .setCollection(type.isCollection())
                            .setMaxLength(type.getMaxLength())
                            .setPrecision(type.getPrecision())
                            .setScale(type.getScale())
                            .setNullable(!one.required()));
        }
        return parameters;
    }

    private CsdlReturnType returned(String prefix, ValueType returns) {
        var type = types.value(prefix + "Result", returns);
        return new CsdlReturnType()
                .setType(type.getTypeAsFQNObject())
                .setCollection(type.isCollection())
                .setMaxLength(type.getMaxLength())
                .setPrecision(type.getPrecision())
                .setScale(type.getScale());
    }
}

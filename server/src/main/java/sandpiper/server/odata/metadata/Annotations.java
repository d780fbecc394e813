package sandpiper.server.odata.metadata;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.apache.olingo.commons.api.edm.provider.CsdlAnnotation;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlCollection;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlConstantExpression;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlConstantExpression.ConstantExpressionType;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlExpression;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlPropertyPath;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlPropertyValue;
import org.apache.olingo.commons.api.edm.provider.annotation.CsdlRecord;
import org.apache.olingo.commons.api.edmx.EdmxReference;
import org.apache.olingo.commons.api.edmx.EdmxReferenceInclude;

/** What metadata says besides types, in the vocabularies that the standard comes with. */
public final class Annotations {
    private static final String CORE = "Org.OData.Core.V1";
    private static final String CAPABILITIES = "Org.OData.Capabilities.V1";
    private static final String AGGREGATION = "Org.OData.Aggregation.V1";
    private static final String VALIDATION = "Org.OData.Validation.V1";

    /** Those that become conditions the database can answer. */
    private static final List<String> FILTER_FUNCTIONS =
            List.of(
                    "contains",
                    "startswith",
                    "endswith",
                    "tolower",
                    "toupper",
                    "length",
                    "year",
                    "month",
                    "day",
                    "date",
                    "now");

    private Annotations() {}

    /** Where the vocabularies are described, from the root of the server. */
    public static List<EdmxReference> references(String server) {
        return List.of(
                reference(server, CORE, "Core"),
                reference(server, CAPABILITIES, "Capabilities"),
                reference(server, VALIDATION, "Validation"),
                reference(server, AGGREGATION, "Aggregation"));
    }

    private static EdmxReference reference(String server, String namespace, String alias) {
        var address = server + VocabularyController.HOME + namespace + ".xml";
        var reference = new EdmxReference(java.net.URI.create(address));
        return reference.addInclude(new EdmxReferenceInclude(namespace, alias));
    }

    static CsdlAnnotation description(String text) {
        return text(CORE + ".Description", text);
    }

    static CsdlAnnotation longDescription(String text) {
        return text(CORE + ".LongDescription", text);
    }

    /** That the service sets it, whatever a caller sends. */
    static CsdlAnnotation computed() {
        return flag(CORE + ".Computed", true);
    }

    /** That it can be given to a new entity only. */
    static CsdlAnnotation immutable() {
        return flag(CORE + ".Immutable", true);
    }

    /** That it is taken but never shown. */
    static CsdlAnnotation writeOnly() {
        return of(
                CORE + ".Permissions",
                new CsdlConstantExpression(
                        ConstantExpressionType.EnumMember, CORE + ".Permission/Write"));
    }

    /** The codes a text may be, with what they mean. */
    static CsdlAnnotation allowed(Map<String, String> labels) {
        var values = new ArrayList<CsdlExpression>();
        labels.forEach((code, label) -> {
            var one = new CsdlRecord();
            one.setPropertyValues(
                    List.of(new CsdlPropertyValue().setProperty("Value").setValue(string(code))));
            one.setAnnotations(List.of(description(label)));
            values.add(one);
        });
        return of(VALIDATION + ".AllowedValues", new CsdlCollection().setItems(values));
    }

    /** That changes may name the version they are meant for. */
    static CsdlAnnotation optimisticConcurrency() {
        return of(
                CORE + ".OptimisticConcurrency",
                new CsdlCollection()
                        .setItems(List.of(new CsdlPropertyPath().setValue(EntityShape.VERSION))));
    }

    /** What cannot be done with a set; {@code able} is the word of the vocabulary for it. */
    static CsdlAnnotation restriction(String what, String able, boolean can) {
        return of(
                CAPABILITIES + "." + what,
                record(new CsdlPropertyValue().setProperty(able).setValue(bool(can))));
    }

    /** What a set cannot be filtered or sorted by. */
    static CsdlAnnotation without(
            String what, String able, String list, boolean can, List<String> properties) {
        var paths = new ArrayList<CsdlExpression>();
        properties.forEach(name -> paths.add(new CsdlPropertyPath().setValue(name)));
        return of(
                CAPABILITIES + "." + what,
                record(
                        new CsdlPropertyValue().setProperty(able).setValue(bool(can)),
                        new CsdlPropertyValue()
                                .setProperty(list)
                                .setValue(new CsdlCollection().setItems(paths))));
    }

    /** How entities of a set are read: from a query, and one by one by their key. */
    static CsdlAnnotation reading(boolean queried, boolean byKey) {
        return of(
                CAPABILITIES + ".ReadRestrictions",
                record(
                        value("Readable", bool(queried)),
                        value("ReadByKeyRestrictions", record(value("Readable", bool(byKey))))));
    }

    /** What {@code $apply} can ask of a set. */
    static CsdlAnnotation groups() {
        return of(
                AGGREGATION + ".ApplySupported",
                record(
                        value(
                                "Transformations",
                                new CsdlCollection()
                                        .setItems(
                                                List.of(
                                                        string("filter"),
                                                        string("groupby"),
                                                        string("aggregate")))),
                        value(
                                "Rollup",
                                new CsdlConstantExpression(
                                        ConstantExpressionType.EnumMember,
                                        AGGREGATION + ".RollupType/None"))));
    }

    /** Line items come and go with their record, and nothing of them is asked one by one. */
    static CsdlAnnotation items(List<String> navigations) {
        var restricted = new ArrayList<CsdlExpression>();
        for (var name : navigations) {
            restricted.add(
                    record(
                            value(
                                    "NavigationProperty",
                                    new CsdlConstantExpression(
                                            ConstantExpressionType.String, name)),
                            value("InsertRestrictions", record(value("Insertable", bool(false)))),
                            value("UpdateRestrictions", record(value("Updatable", bool(false)))),
                            value("DeleteRestrictions", record(value("Deletable", bool(false)))),
                            value("FilterRestrictions", record(value("Filterable", bool(false)))),
                            value("SortRestrictions", record(value("Sortable", bool(false)))),
                            value("SearchRestrictions", record(value("Searchable", bool(false))))));
        }
        return of(
                CAPABILITIES + ".NavigationRestrictions",
                record(value("RestrictedProperties", new CsdlCollection().setItems(restricted))));
    }

    /** What the service as a whole can and cannot do. */
    static List<CsdlAnnotation> ofService() {
        var functions = new ArrayList<CsdlExpression>();
        FILTER_FUNCTIONS.forEach(name -> functions.add(string(name)));
        return List.of(
                of(
                        CAPABILITIES + ".ConformanceLevel",
                        new CsdlConstantExpression(
                                ConstantExpressionType.EnumMember,
                                CAPABILITIES + ".ConformanceLevelType/Minimal")),
                of(CAPABILITIES + ".FilterFunctions", new CsdlCollection().setItems(functions)),
                of(
                        CAPABILITIES + ".BatchSupport",
                        record(
                                value("Supported", bool(true)),
                                value("ContinueOnErrorSupported", bool(true)),
                                value("ReferencesInRequestBodiesSupported", bool(false)),
                                value("ReferencesAcrossChangeSetsSupported", bool(false)),
                                value("EtagReferencesSupported", bool(false)),
                                value("RequestDependencyConditionsSupported", bool(false)),
                                value(
                                        "SupportedFormats",
                                        new CsdlCollection()
                                                .setItems(
                                                        List.of(
                                                                string("multipart/mixed"),
                                                                string("application/json")))))),
                flag(CAPABILITIES + ".KeyAsSegmentSupported", false),
                flag(CAPABILITIES + ".AsynchronousRequestsSupported", false),
                flag(CAPABILITIES + ".CrossJoinSupported", false));
    }

    private static CsdlPropertyValue value(String property, CsdlExpression value) {
        return new CsdlPropertyValue().setProperty(property).setValue(value);
    }

    private static CsdlRecord record(CsdlPropertyValue... values) {
        var record = new CsdlRecord();
        record.setPropertyValues(List.of(values));
        return record;
    }

    private static CsdlAnnotation text(String term, String text) {
        return of(term, string(text));
    }

    private static CsdlAnnotation flag(String term, boolean value) {
        return of(term, bool(value));
    }

    private static CsdlConstantExpression string(String text) {
        return new CsdlConstantExpression(ConstantExpressionType.String, text);
    }

    private static CsdlConstantExpression bool(boolean value) {
        return new CsdlConstantExpression(ConstantExpressionType.Bool, String.valueOf(value));
    }

    private static CsdlAnnotation of(String term, CsdlExpression expression) {
        return new CsdlAnnotation().setTerm(term).setExpression(expression);
    }
}

package sandpiper.server.manage.draft;

import jakarta.validation.constraints.NotNull;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.logic.assist.TextKind;
import sandpiper.logic.check.NameContext;
import sandpiper.model.logic.NameContexts;
import sandpiper.model.release.ObjectFunctionType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Part;
import sandpiper.model.release.Release;
import sandpiper.model.type.FieldType;
import sandpiper.server.problem.ProblemException;

/**
 * A logic text with what it is written about.
 *
 * @param object whose record it is about, or {@code null} when it stands alone
 * @param part whose line items it is about, or {@code null}
 * @param field the reference whose offer it is, or the function, handler or schedule it belongs to;
 *     {@code null} for none
 */
public record LogicRequest(
        @NotNull Role role,
        @Nullable String object,
        @Nullable String part,
        @Nullable String field,
        @NotNull String text) {

    /** What a text is for. */
    public enum Role {
        EXPRESSION,
        FORMULA,
        CONDITION,
        OFFER,
        CHECK,
        WHEN,
        THEN,
        SAY,
        BODY,
        HANDLER_WHEN,
        HANDLER_THEN,
        SCHEDULE_WHERE,
        SCHEDULE_THEN
    }

    TextKind kind() {
        return switch (role) {
            case EXPRESSION, FORMULA -> TextKind.EXPRESSION;
            case CONDITION, OFFER, CHECK, WHEN, HANDLER_WHEN, SCHEDULE_WHERE -> TextKind.CONDITION;
            case THEN, BODY, HANDLER_THEN, SCHEDULE_THEN -> TextKind.STEPS;
            case SAY -> TextKind.MESSAGE;
        };
    }

    public NameContext setting(Release release) {
        var type = objectIn(release);
        if (type.isEmpty()) {
            return NameContext.ALONE;
        }
        var owner = type.get();
        var itsPart = partIn(owner).orElse(null);
        return switch (role) {
            case EXPRESSION, FORMULA, CONDITION, SCHEDULE_WHERE, SCHEDULE_THEN ->
                    NameContexts.of(release, owner, itsPart);
            case OFFER -> offer(release, owner, itsPart);
            case BODY ->
                    function(release)
                            .map(one -> NameContexts.ofFunction(release, owner, one))
                            .orElseGet(() -> NameContexts.of(release, owner, null));
            case HANDLER_WHEN, HANDLER_THEN -> ofHandler(release, owner);
            case CHECK, WHEN, THEN, SAY ->
                    itsPart == null
                            ? NameContexts.ofChange(release, owner)
                            : NameContexts.of(release, owner, itsPart);
        };
    }

    /** The function whose body it is, when its parameters can be read. */
    Optional<ObjectFunctionType> function(Release release) {
        if (role != Role.BODY || field == null) {
            return Optional.empty();
        }
        var name = field;
        return objectIn(release)
                .flatMap(owner ->
                        owner.function(name)
                                .map(one -> ObjectFunctionType.of(release, owner, one)));
    }

    private NameContext ofHandler(Release release, ObjectType owner) {
        return owner.handlers().stream()
                .filter(one -> one.name().equals(field))
                .findFirst()
                .map(one -> {
                    var events =
                            one.on().stream()
                                    .flatMap(name -> release.event(name).stream())
                                    .toList();
                    return NameContexts.ofHandler(release, owner, one, events);
                })
                .orElseGet(() -> NameContexts.of(release, owner, null));
    }

    private NameContext offer(Release release, ObjectType owner, @Nullable Part itsPart) {
        var fields = itsPart == null ? owner.fields() : itsPart.fields();
        var reference = field == null ? null : fields.find(field).orElse(null);
        return reference != null && reference.type() instanceof FieldType.Reference to
                ? NameContexts.ofOffer(release, owner, itsPart, release.target(to))
                : NameContexts.of(release, owner, itsPart);
    }

    Optional<ObjectType> objectIn(Release release) {
        if (object == null || object.isBlank()) {
            return Optional.empty();
        }
        return Optional.of(
                release.find(object)
                        .orElseThrow(() ->
                                new ProblemException(
                                        HttpStatus.NOT_FOUND,
                                        "There is no object %s.".formatted(object))));
    }

    private Optional<Part> partIn(ObjectType owner) {
        return part == null ? Optional.empty() : owner.part(part);
    }
}

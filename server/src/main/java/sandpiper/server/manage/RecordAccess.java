package sandpiper.server.manage;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectAccess;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.Leave;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.type.RecordType;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.type.TextType;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.service.FeelText;

/** What somebody may do with the records of an object, put to work on requests. */
record RecordAccess(Actor actor, LiveRelease live, ObjectType type, ObjectAccess rights) {

    static RecordAccess of(Actor actor, LiveRelease live, ObjectType type) {
        return new RecordAccess(actor, live, type, actor.on(type.name()));
    }

    /** Lets only those go on who may do something with at least some of the records. */
    RecordAccess require(Action action) {
        scope(action);
        return this;
    }

    /**
     * The records an action reaches.
     *
     * @throws ProblemException when the action is not granted at all
     */
    RecordScope scope(Action action) {
        return rights.scope(action)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.FORBIDDEN,
                                "Your roles do not let you %s %s."
                                        .formatted(
                                                action.name().toLowerCase(Locale.ROOT),
                                                type.plural())));
    }

    /** The fields that are seen. */
    FieldTree seen() {
        return rights.seen(live.release().everythingOf(type));
    }

    /** The fields that can be given. */
    FieldTree writable() {
        return rights.writable(live.release().everythingOf(type));
    }

    /** The fields that can be given to a new record. */
    FieldTree givable() {
        return rights.givable(live.release().everythingOf(type));
    }

    /** Whether records are seen at all. */
    boolean sees() {
        return rights.may(Action.VIEW);
    }

    /** Words to look for, in what is seen only; {@code null} when a plain search does that. */
    @Nullable Condition search(Engine engine, @Nullable String words) {
        return words == null || words.isBlank() || !searchesByCondition()
                ? null
                : engine.records().condition(live, type, RecordScope.ALL.and(searchText(words)));
    }

    /** What may be named in a filter or sort. */
    RecordType filterable() {
        var whole = live.release().recordType(type);
        return actor.seesEverything() ? whole : new VisibleRecordType(whole, actor);
    }

    /** The names of fields that are seen. */
    List<String> names() {
        return type.fields().names().stream()
                .filter(name -> !rights.hidden().contains(name))
                .toList();
    }

    /** Whether a search over all texts would look into what is not seen. */
    boolean searchesByCondition() {
        return !rights.hidden().isEmpty();
    }

    /**
     * Words to look for, as a condition over the texts that are seen; without any, none is found.
     */
    String searchText(String words) {
        var texts =
                type.fields().stream()
                        .filter(field -> names().contains(field.name()))
                        .filter(field -> field.type() instanceof TextType && !field.onRead())
                        .flatMap(field -> FeelText.texts(field.name(), (TextType) field.type()))
                        .toList();
        if (texts.isEmpty()) {
            return "createdAt = null";
        }
        var conditions = new ArrayList<String>();
        for (var word : words.strip().toLowerCase(Locale.ROOT).split("\\s+", 8)) {
            conditions.add(FeelText.anyHas(texts, word));
        }
        return String.join(" and ", conditions);
    }

    /** A command within what is granted. */
    Request request(RecordCommand command, String via, boolean traced) {
        return new Request(
                command,
                actor,
                via,
                true,
                traced,
                null,
                before(command),
                after(command),
                false,
                Leave.NONE);
    }

    private RecordScope before(RecordCommand command) {
        return switch (command) {
            case RecordCommand.Create _ -> {
                require(Action.CREATE);
                yield RecordScope.ALL;
            }
            case RecordCommand.Remove _, RecordCommand.Restore _ -> scope(Action.RETIRE);
            case RecordCommand.Save _ -> require(Action.CREATE).scope(Action.EDIT);
            case RecordCommand.Change _, RecordCommand.Transit _, RecordCommand.Call _ ->
                    scope(Action.EDIT);
        };
    }

    private RecordScope after(RecordCommand command) {
        return switch (command) {
            case RecordCommand.Create _ -> scope(Action.CREATE);
            case RecordCommand.Save _ -> scope(Action.CREATE).and(scope(Action.EDIT));
            case RecordCommand.Change _ -> scope(Action.EDIT);
            case RecordCommand.Transit _,
                    RecordCommand.Call _,
                    RecordCommand.Remove _,
                    RecordCommand.Restore _ ->
                    RecordScope.ALL;
        };
    }

    /** Whether people may be told what a linked record is called. */
    boolean tells(@Nullable ObjectType target) {
        if (target == null) {
            return false;
        }
        var there = actor.on(target.name());
        return there.seesAll()
                && target.titleField()
                        .filter(title -> !there.hidden().contains(title.name()))
                        .isPresent();
    }
}

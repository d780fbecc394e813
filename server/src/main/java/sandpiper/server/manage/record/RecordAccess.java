package sandpiper.server.manage.record;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.ObjectAccess;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.RecordCommand;
import sandpiper.engine.command.Request;
import sandpiper.engine.release.LiveRelease;
import sandpiper.engine.service.OpenedObject;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.type.RecordType;
import sandpiper.model.release.FieldTree;
import sandpiper.model.release.ObjectType;
import sandpiper.model.type.TextType;
import sandpiper.server.service.FeelText;

/** What somebody may do with the records of an object, put to work on requests. */
public record RecordAccess(LiveRelease live, OpenedObject opened) {

    public static RecordAccess of(Actor actor, LiveRelease live, ObjectType type) {
        return new RecordAccess(live, OpenedObject.of(live.release(), actor, type));
    }

    Actor actor() {
        return opened.actor();
    }

    ObjectType type() {
        return opened.type();
    }

    ObjectAccess rights() {
        return opened.rights();
    }

    /** Lets only those go on who may do something with at least some of the records. */
    RecordAccess require(Action action) {
        opened.require(action);
        return this;
    }

    /** The records an action reaches. */
    public RecordScope scope(Action action) {
        return opened.scope(action);
    }

    /** The fields that are seen. */
    FieldTree seen() {
        return opened.seen();
    }

    /** The fields that can be given. */
    FieldTree writable() {
        return opened.writable();
    }

    /** The fields that can be given to a new record. */
    FieldTree givable() {
        return opened.givable();
    }

    /** Whether records are seen at all. */
    boolean sees() {
        return opened.sees();
    }

    /** Words to look for, in what is seen only; {@code null} when a plain search does that. */
    @Nullable Condition search(Engine engine, @Nullable String words) {
        return words == null || words.isBlank() || !searchesByCondition()
                ? null
                : engine.records().condition(live, type(), RecordScope.ALL.and(searchText(words)));
    }

    /** What may be named in a filter or sort. */
    RecordType filterable() {
        var whole = live.release().recordType(type());
        return actor().seesEverything() ? whole : new VisibleRecordType(whole, actor());
    }

    /** The names of fields that are seen. */
    List<String> names() {
        return type().fields().names().stream()
                .filter(name -> !rights().hidden().contains(name))
                .toList();
    }

    /** Whether a search over all texts would look into what is not seen. */
    boolean searchesByCondition() {
        return !rights().hidden().isEmpty();
    }

    /**
     * Words to look for, as a condition over the texts that are seen; without any, none is found.
     */
    String searchText(String words) {
        var texts =
                type().fields().stream()
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
        return opened.request(command, via, traced);
    }

    /** Whether people may be told what a linked record is called. */
    boolean tells(@Nullable ObjectType target) {
        return opened.tells(target);
    }
}

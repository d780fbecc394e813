package sandpiper.engine.work;

import org.jspecify.annotations.Nullable;
import sandpiper.engine.record.StoredRecord;
import sandpiper.logic.type.Member;
import sandpiper.logic.value.Moment;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.model.release.Codec;
import sandpiper.model.release.Field;
import sandpiper.model.release.ModelMember;

/**
 * A record as logic sees it: as it is now, or as it was at some moment when it has values of its
 * own.
 */
public final class LogicRecord implements RecordValue {
    private final Workspace workspace;
    private final RecordState state;
    private final @Nullable Object[] values;

    public LogicRecord(Workspace workspace, RecordState state, @Nullable Object[] values) {
        this.workspace = workspace;
        this.state = state;
        this.values = values;
    }

    public RecordState state() {
        return state;
    }

    private boolean isCurrent() {
        return values == state.slots().values();
    }

    @Override
    public Object read(Member member) {
        return switch ((ModelMember) member) {
            case ModelMember.OfField field ->
                    workspace.value(state.object(), field.field(), stored(field.field()));
            case ModelMember.OfLanguage language ->
                    Codec.inLanguage(stored(language.of().field()), language.place());
            case ModelMember.OfPart part ->
                    state.items(part.part()).stream()
                            .<Object>map(item -> item.logic(workspace))
                            .toList();
            case ModelMember.Related related -> workspace.related(state, related);
            case ModelMember.OfEveryRecord own -> ofEveryRecord(own.kind());
            case ModelMember.Line _ -> Nothing.NULL;
        };
    }

    private @Nullable Object stored(Field field) {
        return field.onRead() ? workspace.workedOut(state, field) : values[field.index()];
    }

    private Object ofEveryRecord(ModelMember.OfEveryRecord.Kind kind) {
        var stored = state.stored();
        return switch (kind) {
            case CREATED_AT -> moment(stored == null ? workspace.now() : stored.createdAt());
            case CHANGED_AT -> moment(stored == null ? workspace.now() : stored.changedAt());
            case CREATED_BY -> stored == null ? workspace.by() : stored.createdBy();
            case CHANGED_BY -> stored == null ? workspace.by() : by(stored);
            case RETIRED -> isCurrent() ? state.isRetired() : stored != null && stored.retired();
        };
    }

    private static Object by(StoredRecord stored) {
        return stored.changedBy();
    }

    private Moment moment(java.time.Instant instant) {
        return Moment.of(instant, state.object().zone());
    }

    @Override
    public Object read(String member) {
        return workspace
                .release()
                .recordType(state.object())
                .member(member)
                .map(this::read)
                .orElse(Nothing.NULL);
    }

    @Override
    public String object() {
        return state.object().name();
    }

    @Override
    public String written() {
        return state.keyText();
    }

    /** Its number in the tables, which it gets now when it has none yet. */
    @Override
    public long number() {
        return workspace.numberOf(state);
    }

    /** Two are equal when they are the same record, whenever they were looked at. */
    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof LogicRecord that && that.state == state;
    }

    @Override
    public int hashCode() {
        return System.identityHashCode(state);
    }

    @Override
    public String toString() {
        return written();
    }
}

package sandpiper.engine.work;

import org.jspecify.annotations.Nullable;
import sandpiper.logic.type.Member;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;
import sandpiper.model.release.Codec;
import sandpiper.model.release.Field;
import sandpiper.model.release.ModelMember;

/** A line item as logic sees it. */
public final class LogicItem implements RecordValue {
    private final Workspace workspace;
    private final ItemState item;

    LogicItem(Workspace workspace, ItemState item) {
        this.workspace = workspace;
        this.item = item;
    }

    public ItemState item() {
        return item;
    }

    @Override
    public Object read(Member member) {
        return switch ((ModelMember) member) {
            case ModelMember.OfField field ->
                    workspace.value(item.record().object(), field.field(), stored(field.field()));
            case ModelMember.OfLanguage language ->
                    Codec.inLanguage(stored(language.of().field()), language.place());
            case ModelMember.Line _ -> item.line() == 0 ? Nothing.NULL : Decimal.of(item.line());
            default -> Nothing.NULL;
        };
    }

    private @Nullable Object stored(Field field) {
        return field.onRead() ? workspace.workedOut(item, field) : item.slots().get(field);
    }

    @Override
    public Object read(String member) {
        return workspace
                .release()
                .recordType(item.record().object())
                .part(item.part())
                .member(member)
                .map(this::read)
                .orElse(Nothing.NULL);
    }

    @Override
    public String object() {
        return item.part().name();
    }

    @Override
    public String written() {
        int at = item.record().items(item.part()).indexOf(item);
        return "%s %d".formatted(item.part().label(), at + 1);
    }

    @Override
    public long number() {
        return item.line();
    }
}

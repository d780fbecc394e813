package sandpiper.engine.outside;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.outside.Reply.Entry;

/** Answers in the form in which they are kept: texts, numbers, booleans, maps and lists alone. */
final class KeptForm {
    private KeptForm() {}

    static Object written(Object plain) {
        return switch (plain) {
            case Entry(var code, var label) -> List.of(code, label);
            case List<?> list when !list.isEmpty() && list.getFirst() instanceof Entry ->
                    list.stream().map(one -> written((Entry) one)).toList();
            default -> plain;
        };
    }

    static @Nullable Object read(Ask.Kind kind, Object kept) {
        return switch (kind) {
            case CALL -> kept;
            case ENTRY -> entry(kept);
            case ENTRIES -> ((List<?>) kept).stream().map(KeptForm::entry).toList();
        };
    }

    private static Entry entry(Object kept) {
        var pair = (List<?>) kept;
        return new Entry(String.valueOf(pair.get(0)), String.valueOf(pair.get(1)));
    }
}

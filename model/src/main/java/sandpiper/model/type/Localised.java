package sandpiper.model.type;

import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * A text in several languages: one entry for each language of the type, {@code null} where there is
 * none.
 */
public final class Localised {
    private final @Nullable String[] texts;

    /** Takes one text for each language, in the order of the type's languages. */
    public Localised(List<? extends @Nullable String> texts) {
        this.texts = texts.toArray(new String[0]);
    }

    /** The text in a language by its place, or {@code null} when there is none. */
    public @Nullable String text(int language) {
        return texts[language];
    }

    /** The same with another text in one language; {@code null} takes it away. */
    public Localised with(int language, @Nullable String text) {
        var changed = Arrays.asList(texts.clone());
        changed.set(language, text);
        return new Localised(changed);
    }

    /** Whether there is a text in no language. */
    public boolean isEmpty() {
        return Arrays.stream(texts).allMatch(Objects::isNull);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Localised that && Arrays.equals(texts, that.texts);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(texts);
    }
}

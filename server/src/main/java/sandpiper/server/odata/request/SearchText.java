package sandpiper.server.odata.request;

import java.util.List;
import org.apache.olingo.server.api.uri.queryoption.search.SearchBinary;
import org.apache.olingo.server.api.uri.queryoption.search.SearchBinaryOperatorKind;
import org.apache.olingo.server.api.uri.queryoption.search.SearchExpression;
import org.apache.olingo.server.api.uri.queryoption.search.SearchTerm;
import org.apache.olingo.server.api.uri.queryoption.search.SearchUnary;
import sandpiper.model.release.FieldTree;
import sandpiper.model.type.TextType;
import sandpiper.server.service.FeelText;

/**
 * Writes {@code $search} as a condition in FEEL: a word is found when a text that the query shows
 * has it, in capital or small letters. What is not shown is not searched.
 */
public final class SearchText {
    private final List<String> texts;

    private SearchText(List<String> texts) {
        this.texts = texts;
    }

    public static String of(FieldTree shown, SearchExpression search) {
        var texts =
                shown.paths().stream()
                        .filter(path ->
                                path.last().type() instanceof TextType && !path.last().onRead())
                        .flatMap(path ->
                                FeelText.texts(path.written(), (TextType) path.last().type()))
                        .toList();
        if (texts.isEmpty()) {
            throw Refusals.notOffered("There is no text to search here; use $filter.");
        }
        return new SearchText(texts).write(search);
    }

    private String write(SearchExpression search) {
        return switch (search) {
            case SearchTerm term -> FeelText.anyHas(texts, term.getSearchTerm());
            case SearchBinary both ->
                    "(%s %s %s)"
                            .formatted(
                                    write(both.getLeftOperand()),
                                    both.getOperator() == SearchBinaryOperatorKind.AND
                                            ? "and"
                                            : "or",
                                    write(both.getRightOperand()));
            case SearchUnary not -> "not(%s)".formatted(write(not.getOperand()));
            default -> throw Refusals.bad("$search cannot be understood.");
        };
    }
}

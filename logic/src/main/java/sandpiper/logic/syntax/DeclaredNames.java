package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Names of several words or with signs in them, as FEEL has them (DMN 1.5 §10.3.1.2, grammar rules
 * 25 to 30): {@code full name}, {@code owner's}, {@code red/green}. They are known because the text
 * itself gives them to an entry of a context, a parameter or an item; where one of them is meant,
 * the longest wins.
 *
 * <p>Whether a sign belongs to a name or is an operation depends on which names can be used at a
 * place: an entry in the entries behind it, a parameter in its function. Behind a point and inside
 * a filter every name of the text may be meant.
 */
final class DeclaredNames {
    private static final Set<String> SIGNS = Set.of(".", "/", "-", "+", "*");
    private static final int LONGEST = 12;

    private final List<Token> tokens;
    private final Map<String, List<Part>> all = new LinkedHashMap<>();
    private final Map<String, Integer> visible = new HashMap<>();
    private int filters;

    /** A piece of a name, and whether space stands before it. */
    private record Part(String text, boolean spaced) {}

    DeclaredNames(List<Token> tokens) {
        this.tokens = tokens;
        for (int i = 0; i + 1 < tokens.size(); i++) {
            if (tokens.get(i).is("{") || tokens.get(i).is(",") || tokens.get(i).is("<")) {
                declare(i + 1, ":");
            } else if (tokens.get(i).isWord("function") && tokens.get(i + 1).is("(")) {
                declareParameters(i + 2);
            }
        }
    }

    private void declareParameters(int from) {
        int at = from;
        while (at < tokens.size()) {
            int end = declare(at, ":", ",", ")");
            at = end;
            // Behind a colon stands a type, with brackets of its own.
            while (at < tokens.size()
                    && !tokens.get(at).is(",")
                    && !tokens.get(at).is(")")
                    && tokens.get(at).kind() != Token.Kind.END) {
                at++;
            }
            if (at >= tokens.size() || !tokens.get(at).is(",")) {
                return;
            }
            at++;
        }
    }

    /** Takes a name of several tokens in that ends before one of some symbols; says where. */
    private int declare(int from, String... ends) {
        int length = length(from, ends);
        if (length > 1) {
            all.put(written(from, length), parts(from, length));
        } else if (length == 1 && tokens.get(from).kind() == Token.Kind.TEXT) {
            var words = new Lexer(tokens.get(from).text(), new ArrayList<>()).tokens();
            var inside = new DeclaredNames(words, words.size() - 1);
            all.putAll(inside.all);
        }
        return from + Math.max(length, 0);
    }

    private DeclaredNames(List<Token> words, int length) {
        this.tokens = words;
        if (length > 1) {
            all.put(written(0, length), parts(0, length));
        }
    }

    /**
     * How many tokens from a place make a name that ends before one of some symbols; 0 when they
     * make none.
     */
    int length(int from, String... ends) {
        for (int i = 0; i < LONGEST && from + i < tokens.size(); i++) {
            var token = tokens.get(from + i);
            for (var end : ends) {
                if (i > 0 && token.is(end)) {
                    return i;
                }
            }
            boolean fits =
                    token.kind() == Token.Kind.NAME
                            || (i == 0 && token.kind() == Token.Kind.TEXT)
                            || (i > 0
                                    && (token.kind() == Token.Kind.NUMBER
                                            || (token.kind() == Token.Kind.SYMBOL
                                                    && SIGNS.contains(token.text()))));
            if (!fits || (i > 0 && tokens.get(from).kind() == Token.Kind.TEXT)) {
                return 0;
            }
        }
        return 0;
    }

    private List<Part> parts(int from, int length) {
        var parts = new ArrayList<Part>();
        for (int i = 0; i < length; i++) {
            parts.add(new Part(tokens.get(from + i).text(), i > 0 && isSpaced(from + i)));
        }
        return parts;
    }

    private boolean isSpaced(int at) {
        return tokens.get(at).span().start() > tokens.get(at - 1).span().end();
    }

    /** Tokens as one name, with one space where there is any. */
    String written(int from, int length) {
        var text = new StringBuilder();
        for (var part : parts(from, length)) {
            text.append(part.spaced() ? " " : "").append(part.text());
        }
        return text.toString();
    }

    /** Makes a name one that can be used from here on. */
    void show(String name) {
        if (all.containsKey(name)) {
            visible.merge(name, 1, Integer::sum);
        }
    }

    /** Ends what {@link #show} began. */
    void hide(String name) {
        visible.computeIfPresent(name, (_, count) -> count == 1 ? null : count - 1);
    }

    void enterFilter() {
        filters++;
    }

    void leaveFilter() {
        filters--;
    }

    /** How many tokens from a place make the longest name that can be used there; 0 for none. */
    int usedAt(int from) {
        return longest(from, filters > 0);
    }

    /** The same behind a point, where every name of the text may be meant. */
    int memberAt(int from) {
        return longest(from, true);
    }

    private int longest(int from, boolean any) {
        if (all.isEmpty()) {
            return 0;
        }
        return all.entrySet().stream()
                .filter(name -> any || visible.containsKey(name.getKey()))
                .filter(name -> isAt(name.getValue(), from))
                .map(name -> name.getValue().size())
                .max(Integer::compare)
                .orElse(0);
    }

    private boolean isAt(List<Part> parts, int from) {
        if (from + parts.size() > tokens.size()) {
            return false;
        }
        for (int i = 0; i < parts.size(); i++) {
            var token = tokens.get(from + i);
            boolean same =
                    (token.kind() == Token.Kind.NAME
                                    || token.kind() == Token.Kind.SYMBOL
                                    || token.kind() == Token.Kind.NUMBER)
                            && token.text().equals(parts.get(i).text())
                            && (i == 0 || isSpaced(from + i) == parts.get(i).spaced());
            if (!same) {
                return false;
            }
        }
        return true;
    }
}

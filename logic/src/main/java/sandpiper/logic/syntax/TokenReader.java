package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;

/**
 * The words of a text with a place among them, and what to do when one has no place: it is
 * reported, once, and reading goes on behind the next word at which things fall into step again. So
 * several mistakes in one text are each found.
 */
final class TokenReader {
    private static final Set<String> CLOSING = Set.of(")", "]", "}", ",", ":");
    private static final Set<String> RESUMING =
            Set.of("and", "or", "then", "else", "return", "satisfies", "end");

    private final List<Token> tokens;
    private final List<LogicProblem> problems;
    private final Set<String> lineWords;
    private final DeclaredNames names;
    private int at;
    private int lastReported = -1;
    private boolean silent;

    /**
     * Cuts a text.
     *
     * @param lineWords words that begin something new when they begin a line
     */
    TokenReader(String source, List<LogicProblem> problems, Set<String> lineWords) {
        this.problems = problems;
        this.tokens = new Lexer(source, problems).tokens();
        this.lineWords = lineWords;
        this.names = new DeclaredNames(tokens);
    }

    /** Names of several words, or with signs in them, that the text gives to something. */
    DeclaredNames names() {
        return names;
    }

    /** How many tokens from here make a name that can be used here; 0 when it is a plain one. */
    int wordsOfName() {
        return names.usedAt(at);
    }

    /** The same behind a point. */
    int wordsOfMember() {
        return names.memberAt(at);
    }

    /** How many tokens from here make a name before one of some symbols; 0 for none. */
    int wordsBefore(String... ends) {
        return names.length(at, ends);
    }

    /** Whether no space stands between some tokens from here. */
    boolean isUnbroken(int words) {
        for (int i = 1; i < words; i++) {
            if (ahead(i).span().start() > ahead(i - 1).span().end()) {
                return false;
            }
        }
        return true;
    }

    /** Takes some tokens as one name. */
    String name(int words) {
        var name = names.written(at, words);
        at = Math.min(at + words, tokens.size() - 1);
        return name;
    }

    Token now() {
        return tokens.get(at);
    }

    Token ahead(int count) {
        return tokens.get(Math.min(at + count, tokens.size() - 1));
    }

    /** The token read last. */
    Token last() {
        return tokens.get(Math.max(0, at - 1));
    }

    Token next() {
        var token = now();
        if (token.kind() != Token.Kind.END) {
            at++;
        }
        return token;
    }

    boolean atEnd() {
        return now().kind() == Token.Kind.END;
    }

    boolean accept(String symbol) {
        if (now().is(symbol)) {
            at++;
            return true;
        }
        return false;
    }

    boolean acceptWord(String word) {
        if (now().isWord(word)) {
            at++;
            return true;
        }
        return false;
    }

    /** Takes a symbol that must stand here. */
    void expect(String symbol) {
        if (accept(symbol)) {
            return;
        }
        unexpected('"' + symbol + '"');
        accept(symbol);
    }

    /** Takes a word that must stand here; tells whether it did. */
    boolean expectWord(String word) {
        if (acceptWord(word)) {
            return true;
        }
        unexpected('"' + word + '"');
        return acceptWord(word);
    }

    /** Takes a name that must stand here; {@code null} when there is none. */
    @Nullable Token expectName(String wanted) {
        if (now().kind() == Token.Kind.NAME) {
            return next();
        }
        unexpected(wanted);
        return null;
    }

    /** Goes to the end and reports nothing more: behind this, nothing can be told apart. */
    void giveUp() {
        silent = true;
        at = tokens.size() - 1;
    }

    /** Whether the square bracket here has one that closes it. */
    boolean isClosed() {
        int level = 0;
        for (int i = at; i < tokens.size(); i++) {
            if (tokens.get(i).is("[")) {
                level++;
            } else if (tokens.get(i).is("]") && --level == 0) {
                return true;
            }
        }
        return false;
    }

    /** How many tokens from here are the first of some names that matches; 0 for none. */
    int wordsOf(List<List<String>> names, int from) {
        for (var name : names) {
            boolean matches = true;
            for (int i = 0; i < name.size() && matches; i++) {
                matches = ahead(from + i).isWord(name.get(i));
            }
            if (matches) {
                return name.size();
            }
        }
        return 0;
    }

    /** Takes some words and joins them by spaces. */
    String joined(int words) {
        var parts = new ArrayList<String>();
        for (int i = 0; i < words; i++) {
            parts.add(next().text());
        }
        return String.join(" ", parts);
    }

    /** Reports what stands here and goes to where reading can go on. */
    Expr unexpected(String wanted) {
        var token = now();
        if (!silent && at != lastReported && !isReported(token.span())) {
            problems.add(
                    new LogicProblem(
                            LogicCode.UNEXPECTED_TOKEN, token.span(), message(token, wanted)));
        }
        lastReported = at;
        skip();
        lastReported = at;
        return new Expr.Unreadable(token.span());
    }

    private boolean isReported(Span span) {
        return problems.stream()
                .anyMatch(problem ->
                        (problem.span().end() == span.start() && problem.span().end() > 0)
                                || problem.span().equals(span));
    }

    private static String message(Token token, String wanted) {
        if (token.kind() == Token.Kind.END) {
            return "This stops too early; expected " + wanted + ".";
        }
        var hint =
                switch (token.text()) {
                    case "==" -> " Write = for equal.";
                    case "<>" -> " Write != for not equal.";
                    case "&&", "&" -> " Write and.";
                    case "||", "|" -> " Write or.";
                    default -> "";
                };
        return "Expected %s, but found %s.%s".formatted(wanted, Quoted.of(token.text()), hint);
    }

    private void skip() {
        int level = 0;
        while (!atEnd()) {
            var token = now();
            if (level == 0 && resumesAt(token)) {
                return;
            }
            if (token.is("(") || token.is("[") || token.is("{")) {
                level++;
            } else if (token.is(")") || token.is("]") || token.is("}")) {
                level--;
            }
            at++;
        }
    }

    private boolean resumesAt(Token token) {
        return switch (token.kind()) {
            case SYMBOL -> CLOSING.contains(token.text());
            case NAME -> RESUMING.contains(token.text()) || beginsLine(token);
            default -> false;
        };
    }

    /** Whether something new begins here, so that what came before is over. */
    boolean beginsLine(Token token) {
        return token.startsLine() && lineWords.contains(token.text());
    }

    /** Goes on to the next token that begins something new, or to the end. */
    void skipToLineWord() {
        while (!atEnd() && !beginsLine(now())) {
            at++;
        }
    }

    /**
     * Whether the round bracket here opens a range: its matching bracket is found with {@code ..}
     * directly inside.
     */
    boolean isOpenRange() {
        int level = 0;
        for (int i = at; i < tokens.size(); i++) {
            var token = tokens.get(i);
            if (token.is("(") || token.is("[") || token.is("{")) {
                level++;
            } else if (token.is(")") || token.is("]") || token.is("}")) {
                if (--level == 0) {
                    return false;
                }
            } else if (token.is("..") && level == 1) {
                return !hasWordIn(at, i);
            } else if (token.is(",") && level == 1) {
                return false;
            }
        }
        return false;
    }

    /** Whether {@code in} stands in between, so that the dots belong to an iteration. */
    private boolean hasWordIn(int from, int to) {
        return tokens.subList(from, to).stream().anyMatch(token -> token.isWord("in"));
    }
}

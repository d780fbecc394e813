package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Quoted;
import sandpiper.logic.Span;

/**
 * Cuts text into tokens, DMN 1.5 §10.3.1.2. Characters that mean nothing are reported and left out.
 */
final class Lexer {
    private static final Set<String> TWO_CHARACTER_SYMBOLS =
            Set.of("<=", ">=", "!=", "..", "**", "->");

    /** How other languages write what is written differently here. */
    private static final Map<String, String> FOREIGN = Map.of("==", "=", "&&", "and", "||", "or");

    private static final String SYMBOLS = "<>=()[]{},.+-*/:?";

    private final int[] text;
    private final List<LogicProblem> problems;
    private final List<Token> tokens = new ArrayList<>();
    private int at;
    private boolean lineStart = true;

    Lexer(String source, List<LogicProblem> problems) {
        this.text = source.codePoints().toArray();
        this.problems = problems;
    }

    List<Token> tokens() {
        while (true) {
            skipSpaceAndComments();
            if (at >= text.length) {
                tokens.add(new Token(Token.Kind.END, "", new Span(text.length, text.length), true));
                return tokens;
            }
            next();
            lineStart = false;
        }
    }

    private void next() {
        int c = text[at];
        if (isDigit(c) || (c == '.' && isDigit(peek(1)))) {
            number();
        } else if (c == '"') {
            text(Token.Kind.TEXT, at);
        } else if (c == '@' && peek(1) == '"') {
            int start = at++;
            text(Token.Kind.TEMPORAL, start);
        } else if (isNameStart(c)) {
            int start = at;
            while (at < text.length && (isNamePart(text[at]) || isApostrophe())) {
                at++;
            }
            add(Token.Kind.NAME, written(start), start);
        } else {
            symbol(c);
        }
    }

    private void symbol(int c) {
        int start = at;
        var foreign = at + 1 < text.length ? FOREIGN.get(new String(text, at, 2)) : null;
        if (foreign != null) {
            at += 2;
            problems.add(
                    new LogicProblem(
                            LogicCode.UNEXPECTED_CHARACTER,
                            new Span(start, at),
                            "%s has no meaning here."
                                    .formatted(Quoted.of(new String(text, start, 2))),
                            foreign));
            // What it stands for is read on, so that it is the only thing said.
            add(foreign.equals("=") ? Token.Kind.SYMBOL : Token.Kind.NAME, foreign, start);
        } else if (at + 1 < text.length
                && TWO_CHARACTER_SYMBOLS.contains(new String(text, at, 2))) {
            at += 2;
            add(Token.Kind.SYMBOL, written(start), start);
        } else if (SYMBOLS.indexOf(c) >= 0) {
            at++;
            add(Token.Kind.SYMBOL, written(start), start);
        } else {
            at++;
            var hint = c == '\'' ? " Text goes in double quotes." : "";
            problems.add(
                    new LogicProblem(
                            LogicCode.UNEXPECTED_CHARACTER,
                            new Span(start, at),
                            "%s has no meaning here.%s"
                                    .formatted(Quoted.of(written(start)), hint)));
        }
    }

    private void number() {
        int start = at;
        while (isDigit(peek(0))) {
            at++;
        }
        if (peek(0) == '.' && isDigit(peek(1))) {
            at++;
            while (isDigit(peek(0))) {
                at++;
            }
        }
        if (peek(0) == 'e' || peek(0) == 'E') {
            int sign = peek(1) == '+' || peek(1) == '-' ? 2 : 1;
            if (isDigit(peek(sign))) {
                at += sign;
                while (isDigit(peek(0))) {
                    at++;
                }
            }
        }
        add(Token.Kind.NUMBER, written(start), start);
    }

    private void text(Token.Kind kind, int start) {
        var content = new StringBuilder();
        at++;
        while (at < text.length && text[at] != '"') {
            if (text[at] == '\\') {
                escape(content);
            } else {
                content.appendCodePoint(text[at++]);
            }
        }
        if (at >= text.length) {
            problems.add(
                    new LogicProblem(
                            LogicCode.UNFINISHED_TEXT,
                            new Span(start, at),
                            "This text has no closing double quote."));
        } else {
            at++;
        }
        tokens.add(new Token(kind, content.toString(), new Span(start, at), lineStart));
    }

    private void escape(StringBuilder content) {
        int start = at;
        int c = peek(1);
        at += 2;
        switch (c) {
            case 'n' -> content.append('\n');
            case 'r' -> content.append('\r');
            case 't' -> content.append('\t');
            case '"', '\\', '\'' -> content.appendCodePoint(c);
            case 'u' -> codePoint(start, 4, content);
            case 'U' -> codePoint(start, 6, content);
            default -> {
                at = Math.min(at, text.length);
                problems.add(
                        new LogicProblem(
                                LogicCode.UNEXPECTED_CHARACTER,
                                new Span(start, at),
                                "%s is not an escape; write \\\\ for a backslash."
                                        .formatted(Quoted.of(written(start)))));
            }
        }
    }

    private void codePoint(int start, int digits, StringBuilder content) {
        int end = Math.min(at + digits, text.length);
        var hex = new String(text, at, end - at);
        at = end;
        if (hex.length() == digits && hex.chars().allMatch(c -> Character.digit(c, 16) >= 0)) {
            int value = Integer.parseInt(hex, 16);
            if (Character.isValidCodePoint(value)) {
                content.appendCodePoint(value);
                return;
            }
        }
        problems.add(
                new LogicProblem(
                        LogicCode.UNEXPECTED_CHARACTER,
                        new Span(start, at),
                        "%s is not a character; \\u takes four and \\U six hexadecimal digits."
                                .formatted(Quoted.of(written(start)))));
    }

    private void skipSpaceAndComments() {
        while (at < text.length) {
            if (Character.isWhitespace(text[at]) || Character.isSpaceChar(text[at])) {
                lineStart |= text[at] == '\n';
                at++;
            } else if (text[at] == '/' && peek(1) == '/') {
                while (at < text.length && text[at] != '\n') {
                    at++;
                }
            } else if (text[at] == '/' && peek(1) == '*') {
                at += 2;
                while (at < text.length && !(text[at] == '*' && peek(1) == '/')) {
                    lineStart |= text[at] == '\n';
                    at++;
                }
                at = Math.min(at + 2, text.length);
            } else {
                return;
            }
        }
    }

    private void add(Token.Kind kind, String written, int start) {
        tokens.add(new Token(kind, written, new Span(start, at), lineStart));
    }

    private String written(int start) {
        return new String(text, start, at - start);
    }

    private int peek(int ahead) {
        return at + ahead < text.length ? text[at + ahead] : -1;
    }

    private static boolean isDigit(int c) {
        return c >= '0' && c <= '9';
    }

    /** One between two letters belongs to a name, as in {@code owner's}. */
    private boolean isApostrophe() {
        return (text[at] == '\'' || text[at] == '\u2019') && isNamePart(peek(1));
    }

    private static boolean isNameStart(int c) {
        return Character.isLetter(c) || c == '_' || (c > 0xFFFF && !Character.isWhitespace(c));
    }

    private static boolean isNamePart(int c) {
        return c >= 0 && (Character.isLetterOrDigit(c) || isNameStart(c));
    }
}

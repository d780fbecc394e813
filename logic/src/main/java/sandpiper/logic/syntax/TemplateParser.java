package sandpiper.logic.syntax;

import java.util.ArrayList;
import java.util.List;
import sandpiper.logic.LogicCode;
import sandpiper.logic.LogicProblem;
import sandpiper.logic.Span;

/** Reads messages: text with expressions in braces; two braces stand for one. */
public final class TemplateParser {
    private final int[] text;
    private final List<Expr> parts = new ArrayList<>();
    private final List<LogicProblem> problems = new ArrayList<>();
    private final StringBuilder literal = new StringBuilder();
    private int at;
    private int literalStart;

    private TemplateParser(String source) {
        this.text = source.codePoints().toArray();
    }

    /** Reads a message. Never throws on bad text. */
    public static ParsedTemplate parse(String source) {
        var tooLong = Parser.tooLong(source, Parser.LONGEST);
        if (tooLong != null) {
            return new ParsedTemplate(List.of(), List.of(tooLong), tooLong.span());
        }
        return new TemplateParser(source).parse();
    }

    private ParsedTemplate parse() {
        while (at < text.length) {
            int c = text[at];
            if ((c == '{' || c == '}') && at + 1 < text.length && text[at + 1] == c) {
                literal.appendCodePoint(c);
                at += 2;
            } else if (c == '{') {
                expression();
            } else {
                literal.appendCodePoint(c);
                at++;
            }
        }
        endLiteral();
        return new ParsedTemplate(parts, problems, new Span(0, text.length));
    }

    private void endLiteral() {
        if (!literal.isEmpty()) {
            parts.add(new Expr.TextLiteral(literal.toString(), new Span(literalStart, at)));
            literal.setLength(0);
        }
    }

    private void expression() {
        endLiteral();
        int open = at++;
        int end = closing();
        if (end < 0) {
            problems.add(
                    new LogicProblem(
                            LogicCode.UNFINISHED_TEXT,
                            new Span(open, text.length),
                            "This brace is never closed; write {{ for a brace itself."));
            at = text.length;
            return;
        }
        // Spaces before it keep every place what it is in the whole message.
        var padded = " ".repeat(at) + new String(text, at, end - at);
        var parsed = Parser.parse(padded);
        problems.addAll(parsed.problems());
        parts.add(parsed.expr());
        at = end + 1;
        literalStart = at;
    }

    /** The place of the brace that closes the one before {@code at}, or -1. */
    private int closing() {
        int level = 0;
        boolean quoted = false;
        for (int i = at; i < text.length; i++) {
            int c = text[i];
            if (c == '\\' && quoted) {
                i++;
            } else if (c == '"') {
                quoted = !quoted;
            } else if (!quoted && c == '{') {
                level++;
            } else if (!quoted && c == '}') {
                if (level == 0) {
                    return i;
                }
                level--;
            }
        }
        return -1;
    }
}

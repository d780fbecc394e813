package sandpiper.cli.common;

import java.util.Locale;
import sandpiper.model.Diagnostic;

/** A diagnostic with the line it is about and a mark under the place. */
public final class DiagnosticText {
    private DiagnosticText() {}

    public static String of(Diagnostic diagnostic, String text) {
        var said =
                new StringBuilder(
                        "%s:%d:%d: %s %s %s%n"
                                .formatted(
                                        diagnostic.file(),
                                        diagnostic.line(),
                                        diagnostic.column(),
                                        diagnostic.severity().name().toLowerCase(Locale.ROOT),
                                        diagnostic.code(),
                                        diagnostic.message()));
        var lines = text.lines().toList();
        if (diagnostic.line() <= lines.size()) {
            var line = lines.get(diagnostic.line() - 1);
            int end =
                    diagnostic.endLine() == diagnostic.line()
                            ? diagnostic.endColumn()
                            : line.codePointCount(0, line.length()) + 1;
            said.append("  | %s%n".formatted(line));
            said.append(
                    "  | %s%s%n"
                            .formatted(
                                    " ".repeat(diagnostic.column() - 1),
                                    "^".repeat(Math.max(1, end - diagnostic.column()))));
        }
        if (diagnostic.suggestion() != null) {
            said.append("  Did you mean %s?%n".formatted(diagnostic.suggestion()));
        }
        return said.toString();
    }
}

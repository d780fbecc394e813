package sandpiper.store.system;

import java.util.List;

/**
 * Lists of texts in one column: one on each line, with line breaks inside a text written as {@code
 * \n}.
 */
final class TextList {
    private TextList() {}

    static String write(List<String> texts) {
        return String.join(
                "\n",
                texts.stream()
                        .map(text -> text.replace("\\", "\\\\").replace("\n", "\\n"))
                        .toList());
    }

    static List<String> read(String column) {
        return column.isEmpty() ? List.of() : column.lines().map(TextList::unescape).toList();
    }

    static String unescape(String text) {
        var plain = new StringBuilder();
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            if (c == '\\' && i + 1 < text.length()) {
                char next = text.charAt(++i);
                plain.append(next == 'n' ? '\n' : next == 't' ? '\t' : next == 'r' ? '\r' : next);
            } else {
                plain.append(c);
            }
        }
        return plain.toString();
    }
}

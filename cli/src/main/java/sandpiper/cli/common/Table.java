package sandpiper.cli.common;

import java.io.PrintWriter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/** A table for people: columns as wide as what is in them, cut where it would be too much. */
public final class Table {
    private static final int WIDEST = 40;

    private final List<String> titles;
    private final List<List<String>> rows = new ArrayList<>();

    public Table(List<String> titles) {
        this.titles = List.copyOf(titles);
    }

    public void add(List<String> row) {
        rows.add(row.stream().map(Table::cut).toList());
    }

    private static String cut(String text) {
        var line = text.replace('\n', ' ');
        return line.codePointCount(0, line.length()) > WIDEST
                ? line.substring(0, line.offsetByCodePoints(0, WIDEST - 1)) + "…"
                : line;
    }

    public void print(PrintWriter out) {
        var widths = new int[titles.size()];
        Arrays.setAll(widths, column -> titles.get(column).length());
        rows.forEach(row -> {
            for (int i = 0; i < widths.length; i++) {
                widths[i] = Math.max(widths[i], row.get(i).codePointCount(0, row.get(i).length()));
            }
        });
        print(out, titles, widths);
        print(out, Arrays.stream(widths).mapToObj("-"::repeat).toList(), widths);
        rows.forEach(row -> print(out, row, widths));
    }

    private static void print(PrintWriter out, List<String> row, int[] widths) {
        var line = new StringBuilder();
        for (int i = 0; i < widths.length; i++) {
            var text = row.get(i);
            line.append(text)
                    .append(" ".repeat(widths[i] - text.codePointCount(0, text.length()) + 2));
        }
        out.println(line.toString().stripTrailing());
    }
}

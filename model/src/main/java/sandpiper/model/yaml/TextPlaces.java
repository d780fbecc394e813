package sandpiper.model.yaml;

import java.util.Arrays;
import sandpiper.model.Place;
import sandpiper.model.definition.LogicText;

/**
 * Leads from a place in a value back to the place in the file it was written in, whichever way YAML
 * lets it be written.
 */
public final class TextPlaces implements LogicText.Origin {
    private final String file;
    private final YamlNode.Scalar scalar;
    private final String fileText;
    private int[] lines = new int[0];
    private int[] columns = new int[0];

    /**
     * @param fileText the whole file the value stands in
     */
    public TextPlaces(String file, String fileText, YamlNode.Scalar scalar) {
        this.file = file;
        this.scalar = scalar;
        this.fileText = fileText;
    }

    @Override
    public String file() {
        return file;
    }

    @Override
    public Place place(int start, int end) {
        if (lines.length == 0) {
            walk();
        }
        int length = lines.length - 1;
        if (length < 1) {
            return scalar.place();
        }
        int first = Math.clamp(start, 0, length);
        int last = Math.clamp(end, first, length);
        if (last > first) {
            return new Place(lines[first], columns[first], lines[last - 1], columns[last - 1] + 1);
        }
        return new Place(lines[first], columns[first], lines[first], columns[first] + 1);
    }

    /** Goes through the value and the file side by side. */
    private void walk() {
        int[] value = scalar.text().codePoints().toArray();
        var raw = fileText.lines().map(line -> line.codePoints().toArray()).toList();
        lines = new int[value.length + 1];
        columns = new int[value.length + 1];
        var style = scalar.style();
        boolean block =
                style == YamlNode.Scalar.Style.LITERAL || style == YamlNode.Scalar.Style.FOLDED;
        int line = scalar.place().line() - 1;
        int column = scalar.place().column() - 1;
        if (block) {
            line++;
            column = indent(raw, line);
        } else if (style != YamlNode.Scalar.Style.PLAIN) {
            column++;
        }
        for (int i = 0; i <= value.length; i++) {
            while (!block
                    && line < raw.size() - 1
                    && column >= raw.get(line).length
                    && i < value.length) {
                line++;
                column = indent(raw, line);
            }
            lines[i] = line + 1;
            columns[i] = column + 1;
            if (i == value.length) {
                break;
            }
            if (block && value[i] == '\n') {
                line++;
                column = indentOfBlock(raw, line);
            } else if (style == YamlNode.Scalar.Style.DOUBLE_QUOTED
                    && at(raw, line, column) == '\\') {
                column += escapeLength(at(raw, line, column + 1));
            } else if (style == YamlNode.Scalar.Style.SINGLE_QUOTED
                    && at(raw, line, column) == '\'') {
                column += 2;
            } else {
                column++;
            }
        }
    }

    private static int at(java.util.List<int[]> raw, int line, int column) {
        return line < raw.size() && column < raw.get(line).length ? raw.get(line)[column] : -1;
    }

    private static int escapeLength(int kind) {
        return switch (kind) {
            case 'x' -> 4;
            case 'u' -> 6;
            case 'U' -> 10;
            default -> 2;
        };
    }

    private static int indent(java.util.List<int[]> raw, int line) {
        if (line >= raw.size()) {
            return 0;
        }
        return (int) Arrays.stream(raw.get(line)).takeWhile(c -> c == ' ').count();
    }

    /** The indentation all lines of the block share: that of its first line. */
    private int indentOfBlock(java.util.List<int[]> raw, int line) {
        return Math.min(
                indent(raw, scalar.place().line()), line < raw.size() ? raw.get(line).length : 0);
    }
}

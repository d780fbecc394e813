package sandpiper.model;

/** Where something stands in a file; lines and columns count from 1, the end is exclusive. */
public record Place(int line, int column, int endLine, int endColumn) {
    /** The beginning of a file, for what concerns it as a whole. */
    public static final Place START = new Place(1, 1, 1, 1);
}

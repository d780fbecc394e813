package sandpiper.model.shape;

import java.util.List;
import java.util.regex.Pattern;
import sandpiper.model.Names;

/** What the shapes of definition files are made of. */
final class Shapes {
    static final String FIELD_NAMES =
            "a name begins with a small letter and has only letters and digits";
    static final String ADDRESS_NAMES = "a name has small letters, digits and single hyphens";
    static final Shape TEXT = new Shape.Text(null, "text");
    static final Shape FLAG = new Shape.Flag();
    static final Shape OBJECT_NAME =
            new Shape.Text(
                    Names.OBJECT,
                    "a name that begins with a capital letter and has only letters and digits,"
                            + " at most 60");
    static final Shape FIELD_NAME =
            new Shape.Text(
                    Names.FIELD,
                    "a name that begins with a small letter and has only letters and digits");
    static final Shape ADDRESS_NAME =
            new Shape.Text(Names.ADDRESS, "a name of small letters, digits and single hyphens");
    static final Shape CODE_LIST = new Shape.ListOf(TEXT);

    /** A label, or one for each language. */
    static final Shape SPOKEN =
            new Shape.Either(
                    List.of(
                            TEXT,
                            new Shape.Named(
                                    Pattern.compile("[a-z]{2}"),
                                    "a language has two small letters, as in en",
                                    TEXT)));

    static final Shape LABELLED_CODES =
            new Shape.Named(Pattern.compile(".{1,60}"), "at most 60 characters", SPOKEN);
    static final Shape FIELD_LIST =
            new Shape.Either(
                    List.of(
                            new Shape.Text(null, "fields with commas between them"),
                            new Shape.ListOf(TEXT)));

    static final Shape.Key LABEL =
            key("label", "What people read; made from the name when absent.", TEXT);

    private Shapes() {}

    static Shape.Key key(String name, String describe, Shape shape) {
        return new Shape.Key(name, false, describe, shape);
    }

    static Shape.Key needed(String name, String describe, Shape shape) {
        return new Shape.Key(name, true, describe, shape);
    }

    /** Names as fields have them, each with a value of one shape. */
    static Shape named(Shape value) {
        return new Shape.Named(Names.FIELD, FIELD_NAMES, value);
    }
}

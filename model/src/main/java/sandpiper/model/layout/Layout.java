package sandpiper.model.layout;

/** How records of an object are entered and listed. */
public record Layout(FormLayout form, ListLayout list) {
    /** What nobody has laid out: all fields in their order. */
    public static final Layout NONE = new Layout(FormLayout.NONE, ListLayout.NONE);
}

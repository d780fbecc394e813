package sandpiper.server.json;

import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.json.JsonFactory;

/**
 * How much a request may bring and ask for. A process is one service, so they are the process's.
 */
public final class Bounds {
    private static final int LONGEST_NUMBER = 100;
    private static final int USUAL_PAGE = 50;

    /** Less would keep definitions and imports from coming in. */
    private static final int SMALLEST_BODY = 64 << 10;

    private static final int HIGHEST_PAGE = 10_000;
    private static final int HIGHEST_DEPTH = 500;

    private static volatile Bounds current = new Bounds(5 << 20, 50, 500);

    private final int body;
    private final int page;
    private final JsonFactory format;

    /**
     * @param body bytes of a request's body
     * @param depth how deep objects and lists of JSON may lie in each other
     * @param page records of a page of a service
     * @throws IllegalArgumentException when one of them makes no sense; the message says which
     */
    public Bounds(long body, int depth, int page) {
        this.body =
                (int) within("sandpiper.limits.body", body, SMALLEST_BODY, Integer.MAX_VALUE / 2);
        this.page = (int) within("sandpiper.limits.page", page, 1, HIGHEST_PAGE);
        this.format =
                JsonFactory.builder()
                        .streamReadConstraints(
                                StreamReadConstraints.builder()
                                        .maxNestingDepth(
                                                (int)
                                                        within(
                                                                "sandpiper.limits.depth",
                                                                depth,
                                                                5,
                                                                HIGHEST_DEPTH))
                                        .maxNumberLength(LONGEST_NUMBER)
                                        .maxStringLength(this.body)
                                        .build())
                        .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                        .enable(StreamWriteFeature.WRITE_BIGDECIMAL_AS_PLAIN)
                        .build();
    }

    private static long within(String setting, long value, long lowest, long highest) {
        if (value < lowest || value > highest) {
            throw new IllegalArgumentException(
                    "%s must be from %,d to %,d, but is %,d."
                            .formatted(setting, lowest, highest, value));
        }
        return value;
    }

    /** Those of this process. */
    public static Bounds now() {
        return current;
    }

    /** Makes these the ones of this process. */
    public void apply() {
        current = this;
    }

    /** Bytes of a request's body. */
    public int body() {
        return body;
    }

    /** Most records of a page of a service. */
    public int page() {
        return page;
    }

    /** Records of a page of a service when nobody says. */
    public int usualPage() {
        return Math.min(USUAL_PAGE, page);
    }

    JsonFactory format() {
        return format;
    }
}

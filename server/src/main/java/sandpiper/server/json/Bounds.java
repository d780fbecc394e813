package sandpiper.server.json;

import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.StreamReadFeature;
import tools.jackson.core.StreamWriteFeature;
import tools.jackson.core.json.JsonFactory;

/** How much a request may bring and ask for. */
public final class Bounds {
    private static final int LONGEST_NUMBER = 100;
    private static final int USUAL_PAGE = 50;

    private final int body;
    private final int page;
    private final JsonFactory format;

    /**
     * @param body bytes of a request's body
     * @param depth how deep objects and lists of JSON may lie in each other
     * @param page records of a page of a service
     */
    public Bounds(int body, int depth, int page) {
        this.body = body;
        this.page = page;
        this.format =
                JsonFactory.builder()
                        .streamReadConstraints(
                                StreamReadConstraints.builder()
                                        .maxNestingDepth(depth)
                                        .maxNumberLength(LONGEST_NUMBER)
                                        .maxStringLength(body)
                                        .build())
                        .enable(StreamReadFeature.STRICT_DUPLICATE_DETECTION)
                        .enable(StreamWriteFeature.WRITE_BIGDECIMAL_AS_PLAIN)
                        .build();
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

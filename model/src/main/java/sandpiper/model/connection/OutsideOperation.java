package sandpiper.model.connection;

import java.util.List;

/**
 * What is asked of an outside service.
 *
 * @param method in capitals
 * @param path with parameters in braces
 * @param places where the value of each parameter is sent
 */
public record OutsideOperation(String method, String path, List<Sent> places) {
    public OutsideOperation {
        places = List.copyOf(places);
    }

    /** A parameter, and where its value is sent. */
    public record Sent(String parameter, Where where) {}

    /** Where a value is sent. */
    public enum Where {
        PATH,
        QUERY,
        HEADER,
        BODY
    }

    /** As it is named in a definition: {@code GET /rates/{currency}}. */
    public String written() {
        return method + " " + path;
    }
}

package sandpiper.server.odata.request;

import java.util.Arrays;
import org.apache.olingo.server.api.ODataRequest;
import sandpiper.server.service.RevisionParameter;

/** Brings a request, which may be one of a batch, to the form that the library knows. */
public final class RequestForm {
    private RequestForm() {}

    /**
     * Makes the names of options and types one; what cannot be followed is refused.
     *
     * @param root the address of the service, without a slash at its end
     * @param isFile whether its body, or that of its answer, is a file
     */
    public static void unify(ODataRequest request, String root, boolean isFile) {
        AddressBounds.check(request);
        if (isFile) {
            BodyTypes.ofFile(request);
        } else {
            BodyTypes.require(request);
        }
        var query = request.getRawQueryPath();
        if (query != null) {
            var options = OptionNames.read(QuerySpaces.read(query));
            FilterWords.requireOffered(options);
            request.setRawQueryPath(options);
            request.setRawRequestUri(root + request.getRawODataPath() + "?" + options);
        }
        Negotiation.unify(request);
    }

    /** One of a batch has the revision of the batch. */
    public static void requireNoRevision(ODataRequest request) {
        var query = request.getRawQueryPath();
        if (query != null
                && Arrays.stream(query.split("&"))
                        .anyMatch(one -> one.split("=", 2)[0].equals(RevisionParameter.NAME))) {
            throw Refusals.bad(
                    "The %s of a contract is said at the address of the batch, for all in it."
                            .formatted(RevisionParameter.NAME));
        }
    }
}

package sandpiper.server.odata.request;

import org.apache.olingo.server.api.ODataRequest;

/** Brings a request, which may be one of a batch, to the form that the library knows. */
public final class RequestForm {
    private RequestForm() {}

    /**
     * Makes the names of options and types one; what cannot be followed is refused.
     *
     * @param root the address of the service, without a slash at its end
     */
    public static void unify(ODataRequest request, String root) {
        AddressBounds.check(request);
        BodyTypes.require(request);
        var query = request.getRawQueryPath();
        if (query != null) {
            var options = OptionNames.read(QuerySpaces.read(query));
            FilterWords.requireOffered(options);
            request.setRawQueryPath(options);
            request.setRawRequestUri(root + request.getRawODataPath() + "?" + options);
        }
        Negotiation.unify(request);
    }
}

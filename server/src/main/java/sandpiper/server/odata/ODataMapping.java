package sandpiper.server.odata;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.web.HttpRequestHandler;
import sandpiper.server.protocol.CallMapping;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.protocol.ServiceAddress;

/** Leads calls of services over OData to {@link ODataCalls}. */
@Component
final class ODataMapping extends CallMapping {
    private final ODataCalls calls;

    ODataMapping(ODataCalls calls) {
        this.calls = calls;
    }

    @Override
    protected @Nullable HttpRequestHandler handler(HttpServletRequest request) {
        var address = ServiceAddress.read(Protocol.ODATA_AT, request.getRequestURI());
        return address == null
                ? null
                : (asked, answer) ->
                        calls.answer(address, Objects.requireNonNull(actor()), asked, answer);
    }
}

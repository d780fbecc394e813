package sandpiper.server.soap;

import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.stereotype.Component;
import org.springframework.web.HttpRequestHandler;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import sandpiper.server.protocol.CallMapping;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.protocol.ServiceAddress;

/** Leads messages to services over SOAP to {@link SoapCalls}; contracts are read elsewhere. */
@Component
final class SoapMapping extends CallMapping {
    private static final List<String> METHODS = List.of("GET", "HEAD", "POST", "OPTIONS");

    /** Behind the address, as contracts name it. */
    private static final Pattern REVISION = Pattern.compile("/r(\\d{1,9})");

    private final SoapCalls calls;

    SoapMapping(SoapCalls calls) {
        this.calls = calls;
    }

    @Override
    protected @Nullable HttpRequestHandler handler(HttpServletRequest request) {
        var address = ServiceAddress.read(Protocol.SOAP_AT, request.getRequestURI());
        if (address == null) {
            return null;
        }
        var revision = REVISION.matcher(address.behind());
        if (!address.behind().isEmpty() && !revision.matches()) {
            return null;
        }
        var had = address.behind().isEmpty() ? null : revision.group(1);
        return switch (request.getMethod()) {
            case "GET", "HEAD" -> null;
            case "POST" -> (asked, answer) -> calls.answer(address, had, actor(), asked, answer);
            case "OPTIONS" ->
                    (_, answer) -> answer.setHeader(HttpHeaders.ALLOW, String.join(", ", METHODS));
            default ->
                    (asked, _) -> {
                        throw new HttpRequestMethodNotSupportedException(
                                asked.getMethod(), METHODS);
                    };
        };
    }
}

package sandpiper.server.soap;

import jakarta.servlet.http.HttpServletRequest;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.InvalidMediaTypeException;
import org.springframework.http.MediaType;
import sandpiper.logic.Quoted;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.protocol.SoapVersion;

/**
 * What a sender says outside of its message that it wants: {@code SOAPAction} in SOAP 1.1, a
 * parameter of the content type in 1.2. It may say nothing, but nothing else than the message.
 */
final class SoapActions {
    private SoapActions() {}

    /** The action of an operation, as the contract names it. */
    static String of(String namespace, SoapOperation operation) {
        return namespace + ":" + operation.name();
    }

    static void require(
            HttpServletRequest request,
            SoapVersion version,
            String namespace,
            SoapOperation operation) {
        var said =
                version == SoapVersion.SOAP_11
                        ? request.getHeader("SOAPAction")
                        : action(request.getContentType());
        var action = said == null ? "" : said.strip().replaceAll("^\"|\"$", "");
        if (!action.isEmpty() && !action.equals(of(namespace, operation))) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "The action is %s, but the message asks for %s."
                            .formatted(Quoted.of(action), operation.name()));
        }
    }

    private static @Nullable String action(@Nullable String contentType) {
        try {
            return contentType == null
                    ? null
                    : MediaType.parseMediaType(contentType).getParameter("action");
        } catch (InvalidMediaTypeException _) {
            return null;
        }
    }
}

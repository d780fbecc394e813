package sandpiper.server.soap;

import java.io.Serial;
import java.util.List;
import org.springframework.http.HttpStatus;
import sandpiper.server.problem.Problem;

/**
 * A message that SOAP itself has a fault code for: a header that must be understood (SOAP 1.1
 * §4.4.1, 1.2 part 1 §5.4.8), an envelope of another version.
 */
final class SoapFaultException extends RuntimeException {
    @Serial private static final long serialVersionUID = 1;

    private final String code;

    private SoapFaultException(String code, String detail) {
        super(detail);
        this.code = code;
    }

    static SoapFaultException mustUnderstand(String detail) {
        return new SoapFaultException("MustUnderstand", detail);
    }

    static SoapFaultException versionMismatch(String detail) {
        return new SoapFaultException("VersionMismatch", detail);
    }

    /** What is said of it beside the code. */
    Problem problem() {
        return Problem.of(HttpStatus.BAD_REQUEST, String.valueOf(getMessage()), List.of());
    }

    /** Without the prefix of the envelope's namespace. */
    String code() {
        return code;
    }
}

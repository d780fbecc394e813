package sandpiper.server.protocol;

import org.springframework.http.HttpStatus;
import sandpiper.server.problem.Problem;

/** A fault of SOAP 1.1 for a message that was not read, so that its version is not known. */
final class SoapFault implements ProblemWriter {
    @Override
    public String contentType() {
        return "text/xml;charset=UTF-8";
    }

    @Override
    public String text(Problem problem) {
        boolean ours = HttpStatus.valueOf(problem.status()).is5xxServerError();
        return """
        <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"><s:Body><s:Fault>\
        <faultcode>s:%s</faultcode><faultstring>%s</faultstring></s:Fault></s:Body></s:Envelope>\
        """
                .formatted(ours ? "Server" : "Client", escaped(problem.said()));
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }
}

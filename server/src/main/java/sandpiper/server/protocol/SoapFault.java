package sandpiper.server.protocol;

import org.springframework.http.HttpStatus;
import sandpiper.server.problem.Problem;

/** A fault for a message that was not read, so that nothing is known of it but its version. */
record SoapFault(SoapVersion version) implements ProblemWriter {
    private static final String OLDER =
            """
            <s:Envelope xmlns:s="%s"><s:Body><s:Fault>\
            <faultcode>s:%s</faultcode><faultstring>%s</faultstring></s:Fault></s:Body></s:Envelope>\
            """;

    private static final String NEWER =
            """
            <s:Envelope xmlns:s="%s"><s:Body><s:Fault>\
            <s:Code><s:Value>s:%s</s:Value></s:Code>\
            <s:Reason><s:Text xml:lang="en">%s</s:Text></s:Reason></s:Fault></s:Body></s:Envelope>\
            """;

    @Override
    public String contentType() {
        return version.contentType() + ";charset=UTF-8";
    }

    @Override
    public String text(Problem problem) {
        boolean ours = HttpStatus.valueOf(problem.status()).is5xxServerError();
        return (version == SoapVersion.SOAP_11 ? OLDER : NEWER)
                .formatted(
                        version.namespace(),
                        ours ? version.receiver() : version.sender(),
                        escaped(problem.said()));
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }
}

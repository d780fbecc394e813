package sandpiper.server.protocol;

import org.springframework.http.HttpStatus;
import sandpiper.server.problem.Problem;

/** A fault for a message that was not read, so that nothing is known of it but its type. */
enum SoapFault implements ProblemWriter {
    /** Of SOAP 1.1. */
    OLDER(
            "text/xml;charset=UTF-8",
            """
            <s:Envelope xmlns:s="http://schemas.xmlsoap.org/soap/envelope/"><s:Body><s:Fault>\
            <faultcode>s:%s</faultcode><faultstring>%s</faultstring></s:Fault></s:Body></s:Envelope>\
            """,
            "Client",
            "Server"),

    /** Of SOAP 1.2. */
    NEWER(
            "application/soap+xml;charset=UTF-8",
            """
            <s:Envelope xmlns:s="http://www.w3.org/2003/05/soap-envelope"><s:Body><s:Fault>\
            <s:Code><s:Value>s:%s</s:Value></s:Code>\
            <s:Reason><s:Text xml:lang="en">%s</s:Text></s:Reason></s:Fault></s:Body></s:Envelope>\
            """,
            "Sender",
            "Receiver");

    private final String contentType;
    private final String form;
    private final String sender;
    private final String receiver;

    SoapFault(String contentType, String form, String sender, String receiver) {
        this.contentType = contentType;
        this.form = form;
        this.sender = sender;
        this.receiver = receiver;
    }

    @Override
    public String contentType() {
        return contentType;
    }

    @Override
    public String text(Problem problem) {
        boolean ours = HttpStatus.valueOf(problem.status()).is5xxServerError();
        return form.formatted(ours ? receiver : sender, escaped(problem.said()));
    }

    private static String escaped(String text) {
        return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");
    }
}

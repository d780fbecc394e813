package sandpiper.server.soap;

import jakarta.servlet.http.HttpServletRequest;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import org.springframework.stereotype.Component;
import sandpiper.engine.access.Actor;
import sandpiper.server.intake.MessageSignIn;
import sandpiper.server.problem.Problem;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.protocol.ServiceAddress;
import sandpiper.server.protocol.SoapVersion;
import sandpiper.server.security.Credentials;
import sandpiper.server.soap.xml.XmlBounds;
import sandpiper.server.soap.xml.XmlReaders;

/** Reads the UsernameToken out of the beginning of a SOAP message, whose rest is not there yet. */
@Component
final class HeadSignIn implements MessageSignIn {
    private static final List<String> TOKEN =
            List.of("Envelope", "Header", "Security", "UsernameToken");

    private final Credentials credentials;

    HeadSignIn(Credentials credentials) {
        this.credentials = credentials;
    }

    @Override
    public boolean isFor(HttpServletRequest request) {
        return Protocol.SOAP.isAt(request.getRequestURI());
    }

    @Override
    public Optional<Actor> signIn(byte[] head, String address) {
        return token(head).map(token -> token.client(credentials, address));
    }

    @Override
    public Written refusal(HttpServletRequest request, Problem problem) {
        var soap = SoapVersion.of(request.getContentType());
        return new Written(
                soap.contentType() + ";charset=UTF-8",
                SoapEnvelopes.fault(soap, namespace(request.getRequestURI()), problem));
    }

    /** Of the service at an address, in which its faults are. */
    private static String namespace(String address) {
        var found = ServiceAddress.read(Protocol.SOAP_AT, address);
        return found == null ? "urn:sandpiper" : Wsdl.namespace(found.service(), found.version());
    }

    /** The token in front of the body, or nothing when there is none, or only part of one. */
    static Optional<UsernameToken> token(byte[] head) {
        var path = new ArrayList<String>();
        try {
            var reader = XmlReaders.of(head);
            while (reader.hasNext()) {
                int event = reader.next();
                if (event == XMLStreamReader.END_ELEMENT) {
                    path.removeLast();
                } else if (event == XMLStreamReader.START_ELEMENT) {
                    path.add(reader.getLocalName());
                    if (path.size() == 2 && path.getLast().equals("Body")) {
                        return Optional.empty();
                    }
                    boolean foreign =
                            path.size() == TOKEN.size() - 1
                                    && !UsernameToken.SECURITY.equals(reader.getNamespaceURI());
                    if (foreign || path.size() > XmlBounds.DEEPEST) {
                        skip(reader);
                        path.removeLast();
                    } else if (path.equals(TOKEN)) {
                        return Optional.of(UsernameToken.of(children(reader)));
                    }
                }
            }
        } catch (XMLStreamException _) {
            // the head ends, or is no XML
        }
        return Optional.empty();
    }

    private static void skip(XMLStreamReader reader) throws XMLStreamException {
        for (int depth = 1; depth > 0; ) {
            int event = reader.next();
            depth += event == XMLStreamReader.START_ELEMENT ? 1 : 0;
            depth -= event == XMLStreamReader.END_ELEMENT ? 1 : 0;
        }
    }

    /** The texts of the elements directly inside, and the password's type. */
    private static Map<String, String> children(XMLStreamReader reader) throws XMLStreamException {
        var texts = new HashMap<String, String>();
        for (int event = reader.next();
                event != XMLStreamReader.END_ELEMENT;
                event = reader.next()) {
            if (event == XMLStreamReader.START_ELEMENT) {
                var name = reader.getLocalName();
                var type = reader.getAttributeValue(null, "Type");
                if (type != null) {
                    texts.put(name + " type", type);
                }
                texts.put(name, reader.getElementText().strip());
            }
        }
        return texts;
    }
}

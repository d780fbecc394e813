package sandpiper.server.soap;

import java.util.Set;
import org.w3c.dom.Element;
import sandpiper.server.protocol.SoapVersion;

/** The header of a message: what a sender insists on must be understood, or the call refused. */
final class HeaderBlocks {
    /** Headers that are meant for whoever gets the message, and so for us. */
    private static final Set<String> OURS =
            Set.of(
                    "",
                    "http://schemas.xmlsoap.org/soap/actor/next",
                    "http://www.w3.org/2003/05/soap-envelope/role/next",
                    "http://www.w3.org/2003/05/soap-envelope/role/ultimateReceiver");

    private HeaderBlocks() {}

    /** Refuses a message with a header for us that is not known here and must be. */
    static void requireUnderstood(Envelope envelope) {
        var header = envelope.header();
        if (header == null) {
            return;
        }
        for (var block : XmlValues.children(header)) {
            if (!UsernameToken.isSecurity(block) && isInsistedOn(envelope.version(), block)) {
                throw SoapFaultException.mustUnderstand(
                        "The header %s must be understood, but is not known here."
                                .formatted(block.getNodeName()));
            }
        }
    }

    private static boolean isInsistedOn(SoapVersion version, Element block) {
        var must = block.getAttributeNS(version.namespace(), "mustUnderstand");
        var target =
                block.getAttributeNS(
                        version.namespace(), version == SoapVersion.SOAP_11 ? "actor" : "role");
        return (must.equals("1") || must.equals("true")) && OURS.contains(target.strip());
    }
}

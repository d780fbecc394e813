package sandpiper.server.soap;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import sandpiper.server.problem.ProblemException;

/**
 * A name and secret in the header of a message, as the UsernameToken profile of WS-Security 1.1 has
 * it.
 */
record UsernameToken(String name, String secret) {
    private static final String SECURITY =
            "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd";

    /** The token of a header, or nothing when there is none. */
    static Optional<UsernameToken> of(@Nullable Element header) {
        if (header == null) {
            return Optional.empty();
        }
        return XmlValues.children(header).stream()
                .filter(UsernameToken::isSecurity)
                .map(security -> XmlValues.child(security, "UsernameToken"))
                .filter(token -> token != null)
                .findFirst()
                .map(UsernameToken::read);
    }

    static boolean isSecurity(Element element) {
        return SECURITY.equals(element.getNamespaceURI())
                && "Security".equals(element.getLocalName());
    }

    private static UsernameToken read(Element token) {
        var name = XmlValues.textOf(token, "Username");
        var password = XmlValues.child(token, "Password");
        if (name == null || password == null) {
            throw new ProblemException(
                    HttpStatus.UNAUTHORIZED, "The UsernameToken needs Username and Password.");
        }
        if (password.getAttribute("Type").endsWith("#PasswordDigest")) {
            throw new ProblemException(
                    HttpStatus.UNAUTHORIZED,
                    "Secrets are kept hashed, so a digest cannot be checked; send the secret as"
                            + " PasswordText, or with HTTP Basic.");
        }
        return new UsernameToken(name, XmlValues.text(password));
    }
}

package sandpiper.server.soap;

import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.w3c.dom.Element;
import sandpiper.engine.access.Actor;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.security.Credentials;

/**
 * A name and a password in the header of a message, as the UsernameToken profile of WS-Security 1.1
 * has it: the password itself, or a digest of it.
 *
 * @param nonce of a digest, {@code null} for the password itself
 * @param created of a digest, {@code null} for the password itself
 */
record UsernameToken(
        String name, String password, @Nullable String nonce, @Nullable String created) {
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
        var text = XmlValues.text(password);
        if (!password.getAttribute("Type").endsWith("#PasswordDigest")) {
            return new UsernameToken(name, text, null, null);
        }
        var nonce = XmlValues.textOf(token, "Nonce");
        var created = XmlValues.textOf(token, "Created");
        if (nonce == null || created == null) {
            throw new ProblemException(
                    HttpStatus.UNAUTHORIZED,
                    "A PasswordDigest needs Nonce and Created beside it, or it could be sent"
                            + " again by anybody.");
        }
        return new UsernameToken(name, text, nonce, created);
    }

    /**
     * The client that signs in.
     *
     * @throws ProblemException when it is not right
     */
    Actor client(Credentials credentials) {
        if (nonce == null || created == null) {
            return credentials
                    .client(name, password)
                    .orElseThrow(() ->
                            new ProblemException(
                                    HttpStatus.UNAUTHORIZED,
                                    "The name or the secret in the UsernameToken is not right."));
        }
        return credentials
                .client(name, nonce, created, password)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.UNAUTHORIZED,
                                "The PasswordDigest is not right: it is good once and for five"
                                        + " minutes, and only for clients made for digests."));
    }
}

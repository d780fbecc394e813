package sandpiper.server.soap;

import java.util.Map;
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
    static final String SECURITY =
            "http://docs.oasis-open.org/wss/2004/01/oasis-200401-wss-wssecurity-secext-1.0.xsd";

    static boolean isSecurity(Element element) {
        return SECURITY.equals(element.getNamespaceURI())
                && "Security".equals(element.getLocalName());
    }

    /**
     * The token of the texts of its elements by their names, and of {@code Password type}.
     *
     * @throws ProblemException when something is missing
     */
    static UsernameToken of(Map<String, String> texts) {
        var name = texts.get("Username");
        var password = texts.get("Password");
        if (name == null || password == null) {
            throw new ProblemException(
                    HttpStatus.UNAUTHORIZED, "The UsernameToken needs Username and Password.");
        }
        if (!texts.getOrDefault("Password type", "").endsWith("#PasswordDigest")) {
            return new UsernameToken(name, password, null, null);
        }
        var nonce = texts.get("Nonce");
        var created = texts.get("Created");
        if (nonce == null || created == null) {
            throw new ProblemException(
                    HttpStatus.UNAUTHORIZED,
                    "A PasswordDigest needs Nonce and Created beside it, or it could be sent"
                            + " again by anybody.");
        }
        return new UsernameToken(name, password, nonce, created);
    }

    /**
     * The client that signs in.
     *
     * @param address from which the message comes
     * @throws ProblemException when it is not right
     */
    Actor client(Credentials credentials, String address) {
        if (nonce == null || created == null) {
            return credentials
                    .client(name, password, address)
                    .orElseThrow(() ->
                            new ProblemException(
                                    HttpStatus.UNAUTHORIZED,
                                    "The name or the secret in the UsernameToken is not right."));
        }
        return credentials
                .client(name, nonce, created, password, address)
                .orElseThrow(() ->
                        new ProblemException(
                                HttpStatus.UNAUTHORIZED,
                                "The PasswordDigest is not right: it is good once and for five"
                                        + " minutes, and only for clients made for digests."));
    }
}

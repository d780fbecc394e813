package sandpiper.client;

import static sandpiper.client.ManageClient.escape;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.JsonNode;

/** Clients, users, roles, and who changed what of them. */
public final class AccessCalls {
    private static final String CLIENTS = "/manage/v1/clients";
    private static final String USERS = "/manage/v1/users";
    private static final String ROLES = "/manage/v1/roles";

    private final ManageClient http;

    AccessCalls(ManageClient http) {
        this.http = http;
    }

    /**
     * An outside system that may call services.
     *
     * @param lastUsed and {@code previousUntil} in RFC 3339; {@code null} for never, and when only
     *     one secret is right
     */
    public record Client(
            String name,
            String label,
            List<String> grants,
            boolean disabled,
            @Nullable String lastUsed,
            @Nullable String previousUntil) {}

    /** A client with its secret, which is not shown again. */
    public record ClientSecret(Client client, String secret) {}

    /** A client to be made; what is {@code null} is as usual. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record NewClient(
            String name,
            List<String> grants,
            boolean digests,
            @Nullable Integer callsPerMinute,
            @Nullable String label) {}

    /** What becomes different of a client; what is {@code null} stays. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    private record ClientChange(@Nullable Boolean disabled, @Nullable Integer callsPerMinute) {}

    /** A person who signs in. */
    public record User(
            String name, String label, List<String> roles, List<String> duties, boolean disabled) {}

    /**
     * A user to be made.
     *
     * @param temporary whether another password is chosen at the first sign-in
     */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record NewUser(
            String name,
            List<String> roles,
            @Nullable String label,
            String password,
            boolean temporary) {}

    /** What becomes different of a user; what is {@code null} stays. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record UserChange(
            @Nullable List<String> roles,
            @Nullable Boolean disabled,
            @Nullable String password,
            @Nullable Boolean temporary) {}

    /** A named set of grants, and who holds it. */
    public record Role(
            String name,
            List<String> duties,
            List<ObjectGrant> objects,
            List<String> services,
            List<String> users) {}

    /** What may be done with the records of an object. */
    public record ObjectGrant(String object, List<String> actions) {}

    /** Who did what, when. */
    public record LogEntry(String at, String by, String what, String subject, String detail) {}

    public Answer<List<Client>> clients() {
        return http.list(CLIENTS, Client.class);
    }

    public Answer<ClientSecret> createClient(NewClient made) {
        return http.send("POST", CLIENTS, made, ClientSecret.class);
    }

    /** A new secret; the old one stays right for some hours, from 0. */
    public Answer<ClientSecret> rotateClient(String name, int overlapHours) {
        return http.send(
                "POST",
                client(name) + "/secret",
                Map.of("overlapHours", overlapHours),
                ClientSecret.class);
    }

    public void switchClient(String name, boolean disabled) {
        http.patch(client(name), new ClientChange(disabled, null), null);
    }

    /** Says how often a client may call; 0 for what is usual. */
    public void limitClient(String name, int callsPerMinute) {
        http.patch(client(name), new ClientChange(null, callsPerMinute), null);
    }

    public void removeClient(String name) {
        http.delete(client(name));
    }

    private static String client(String name) {
        return CLIENTS + "/" + escape(name);
    }

    public Answer<List<User>> users() {
        return http.list(USERS, User.class);
    }

    public void createUser(NewUser made) {
        http.post(USERS, made);
    }

    public void changeUser(String name, UserChange change) {
        http.patch(USERS + "/" + escape(name), change, null);
    }

    public void removeUser(String name) {
        http.delete(USERS + "/" + escape(name));
    }

    /** Changes the password of the one who calls. */
    public void changePassword(String current, String next) {
        http.post(USERS + "/me/password", Map.of("current", current, "next", next));
    }

    public Answer<List<Role>> roles() {
        return http.list(ROLES, Role.class);
    }

    /** One role, if there is one of that name. */
    public Optional<Answer<Role>> role(String name) {
        var all = roles();
        for (int i = 0; i < all.value().size(); i++) {
            if (all.value().get(i).name().equals(name)) {
                return Optional.of(new Answer<>(all.value().get(i), all.json().get(i)));
            }
        }
        return Optional.empty();
    }

    /** Makes a role or gives it other grants, as a file says. */
    public void setRole(String name, JsonNode role) {
        http.put(ROLES + "/" + escape(name), role);
    }

    /** Removes a role that nobody holds. */
    public void removeRole(String name) {
        http.delete(ROLES + "/" + escape(name));
    }

    /** What was changed of users, roles and clients, newest first. */
    public Answer<List<LogEntry>> log() {
        return http.list("/manage/v1/access-log", LogEntry.class);
    }

    /** New keys for tokens and cursors; all that were given out end. */
    public void renewKeys() {
        http.post("/manage/v1/keys/renew", Map.of());
    }
}

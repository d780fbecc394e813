package sandpiper.client;

import static sandpiper.client.ManageClient.escape;

import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Outside addresses that are told of events. */
public final class WebhookCalls {
    private static final String PATH = "/manage/v1/webhooks";

    private final ManageClient http;

    WebhookCalls(ManageClient http) {
        this.http = http;
    }

    /** One address; with a {@code filter} it is told of fewer. */
    public record Webhook(
            String name,
            String address,
            List<String> events,
            @Nullable String filter,
            boolean disabled) {}

    /** A webhook with the secret that signs, which is not shown again. */
    public record WebhookSecret(Webhook webhook, String secret) {}

    /** One to be made, or what becomes different of one; what is {@code null} stays away. */
    @JsonInclude(JsonInclude.Include.NON_NULL)
    public record Wanted(
            @Nullable String name,
            @Nullable String address,
            @Nullable List<String> events,
            @Nullable String filter,
            @Nullable String label,
            @Nullable Boolean disabled) {}

    public Answer<List<Webhook>> all() {
        return http.list(PATH, Webhook.class);
    }

    public WebhookSecret create(Wanted wanted) {
        return http.send("POST", PATH, wanted, WebhookSecret.class).value();
    }

    public void change(String name, Wanted change) {
        http.patch(PATH + "/" + escape(name), change, null);
    }

    /** A new secret; messages are signed with both for some hours. */
    public WebhookSecret rotate(String name, int overlapHours) {
        return http.send(
                        "POST",
                        PATH + "/" + escape(name) + "/rotate",
                        Map.of("overlapHours", overlapHours),
                        WebhookSecret.class)
                .value();
    }

    /** Sends a test. */
    public void test(String name) {
        http.post(PATH + "/" + escape(name) + "/test", Map.of());
    }

    public void remove(String name) {
        http.delete(PATH + "/" + escape(name));
    }
}

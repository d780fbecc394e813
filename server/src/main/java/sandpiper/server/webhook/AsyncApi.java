package sandpiper.server.webhook;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.EventType;
import sandpiper.model.release.Release;
import sandpiper.model.release.ServiceType;
import sandpiper.server.contract.CallSchemas;
import sandpiper.server.protocol.Protocol;

/** Writes the events a service publishes down as AsyncAPI 3.0. */
final class AsyncApi {
    private static final String WEBHOOK = "webhook";

    private AsyncApi() {}

    static Map<String, Object> of(Release release, ServiceType service, String server) {
        var document = new LinkedHashMap<String, Object>();
        document.put("asyncapi", "3.0.0");
        document.put(
                "info",
                map(
                        "title", service.label(),
                        "version", String.valueOf(service.version()),
                        "description",
                                "The events that %s publishes, as CloudEvents 1.0. They are posted to webhooks, signed as in Standard Webhooks, and can be read at %s."
                                        .formatted(service.titled(), feed(service))));
        document.put("defaultContentType", CloudEvents.TYPE);
        document.put(
                "servers",
                map(
                        "feed",
                        map(
                                "host", server.replaceFirst("^https?://", ""),
                                "protocol", server.startsWith("https") ? "https" : "http",
                                "pathname", feed(service))));
        var messages = new LinkedHashMap<String, Object>();
        var inChannel = new LinkedHashMap<String, Object>();
        var operations = new LinkedHashMap<String, Object>();
        var payloads = new LinkedHashMap<String, Object>();
        for (var event : service.events()) {
            var name = name(event);
            payloads.put(name, payload(release, event));
            messages.put(
                    name,
                    map(
                            "name", event.written(),
                            "title", event.label(),
                            "summary", described(event),
                            "contentType", CloudEvents.TYPE,
                            "payload", map("$ref", "#/components/schemas/" + name)));
            inChannel.put(name, map("$ref", "#/components/messages/" + name));
            operations.put(
                    "send" + name,
                    map(
                            "action", "send",
                            "channel", map("$ref", "#/channels/" + WEBHOOK),
                            "summary", described(event),
                            "security",
                                    List.of(map("$ref", "#/components/securitySchemes/signature")),
                            "messages",
                                    List.of(
                                            map(
                                                    "$ref",
                                                    "#/channels/%s/messages/%s"
                                                            .formatted(WEBHOOK, name)))));
        }
        document.put(
                "channels",
                map(
                        WEBHOOK,
                        map(
                                "description",
                                "The address a webhook was made with.",
                                "messages",
                                inChannel)));
        document.put("operations", operations);
        document.put(
                "components",
                map(
                        "messages", messages,
                        "schemas", payloads,
                        "securitySchemes",
                                map(
                                        "signature",
                                        map(
                                                "type",
                                                "symmetricEncryption",
                                                "description",
                                                "HMAC-SHA256 with the webhook's secret, as in"
                                                        + " Standard Webhooks: the headers"
                                                        + " webhook-id, webhook-timestamp and"
                                                        + " webhook-signature."))));
        return document;
    }

    private static String feed(ServiceType service) {
        return Protocol.REST.address(service.name(), service.version()) + "/events";
    }

    /** {@code Stay.created} cannot be the key of a component. */
    private static String name(EventType event) {
        int dot = event.name().indexOf('.');
        return dot < 0
                ? event.name()
                : event.name().substring(0, dot)
                        + event.name().substring(dot + 1, dot + 2).toUpperCase(Locale.ROOT)
                        + event.name().substring(dot + 2);
    }

    private static String described(EventType event) {
        return Objects.requireNonNullElse(event.describe(), event.label() + ".");
    }

    private static Map<String, Object> payload(Release release, EventType event) {
        var properties = new LinkedHashMap<String, Object>();
        properties.put("specversion", map("const", "1.0"));
        properties.put("id", map("type", "string", "format", "uuid"));
        properties.put("source", map("type", "string", "format", "uri-reference"));
        properties.put("type", map("const", event.written()));
        if (event.about() != null) {
            properties.put(
                    "subject",
                    map(
                            "type",
                            "string",
                            "description",
                            "The record it is about: %s and its key.".formatted(event.about())));
        }
        properties.put("time", map("type", "string", "format", "date-time"));
        properties.put("datacontenttype", map("const", "application/json"));
        properties.put(
                "sequence",
                map(
                        "type",
                        "string",
                        "description",
                        "Grows with each event; digits of a fixed number."));
        properties.put("data", CallSchemas.of(release, event.fields()));
        return map(
                "type",
                "object",
                "description",
                described(event),
                "properties",
                properties,
                "required",
                List.of("specversion", "id", "source", "type", "time", "data"));
    }

    private static Map<String, Object> map(@Nullable Object... namesAndValues) {
        var map = new LinkedHashMap<String, Object>();
        for (int i = 0; i < namesAndValues.length; i += 2) {
            map.put(String.valueOf(namesAndValues[i]), namesAndValues[i + 1]);
        }
        return map;
    }
}

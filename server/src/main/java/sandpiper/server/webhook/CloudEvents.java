package sandpiper.server.webhook;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.event.Event;
import sandpiper.model.release.EventType;
import sandpiper.model.release.Release;

/** Writes events as CloudEvents 1.0, structured mode in JSON. */
public final class CloudEvents {
    /** The media type of one event. */
    public static final String TYPE = "application/cloudevents+json";

    private static final String TEST = "sandpiper.webhook.test";

    private CloudEvents() {}

    /**
     * One event. {@code sequence} (an extension of the standard) grows with each event of this
     * instance.
     */
    static Map<String, @Nullable Object> of(Release release, Event event) {
        var cloud = new LinkedHashMap<String, @Nullable Object>();
        var type = release.event(event.name());
        cloud.put("specversion", "1.0");
        cloud.put("id", event.id().toString());
        cloud.put("source", source(type.map(EventType::packageName).orElse("")));
        cloud.put("type", type.map(EventType::written).orElse(TEST));
        if (event.object() != null) {
            cloud.put("subject", event.object() + "/" + event.key());
        }
        cloud.put("time", event.at().toString());
        cloud.put("datacontenttype", "application/json");
        cloud.put("sequence", "%020d".formatted(event.number()));
        cloud.put("data", event.data());
        return cloud;
    }

    private static String source(String packageName) {
        return packageName.isEmpty() ? "urn:sandpiper" : "urn:sandpiper:" + packageName;
    }
}

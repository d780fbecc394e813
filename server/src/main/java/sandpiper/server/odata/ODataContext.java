package sandpiper.server.odata;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.record.RecordView;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.JsonReader;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.odata.request.Format;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.security.RateLimits;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.ServiceCall;
import tools.jackson.core.JsonGenerator;

/**
 * Who asks which service, for the length of one request over HTTP.
 *
 * @param revision of the contract the caller has, or {@link
 *     sandpiper.server.service.RevisionParameter#NEWEST}
 * @param server the address of the server, without a slash at its end
 */
public record ODataContext(
        Engine engine,
        Cursors cursors,
        JsonReader json,
        RateLimits limits,
        Actor actor,
        ServiceModel model,
        EntityForms forms,
        int revision,
        String server) {

    /** The address of the service, without a slash at its end. */
    public String root() {
        return server + Protocol.ODATA.address(model.service().name(), model.service().version());
    }

    /** A call of a function of the service, on no record. */
    ServiceCall functions() {
        return new ServiceCall(
                engine,
                Protocol.ODATA,
                actor,
                model.service().name(),
                model.service().version(),
                revision,
                ServiceType.FUNCTIONS);
    }

    /** A call of the resource behind an entity set. */
    ServiceCall call(String set) {
        return new ServiceCall(
                engine,
                Protocol.ODATA,
                actor,
                model.service().name(),
                model.service().version(),
                revision,
                model.resource(set).name());
    }

    /** Puts the context in front of what is answered, unless no metadata was asked for. */
    Map<String, @Nullable Object> with(
            Format format, String context, Map<String, @Nullable Object> body) {
        var whole = new LinkedHashMap<String, @Nullable Object>();
        if (format.annotates()) {
            whole.put("@odata.context", root() + "/$metadata#" + context);
        }
        whole.putAll(body);
        return whole;
    }

    /** Writes the context as the first member of an object, unless no metadata was asked for. */
    void context(JsonGenerator to, Format format, String context) {
        if (format.annotates()) {
            to.writeStringProperty("@odata.context", root() + "/$metadata#" + context);
        }
    }

    /** An entity with its context, as JSON. */
    byte[] entity(EntityWriter writer, RecordView view, Format format, String context) {
        return JsonText.bytes(to -> {
            to.writeStartObject();
            context(to, format, context);
            writer.members(to, view);
            to.writeEndObject();
        });
    }
}

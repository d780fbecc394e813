package sandpiper.server.odata;

import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.JsonReader;
import sandpiper.server.odata.metadata.ServiceModel;
import sandpiper.server.protocol.Protocol;
import sandpiper.server.security.RateLimits;
import sandpiper.server.service.Cursors;
import sandpiper.server.service.ServiceCall;

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
        int revision,
        String server) {

    /** The address of the service, without a slash at its end. */
    String root() {
        return "%s/odata/%s/v%d"
                .formatted(server, model.service().name(), model.service().version());
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
}

package sandpiper.server.soap;

import java.io.StringReader;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import javax.xml.XMLConstants;
import javax.xml.transform.stream.StreamSource;
import javax.xml.validation.SchemaFactory;
import org.springframework.stereotype.Component;
import org.xml.sax.SAXException;
import sandpiper.engine.release.LiveRelease;
import sandpiper.model.release.ServiceType;
import sandpiper.server.json.Bounds;
import sandpiper.server.json.JsonReader;

/** The services of the live release as SOAP sees them, each made with its first request. */
@Component
class SoapServices {
    private final Map<Key, SoapService> services = new ConcurrentHashMap<>();
    private final Bounds bounds;

    private record Key(int release, String service, int version, int revision) {}

    SoapServices(JsonReader json) {
        this.bounds = json.bounds();
    }

    /**
     * A service as SOAP sees it.
     *
     * @param revision of the contract that {@code service} is of
     */
    SoapService of(LiveRelease live, ServiceType service, int revision) {
        var key = new Key(live.number(), service.name(), service.version(), revision);
        var there = services.get(key);
        if (there != null) {
            return there;
        }
        services.keySet().removeIf(old -> old.release() != live.number());
        return services.computeIfAbsent(key, _ -> made(live, service));
    }

    private SoapService made(LiveRelease live, ServiceType service) {
        try {
            var factory = SchemaFactory.newDefaultInstance();
            factory.setProperty(XMLConstants.ACCESS_EXTERNAL_SCHEMA, "");
            factory.setProperty(XMLConstants.ACCESS_EXTERNAL_DTD, "");
            var schema = withoutLengths(Wsdl.schema(live.release(), service, bounds));
            return new SoapService(
                    service, factory.newSchema(new StreamSource(new StringReader(schema))));
        } catch (SAXException e) {
            throw new IllegalStateException(
                    "The schema of " + service.titled() + " is not right", e);
        }
    }

    /**
     * The library counts a character outside the first plane as two; lengths are told where values
     * are read, which counts as XML Schema does.
     */
    private static String withoutLengths(String schema) {
        return schema.replaceAll("<xs:maxLength value=\"\\d+\"\\s*(/>|></xs:maxLength>)", "");
    }
}

package sandpiper.server.odata;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import org.apache.olingo.commons.api.http.HttpHeader;
import org.apache.olingo.server.api.ODataResponse;
import org.springframework.http.HttpStatus;
import sandpiper.server.json.JsonText;
import sandpiper.server.odata.metadata.Annotations;
import sandpiper.server.odata.metadata.CsdlJson;

/** The metadata document in the version that is spoken; the library knows only the older. */
final class MetadataForm {
    private MetadataForm() {}

    /** Brings the library's document, in XML or JSON, to a version. */
    static void unify(ODataResponse response, ODataContext exchange, String version) {
        if (response.getStatusCode() != HttpStatus.OK.value() || response.getContent() == null) {
            return;
        }
        var type = Objects.requireNonNullElse(response.getHeader(HttpHeader.CONTENT_TYPE), "");
        var document =
                type.startsWith("application/json")
                        ? JsonText.write(
                                CsdlJson.of(
                                        exchange.model(),
                                        Annotations.references(exchange.server()),
                                        version))
                        : content(response)
                                .replaceFirst(
                                        "(<edmx:Edmx [^>]*?Version=\")4\\.0\"",
                                        "$1" + version + "\"");
        response.setContent(new ByteArrayInputStream(document.getBytes(StandardCharsets.UTF_8)));
    }

    private static String content(ODataResponse response) {
        try {
            return new String(response.getContent().readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException("Bytes in memory cannot fail", e);
        }
    }
}

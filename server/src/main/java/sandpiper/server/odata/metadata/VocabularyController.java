package sandpiper.server.odata.metadata;

import org.springframework.core.io.ClassPathResource;
import org.springframework.core.io.Resource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.server.protocol.Protocol;

/**
 * The vocabularies that metadata refers to. They are served here because some clients fetch what is
 * referred to, with the credentials they have for this service.
 */
@RestController
public class VocabularyController {
    /** Where they are, from the root of the server. */
    static final String HOME = Protocol.ODATA_AT + "vocabularies/";

    @GetMapping(HOME + "{name:Org\\.OData\\.[A-Z][a-z]+\\.V1}.xml")
    ResponseEntity<Resource> vocabulary(@PathVariable String name) {
        var file = new ClassPathResource("vocabularies/" + name + ".xml");
        return file.exists()
                ? ResponseEntity.ok().contentType(MediaType.APPLICATION_XML).body(file)
                : ResponseEntity.notFound().build();
    }
}

package sandpiper.demo;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.Map;

/** Pictures of vessels, one of each kind. */
final class DemoPhotos {
    private DemoPhotos() {}

    /** The picture of a kind of vessel, as the field of a record takes it. */
    static Map<String, Object> of(String kind) {
        var name = kind + ".png";
        try (var picture = DemoPhotos.class.getResourceAsStream("photos/" + name)) {
            if (picture == null) {
                throw new IllegalStateException("There is no picture of a " + kind);
            }
            return Map.of(
                    "name",
                    name,
                    "content",
                    Base64.getEncoder().encodeToString(picture.readAllBytes()));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

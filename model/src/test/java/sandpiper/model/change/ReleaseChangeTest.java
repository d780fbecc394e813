package sandpiper.model.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;

class ReleaseChangeTest {
    private static Release release(String object) {
        return Definitions.check(
                        Map.of(
                                "m/package.yaml",
                                "package: m\nversion: 1\n",
                                "m/objects/o.yaml",
                                object))
                .release()
                .orElseThrow();
    }

    private static List<String> sentences(String before, String after) {
        return ReleaseChange.between(release(before), release(after)).sentences();
    }

    @Test
    void tellsInSentencesWhatChanges() {
        var before =
                "object: Berth\n"
                        + "fields:\n"
                        + "  code: { type: text, length: 8 }\n"
                        + "  rate: { type: decimal }\n"
                        + "  former: { type: date }\n";
        var after =
                "object: Berth\n"
                        + "key: code\n"
                        + "fields:\n"
                        + "  code: { type: text, length: 12, required: true }\n"
                        + "  nightlyRate: { type: decimal, was: rate }\n"
                        + "  open: { type: boolean }\n";

        assertThat(sentences(before, after))
                .containsExactly(
                        "Berth: the key is now code.",
                        "Berth: field code changes from text up to 8 to text up to 12.",
                        "Berth: field code is now required.",
                        "Berth: field rate is renamed to nightlyRate and keeps its values.",
                        "Berth: field nightlyRate is labelled \"Nightly rate\".",
                        "Berth: field open is added (boolean).",
                        "Berth: field former is removed.");
    }

    @Test
    void aFormerNameIsOverOnceItWasFollowed() {
        var after = "object: Berth\nfields:\n  nightlyRate: { type: decimal, was: rate }\n";

        assertThat(sentences(after, after)).isEmpty();
    }

    @Test
    void anObjectKeepsItsRecordsUnderANewName() {
        assertThat(
                        sentences(
                                "object: Berth\nfields: { a: { type: text } }\n",
                                "object: Place\nwas: Berth\nfields: { a: { type: text } }\n"))
                .first()
                .isEqualTo("Object Berth is renamed to Place and keeps its records.");
    }
}

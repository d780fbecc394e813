package sandpiper.model.type;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.NotEmpty;
import net.jqwik.api.constraints.Size;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class FileTypeTest {
    private static final String PDF = base64("%PDF-1.7\nlease");
    private static final String PNG = "iVBORw0KGgoAAAANSUhEUg==";
    private static final FileType ANY = new FileType(List.of(), FileType.USUAL_LARGEST);
    private static final FileType PAPERS = new FileType(List.of("application/pdf", "image/*"), 100);

    private static String base64(String text) {
        return Base64.getEncoder().encodeToString(text.getBytes(StandardCharsets.UTF_8));
    }

    private static Map<String, Object> file(
            String name, @Nullable String type, @Nullable String content) {
        var file = new HashMap<String, Object>();
        file.put("name", name);
        if (type != null) {
            file.put("type", type);
        }
        if (content != null) {
            file.put("content", content);
        }
        return file;
    }

    private static KeptFile taken(FileType type, Object plain) {
        var parsed = type.read(plain);
        assertThat(parsed).isInstanceOf(ParsedValue.Taken.class);
        return (KeptFile) ((ParsedValue.Taken) parsed).value();
    }

    private static String refused(FileType type, Object plain) {
        var parsed = type.read(plain);
        assertThat(parsed).isInstanceOf(ParsedValue.Refused.class);
        return ((ParsedValue.Refused) parsed).message();
    }

    @Test
    void whatAFileIsCanBeLeftToItsBeginning() {
        assertThat(taken(ANY, file("lease.pdf", null, PDF)).mediaType())
                .isEqualTo("application/pdf");
        assertThat(taken(PAPERS, file("boat", null, PNG)).mediaType()).isEqualTo("image/png");
        assertThat(taken(ANY, file("x", null, base64("\0\1\2"))).mediaType())
                .isEqualTo("application/octet-stream");
    }

    @ParameterizedTest
    @CsvSource({
        "text/csv, 'berth,length', true",
        "text/plain; charset=utf-8, Ahoy, true",
        "application/json, '{\"a\": 1}', true",
        "application/x-own, Ahoy, true",
        "application/pdf, '%PDF-1.4', true",
        "application/pdf, Ahoy, false",
        "image/png, <html><script>, false",
        "image/png, Ahoy, false",
        "text/plain, '%PDF-1.4', false",
    })
    void theBytesMustBeOfTheTypeThatIsSaid(String type, String content, boolean fits) {
        var parsed = ANY.read(file("f", type, base64(content)));

        assertThat(parsed instanceof ParsedValue.Taken).as("%s", parsed).isEqualTo(fits);
    }

    @Test
    void onlyAcceptedTypesAreTaken() {
        assertThat(taken(PAPERS, file("b.png", "IMAGE/PNG", PNG)).mediaType())
                .isEqualTo("IMAGE/PNG");
        assertThat(refused(PAPERS, file("n.txt", "text/plain", base64("Ahoy"))))
                .isEqualTo("must be application/pdf or image/*, but \"n.txt\" is text/plain");
        assertThat(refused(PAPERS, file("n.txt", null, base64("Ahoy"))))
                .contains("\"n.txt\" is text/plain");
    }

    @Test
    void aFileHasBytesButNotTooMany() {
        assertThat(refused(PAPERS, file("l.pdf", null, base64("%PDF-1.7" + "x".repeat(93)))))
                .isEqualTo("may have 100 bytes, but \"l.pdf\" has 101");
        assertThat(taken(PAPERS, file("l.pdf", null, base64("%PDF-1.7" + "x".repeat(92)))).size())
                .isEqualTo(100);
        assertThat(refused(ANY, file("none", null, ""))).contains("no bytes");
    }

    @ParameterizedTest
    @ValueSource(strings = {"", " ", "../lease.pdf", "a\\b", "a\nb"})
    void aNameIsOneOfAFile(String name) {
        assertThat(refused(ANY, file(name, null, PDF))).contains("must have a name");
    }

    @Test
    void whatIsNoFileIsToldApart() {
        assertThat(refused(ANY, "lease.pdf")).contains("must be a file").contains("\"lease.pdf\"");
        assertThat(refused(ANY, file("l.pdf", null, null))).contains("needs its content");
        assertThat(refused(ANY, file("l.pdf", null, "not base64!"))).contains("in base64");
        assertThat(refused(ANY, Map.of("name", "l.pdf", "contents", PDF)))
                .contains("but not \"contents\"");
        assertThat(refused(ANY, Map.of("content", PDF))).contains("needs a name");
        assertThat(refused(ANY, Map.of("name", "l", "type", 3L, "content", PDF)))
                .contains("must have a type in text");
        assertThat(refused(ANY, Map.of("name", "l", "type", "pdf", "content", PDF)))
                .contains("must have a media type");
    }

    @Test
    void whatCameOnlyInPartIsNoticed() {
        var file = file("l.pdf", null, PDF);
        file.put("size", 15L);
        assertThat(refused(ANY, file)).contains("other content than its size and sha256 say");
        file.put("size", 14L);
        assertThat(taken(ANY, file).size()).isEqualTo(14);
    }

    @Test
    void asItIsReadItIsTheSameFile() {
        var file = taken(ANY, file("l.pdf", null, PDF));

        var again = taken(ANY, ANY.write(file));

        assertThat(again).isEqualTo(file);
        assertThat(again.bytes()).isNull();
        assertThat(again).isNotEqualTo(taken(ANY, file("other.pdf", null, PDF)));
    }

    @Test
    void bothAlphabetsOfBase64AreRead() {
        var bytes = new byte[] {(byte) 0xfb, (byte) 0xff, (byte) 0xfe};

        for (var encoder : List.of(Base64.getEncoder(), Base64.getUrlEncoder())) {
            assertThat(taken(ANY, file("f", null, encoder.encodeToString(bytes))).sha256())
                    .isEqualTo(new FileBytes(bytes).sha256());
        }
    }

    @Test
    void aNameMayHaveWhatSomeTakeForTheEndOfALine() {
        var file = taken(ANY, file("a\u2028b.pdf", null, PDF));

        assertThat(ANY.readText(ANY.writeText(file))).isEqualTo(ParsedValue.taken(file));
    }

    @Property(tries = 200)
    void itsTextIsReadAgainWhateverItIsCalled(
            @ForAll @NotEmpty @Size(max = 40) String name, @ForAll @NotEmpty byte[] content) {
        var plain = file(name, null, Base64.getEncoder().encodeToString(content));
        if (!(ANY.read(plain) instanceof ParsedValue.Taken(var file))) {
            return;
        }

        assertThat(ANY.readText(ANY.writeText(file)))
                .isEqualTo(
                        ParsedValue.taken(
                                ANY.read(ANY.write(file)) instanceof ParsedValue.Taken(var same)
                                        ? same
                                        : ""));
    }

    @Test
    void aDataUrlBringsItsBytes() {
        var url = "data:application/pdf;name=Mie%20tvertrag+1.pdf;base64," + PDF;

        assertThat(ANY.readText(url))
                .isEqualTo(ParsedValue.taken(taken(ANY, file("Mie tvertrag+1.pdf", null, PDF))));
        assertThat(ANY.readText("data:;base64," + PDF))
                .isEqualTo(ParsedValue.taken(taken(ANY, file("file", null, PDF))));
        assertThat(ANY.readText("lease.pdf")).isInstanceOf(ParsedValue.Refused.class);
        assertThat(ANY.readText("data:text/plain,Ahoy")).isInstanceOf(ParsedValue.Refused.class);
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "application/pdf", "image/*", "image/jpeg", "text/csv", "audio/*"})
    void anExampleIsTaken(String accepts) {
        var type = new FileType(accepts.isEmpty() ? List.of() : List.of(accepts), 1_000);

        assertThat(type.read(type.example())).isInstanceOf(ParsedValue.Taken.class);
    }

    @Test
    void aFileWithoutANameGetsOneWithItsUsualEnding() {
        var bytes = new FileBytes(Base64.getDecoder().decode(PDF));

        assertThat(FileType.nameOf("lease", null, bytes)).isEqualTo("lease.pdf");
        assertThat(FileType.nameOf("lease", "image/png", bytes)).isEqualTo("lease.png");
        assertThat(FileType.nameOf("lease", "application/x-own", bytes)).isEqualTo("lease");
    }

    @Test
    void numbersOfBytesAreReadAsPeopleWriteThem() {
        assertThat(List.of("800", "500 kB", "3 MB", "200MB", "much"))
                .map(ByteCount::of)
                .containsExactly(800L, 500_000L, 3_000_000L, 200_000_000L, 3_000_000L);
        assertThat(List.of("0", "201 MB", "1.5 MB", "3 GB", "-1"))
                .noneMatch(text -> ByteCount.FORM.matcher(text).matches());
    }
}

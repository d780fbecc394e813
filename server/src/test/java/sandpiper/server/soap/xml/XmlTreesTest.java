package sandpiper.server.soap.xml;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Element;
import sandpiper.server.problem.ProblemException;

class XmlTreesTest {
    private static Element root(String message) {
        return XmlTrees.root(message.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void elementsAndAttributesHaveTheirNamespaces() {
        var root = root("<a xmlns='urn:a' xmlns:b='urn:b' b:c='1' d='2'><b:e/></a>");

        assertThat(root.getNamespaceURI()).isEqualTo("urn:a");
        assertThat(root.getAttributeNS("urn:b", "c")).isEqualTo("1");
        assertThat(root.getAttribute("d")).isEqualTo("2");
        assertThat(root.lookupNamespaceURI("b")).isEqualTo("urn:b");
        assertThat(root.getFirstChild().getNamespaceURI()).isEqualTo("urn:b");
        assertThat(root.getFirstChild().getLocalName()).isEqualTo("e");
    }

    @Test
    void textIsOneWhateverItIsWrittenWith() {
        var root =
                root(
                        "<?xml version='1.0'?><!-- before --><a>x&lt;<![CDATA[<y>]]><!-- c"
                                + " -->&#x263A;<?to say?>z</a>\n");

        assertThat(root.getTextContent()).isEqualTo("x<<y>☺z");
    }

    @Test
    void aMessageSaysInWhichCharactersItIs() {
        var message = "<?xml version='1.0' encoding='ISO-8859-1'?><a>Grüße</a>";

        assertThat(XmlTrees.root(message.getBytes(StandardCharsets.ISO_8859_1)).getTextContent())
                .isEqualTo("Grüße");
        assertThat(XmlTrees.root("<a>Grüße</a>".getBytes(StandardCharsets.UTF_16)).getTextContent())
                .isEqualTo("Grüße");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<a><b></a> | at line 1, column",
                "<a/><b/> | not XML",
                "<a>&nobody;</a> | not XML",
                "<p:a/> | not XML",
                "'<a b=\"1\" b=\"2\"/>' | not XML",
                "{} | not XML",
                "'<!DOCTYPE a><a/>' | no DOCTYPE",
                "'<!DOCTYPE a [<!ENTITY b \"c\">]><a>&b;</a>' | no DOCTYPE"
            })
    void whatIsNoXmlIsRefusedWithItsPlace(String message, String said) {
        assertThatThrownBy(() -> root(message))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().status()).isEqualTo(400))
                .hasMessageContaining(said)
                .hasMessageNotContaining("[row,col");
    }

    @Test
    void nothingIsNoMessage() {
        assertThatThrownBy(() -> root("")).hasMessageContaining("empty");
    }

    @Test
    void whatIsMadeOfTooMuchIsRefusedAsThat() {
        var deep = "<a>".repeat(61) + "</a>".repeat(61);
        var wide = "<a>" + "<b/>".repeat(XmlBounds.MOST_ELEMENTS) + "</a>";
        var attributes = new StringBuilder("<a");
        for (int i = 0; i <= XmlBounds.MOST_ATTRIBUTES; i++) {
            attributes.append(" a").append(i).append("='1'");
        }
        attributes.append("/>");

        refused(deep, "60 elements deep");
        refused(wide, "50,000 elements");
        refused(attributes.toString(), "50 attributes");
        refused("<" + "a".repeat(201) + "/>", "200 characters");
        assertThat(root("<a>".repeat(60) + "</a>".repeat(60)).getLocalName()).isEqualTo("a");
    }

    private static void refused(String message, String said) {
        assertThatThrownBy(() -> root(message))
                .isInstanceOfSatisfying(
                        ProblemException.class,
                        e -> assertThat(e.problem().status()).isEqualTo(413))
                .hasMessageContaining(said);
    }
}

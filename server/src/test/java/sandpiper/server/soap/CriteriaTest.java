package sandpiper.server.soap;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.Map;
import javax.xml.parsers.DocumentBuilderFactory;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.w3c.dom.Element;
import sandpiper.logic.condition.Condition;
import sandpiper.logic.condition.Operand;
import sandpiper.logic.filter.Checked;
import sandpiper.logic.filter.ConditionChecker;
import sandpiper.model.check.Definitions;
import sandpiper.model.release.Release;
import sandpiper.model.release.ResourceType;
import sandpiper.server.problem.ProblemException;

/** What records are looked for by in a message, as a condition of the language. */
public class CriteriaTest {
    private static final Release RELEASE =
            Definitions.check(
                            Map.of(
                                    "m/package.yaml",
                                    "package: m\nversion: 1\n",
                                    "m/objects/pier.yaml",
                                    "object: Pier\n"
                                        + "key: code\n"
                                        + "fields: { code: { type: text }, open: { type: boolean }"
                                        + " }\n",
                                    "m/objects/berth.yaml",
                                    """
                                    object: Berth
                                    key: code
                                    fields:
                                      code: { type: text }
                                      pier: { type: reference, to: Pier }
                                      side: { type: choice, choices: [port, starboard] }
                                      depth: { type: decimal, scale: 1 }
                                      boats: { type: integer }
                                      vat: { type: percent }
                                      fee: { type: amount, currency: EUR }
                                      since: { type: date }
                                      opens: { type: time }
                                      seen: { type: date-time }
                                      work: { type: duration }
                                      free: { type: boolean }
                                      gate: { type: uuid }
                                    """,
                                    "m/services/berths.yaml",
                                    """
                                    service: berths
                                    version: 1
                                    protocols: [soap]
                                    resources:
                                      berths:
                                        object: Berth
                                        query:
                                          fields: [code]
                                          filter: [code, pier, pier.open, side, depth, boats, vat, fee, since, opens, seen, work, free, gate]
                                    """))
                    .release()
                    .orElseThrow();

    private static final ResourceType BERTHS =
            RELEASE.service("berths", 1).orElseThrow().resources().getFirst();

    private static Element element(String xml) {
        try {
            var factory = DocumentBuilderFactory.newDefaultNSInstance();
            return factory.newDocumentBuilder()
                    .parse(new ByteArrayInputStream(xml.getBytes(StandardCharsets.UTF_8)))
                    .getDocumentElement();
        } catch (Exception e) {
            throw new AssertionError(xml, e);
        }
    }

    private static String condition(String inside) {
        return Criteria.condition(BERTHS, element("<criteria>" + inside + "</criteria>"));
    }

    private static Checked checked(String condition) {
        return ConditionChecker.check(
                condition, RELEASE.recordType(RELEASE.object("Berth")), Clock.systemUTC());
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "<code><equals>N-7</equals></code> | code = \"N-7\"",
                "<boats><from>2</from><to>5</to></boats> | boats >= 2 and boats <= 5",
                "<depth><equals>2.50</equals></depth> | depth = 2.50",
                "<vat><to>19</to></vat> | vat <= 19",
                "<fee><from>-0.5</from></fee> | fee >= -0.5",
                "<since><from>2026-05-01</from></since> | since >= date(\"2026-05-01\")",
                "<since><equals>2026-05-01+02:00</equals></since> | since = date(\"2026-05-01\")",
                "<opens><to>10:30:00Z</to></opens> | opens <= time(\"10:30:00\")",
                "<seen><from>2026-05-01T10:00:00Z</from></seen> | seen >= date and"
                        + " time(\"2026-05-01T10:00:00Z\")",
                "<work><equals>PT36H</equals></work> | work = duration(\"PT36H\")",
                "<free><equals>1</equals></free> | free = true",
                "<free><equals>false</equals></free> | free = false",
                "<side><anyOf>port</anyOf></side> | (side = \"port\")",
                "<side><anyOf>port</anyOf><anyOf>starboard</anyOf></side> | (side = \"port\" or"
                        + " side = \"starboard\")",
                "<pier><equals>N</equals></pier> | pier = \"N\"",
                "<pierOpen><equals>true</equals></pierOpen> | pier.open = true",
                "<code><isEmpty>true</isEmpty></code> | code = null",
                "<code><isEmpty>0</isEmpty></code> | code != null",
                "<code><like>N*</like></code> | starts with(code, \"N\")",
                "<code><like>*7</like></code> | ends with(code, \"7\")",
                "<code><like>*-*</like></code> | contains(code, \"-\")",
                "<code><like>N-7</like></code> | code = \"N-7\"",
                "<code><like>N*</like></code><free><equals>1</equals></free> | starts with(code,"
                        + " \"N\") and free = true"
            })
    void eachCriterionIsACondition(String xml, String condition) {
        assertThat(condition(xml)).isEqualTo(condition);
        assertThat(checked(condition)).as(condition).isInstanceOf(Checked.Accepted.class);
    }

    @Test
    void nothingAskedIsEverything() {
        assertThat(condition("")).isEmpty();
        assertThat(condition("<code/>")).isEmpty();
    }

    @Test
    void aStarInTheMiddleIsNotUnderstood() {
        assertThatThrownBy(() -> condition("<code><like>N*7</like></code>"))
                .isInstanceOf(ProblemException.class)
                .hasMessageContaining("only at the beginning and the end");
        assertThatThrownBy(() -> condition("<code><like>*N*7*</like></code>"))
                .isInstanceOf(ProblemException.class);
    }

    @Test
    void aStarAloneIsAnything() {
        assertThat(checked(condition("<code><like>*</like></code>")))
                .isInstanceOf(Checked.Accepted.class);
    }

    @Provide
    Arbitrary<String> texts() {
        return Arbitraries.strings()
                .withChars("\"\\{}'?*%_ab ä\u2603")
                .ofMaxLength(12)
                .filter(text -> text.equals(text.strip()));
    }

    /** Whatever somebody looks for stays what is looked for: it never becomes part of the logic. */
    @Property
    void textsStayTexts(@ForAll("texts") String text) {
        var escaped = text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;");

        var checked = checked(condition("<code><equals>" + escaped + "</equals></code>"));

        assertThat(checked)
                .isInstanceOfSatisfying(
                        Checked.Accepted.class,
                        accepted -> {
                            assertThat(accepted.condition()).isInstanceOf(Condition.Compare.class);
                            var compared = (Condition.Compare) accepted.condition();
                            assertThat(compared.right())
                                    .isInstanceOfSatisfying(
                                            Operand.Value.class,
                                            value -> assertThat(value.value()).isEqualTo(text));
                        });
    }
}

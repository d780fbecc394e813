package sandpiper.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sandpiper.client.ManageClient;
import sandpiper.demo.DemoPackages;
import sandpiper.demo.TideTable;

/** Connections in the console: made from a document, mapped by picking, used in a form. */
@ExtendWith(Marina.class)
class ConnectionsConsoleTest extends ConsoleJourney {
    private static final String CONTRACT =
            DemoPackages.files().get("gullhaven/connections/tide-table.openapi.json");

    @AfterEach
    void leaveAllAsItWas() {
        Marina.tides().behave(TideTable.Mode.WELL);
        Marina.call(
                Marina.CONSULTANT,
                "POST",
                "/manage/v1/draft/take-back",
                ManageClient.write(Map.of()));
    }

    @Test
    void aConsultantMakesOneFromADocumentAndMapsItByPicking() {
        signIn("consultant", "/connections");
        assertThat(page.locator("[data-test=tide-table]")).containsText("rate(currency, day)");
        page.getByText("New connection").click();
        page.getByLabel("Document from a file")
                .setInputFiles(
                        new FilePayload(
                                "office.json",
                                "application/json",
                                CONTRACT.replace("\"Tide table\"", "\"Harbour office\"")
                                        .getBytes(StandardCharsets.UTF_8)));
        assertThat(page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)))
                .hasValue("harbour-office");
        for (var operation : List.of("GET /gauges", "GET /rates/{currency}")) {
            page.locator("li .ant-checkbox-wrapper")
                    .filter(
                            new Locator.FilterOptions()
                                    .setHas(
                                            page.getByText(
                                                    operation,
                                                    new Page.GetByTextOptions().setExact(true))))
                    .click();
        }
        inDialog("Make it").click();

        assertThat(page.locator("h1")).hasText("Harbour office");
        assertThat(page.getByText("No errors in this file.")).isVisible();
        assertThat(page.locator("[data-test=reach]")).containsText("no address for it yet");
        button("Give an address").click();
        page.locator("#r-address").fill(Marina.tides().address());
        page.locator(".ant-modal .ant-select").click();
        page.getByText("A token (bearer)").click();
        page.locator("#r-secret").fill(TideTable.TOKEN);
        inDialog("Save").click();
        assertThat(page.locator("[data-test=reach]")).containsText(Marina.tides().address());

        page.locator("[data-test=gauges]").getByText("Try and pick").click();
        page.getByLabel("name", new Page.GetByLabelOptions().setExact(true)).fill("gull");
        button("Try it").click();
        assertThat(page.locator("[data-test=source]")).containsText("What came in");
        page.locator("[data-test='data']").click();
        page.locator("[data-test='data.[].name']").click();
        page.locator("[data-test='data.[].id']").click();
        inDialog("Take these places").click();
        assertThat(page.getByLabel("Code of gauges")).hasValue("name");
        assertThat(page.getByLabel("Label of gauges")).hasValue("id");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");

        page.navigate(
                Marina.address() + "/packages/file/gullhaven/connections/harbour-office.yaml");
        assertThat(page.locator(".cm-content")).containsText("key: name");
    }

    @Test
    void aFormChoosesFromOutsideAndSaysWhenThatDoesNotAnswer() {
        signIn("consultant", "/data/Stay?filter=state%20%3D%20%22Requested%22");
        page.locator(".ant-table-row a").first().click();
        var gauge = page.locator("#f-gauge");
        gauge.click();
        gauge.fill("skerry");
        page.getByText("skerry-light · Skerry Light").click();
        button("Save").click();
        assertThat(page.locator("[data-test=history]")).containsText("skerry-light");

        Marina.tides().behave(TideTable.Mode.DOWN);
        gauge.fill("tern");
        assertThat(page.locator("[role=status]")).containsText("Tide table does not answer");
    }
}

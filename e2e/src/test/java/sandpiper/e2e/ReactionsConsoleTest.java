package sandpiper.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Page;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** Functions, events, webhooks and requirements in the console. */
@ExtendWith(Marina.class)
class ReactionsConsoleTest extends ConsoleJourney {

    @Test
    void aClerkCallsAFunctionOnARecordAndOnSeveral() {
        signIn("clerk", "/data/Stay?filter=state%20%3D%20%22Confirmed%22");
        page.locator(".ant-table-row a").first().click();
        button("Check in").click();
        page.locator("#a-meter").fill("12.5");
        inDialog("Check in").click();

        assertThat(page.locator("[data-test=result]")).containsText("Welcome, ");
        inDialog("Close").click();
        assertThat(page.locator("[data-test=state]")).hasText("Alongside");
        assertThat(page.locator("[data-test=history]")).containsText("meterStart");

        page.navigate(Marina.address() + "/data/Stay?filter=state%20%3D%20%22Departed%22");
        page.locator(".ant-table-row .ant-checkbox-input").nth(0).check();
        page.locator(".ant-table-row .ant-checkbox-input").nth(1).check();
        assertThat(page.locator("[data-test=chosen]")).hasText("2 chosen:");
        button("Check out").click();
        inDialog("Check out").click();

        assertThat(page.locator("[data-test=results]")).hasText("0 done, 2 refused.");
        assertThat(page.getByText("Check out is possible only when the Stay is Alongside").first())
                .isVisible();
    }

    @Test
    void aConsultantWritesAFunctionSeesItsMistakeAndTriesIt() {
        signIn("consultant", "/model/Invoice");
        page.getByText("Functions", new Page.GetByTextOptions().setExact(true)).click();
        page.getByText("Add function").click();
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        var body = page.getByLabel("Steps of newFunction");
        body.click();
        page.keyboard().press("Control+a");
        page.keyboard().type("set payd = true");
        assertThat(page.locator("[data-test=diagnostics]")).containsText("Did you mean paid?");

        body.click();
        page.keyboard().press("Control+a");
        page.keyboard().type("set paid = true");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        page.locator("article", new Page.LocatorOptions().setHas(body)).getByText("Try it").click();
        var picker = page.locator(".try .ant-select input");
        picker.click();
        page.locator(".ant-select-item-option").first().click();
        page.locator(".try .ant-btn-primary").click();

        assertThat(page.getByText("What would change")).isVisible();
        assertThat(page.locator(".try .change").first()).containsText("paid");

        button("Remove newFunction").click();
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
    }

    @Test
    void theAccountOfARefusedCallIsWalkedThroughAndLeadsToItsLine() {
        Marina.call(
                Marina.CONSULTANT,
                "POST",
                "/manage/v1/functions/Stay/checkOut",
                "{\"key\": \"ST-2026-000001\", \"arguments\": {\"meter\": 7}}");
        signIn("consultant", "/activity");
        page.locator("button.one", new Page.LocatorOptions().setHasText("checkOut Stay"))
                .first()
                .click();
        page.getByLabel("Step on").click();

        assertThat(page.locator("[data-test=standing]"))
                .containsText("Nothing has changed by this step.");
        page.locator(".steps a", new Page.LocatorOptions().setHasText("checkOut")).first().click();
        assertThat(page).hasURL(Pattern.compile(".*/model/Stay\\?at=checkOut"));
        assertThat(page.locator(".cm-line.cm-activeLine").first()).containsText("checkOut:");
    }

    @Test
    void requirementsAreShownWithWhatProvesThem() {
        signIn("consultant", "/requirements");

        assertThat(page.locator("[data-test=proved]")).hasText("14 proved");
        var first = page.locator("[data-test=R-09]");
        assertThat(first).containsText("The power a vessel drew is charged when it leaves.");
        first.getByText("Meter runs backwards").click();
        assertThat(first).containsText("The meter stood at 1200");
    }

    @Test
    void aWebhookIsMadeAndWhatItsReceiverRefusesIsShownWithEachTry() {
        signIn("consultant", "/webhooks");
        page.getByText("New webhook").click();
        page.locator("#w-name").fill("chandler");
        page.locator("#w-label").fill("The chandler");
        page.locator("#w-address").fill(Marina.bookkeeping().address());
        page.getByLabel("Events").first().click();
        page.keyboard().type("StayBegan");
        page.keyboard().press("Enter");
        page.locator("#w-label").click();
        inDialog("Save").click();

        assertThat(page.locator("[data-test=secret]")).containsText(Pattern.compile("^whsec_"));
        button("I have noted it").click();
        var row = page.locator("[data-test=chandler]");
        assertThat(row).containsText("StayBegan");
        row.getByText("Send a test").click();

        page.navigate(Marina.address() + "/activity?show=deliveries");
        var delivery =
                page.locator("tr", new Page.LocatorOptions().setHasText("webhook chandler"))
                        .first();
        assertThat(delivery).containsText(Pattern.compile("waiting|parked"));
        delivery.getByText("Tries").click();
        assertThat(page.locator(".attempt").first()).containsText("webhook-signature: v1,");
        assertThat(page.locator(".attempt").first()).containsText("401");

        page.navigate(Marina.address() + "/webhooks");
        row.getByText("Remove").click();
        page.locator(".ant-popconfirm-buttons .ant-btn-primary").click();
        assertThat(row).hasCount(0);
    }
}

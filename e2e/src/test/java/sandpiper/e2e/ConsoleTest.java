package sandpiper.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;

/** The console in a real browser. */
@ExtendWith(Marina.class)
class ConsoleTest extends ConsoleJourney {
    private static final List<String> PAGES =
            List.of(
                    "/",
                    "/packages",
                    "/packages/file/gullhaven/choices/season.yaml",
                    "/model",
                    "/model/Stay",
                    "/data/Stay?filter=state%20%3D%20%22Alongside%22&chart=RING.vessel..",
                    "/data/Stay/new",
                    "/data/Stay/record/ST-2026-000042",
                    "/services",
                    "/services/berth-desk-v1/design",
                    "/webhooks",
                    "/activity",
                    "/access",
                    "/requirements",
                    "/requirements/write/gullhaven/requirements/marina.yaml",
                    "/releases");
    private static final int SETTLED = 50;
    private static final int COLOURS_SETTLED = 350;

    @Test
    void aStrangerSeesTheSignInAndAWrongPasswordIsTold() {
        watched.expect("401 POST /manage/v1/session");
        page.navigate(Marina.address() + "/data/Stay");
        page.locator("#name").fill("clerk");
        page.locator("#password").fill("wrong");
        button("Sign in").click();

        assertThat(page.getByText("The name or the password is not right.")).isVisible();
        assertThat(page).hasURL(Pattern.compile(".*/sign-in\\?then=.*"));
    }

    @Test
    void aClerkFindsAStayChangesItAndSeesWhoDidWhat() {
        signIn("clerk", "/data/Stay");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Stays")))
                .isVisible();
        filter("state = \"Alongside\" and berth.pier = \"N\"");
        assertThat(page).hasURL(Pattern.compile(".*filter=.*Alongside.*"));
        assertThat(page.locator("[data-test=total]")).not().hasText("400 records");
        page.locator(".ant-table-row a").first().click();

        page.locator("#f-remarks").fill("Prefers the lee side");
        button("Save").click();

        assertThat(page.getByText("Saved.")).isVisible();
        assertThat(page.locator("[data-test=history]")).containsText("Prefers the lee side");
        assertThat(page.getByText("Services")).hasCount(0);
    }

    @Test
    void aFilterThatIsNoneIsToldAndKeepsWhatWasTyped() {
        watched.expect("400 GET /manage/v1/records/Stay").expect("400 GET /manage/v1/figures/Stay");
        signIn("clerk", "/data/Stay");
        filter("stat = \"Alongside\"");

        assertThat(page.getByText("Did you mean state?")).isVisible();
        assertThat(page.locator(".filter .cm-content")).hasText("stat = \"Alongside\"");
    }

    /** Writes a filter of a list as text. */
    private void filter(String text) {
        button("Filter").click();
        asText("Filter");
        page.locator(".filter .cm-content").click();
        page.keyboard().type(text);
        page.keyboard().press("Escape");
    }

    /** Shows a condition as text instead of as parts. */
    private void asText(String label) {
        page.getByLabel("How to write: " + label).getByText("FEEL").click();
    }

    @Test
    void aNewOwnerIsRefusedWithMessagesAtTheFieldsAndThenSaved() {
        watched.expect("422 POST /manage/v1/records/Owner");
        signIn("clerk", "/data/Owner/new");
        page.locator("#f-code").fill("OWNER-1");
        page.locator("#f-email").fill("nobody");
        button("Save").click();

        assertThat(page.getByText("Name is required.")).isVisible();
        assertThat(page.getByText("Code must have the form OW-[0-9]{4}")).isVisible();
        assertThat(page.getByText("Email must be an email address")).isVisible();

        page.locator("#f-code").fill("OW-0777");
        page.locator("#f-name").fill("Fenja Dorsch");
        page.locator("#f-email").fill("fenja.dorsch@example.org");
        button("Save").click();

        assertThat(page).hasURL(Pattern.compile(".*/data/Owner/record/OW-0777"));
        assertThat(
                        page.getByRole(
                                AriaRole.HEADING,
                                new Page.GetByRoleOptions().setName("Owner OW-0777")))
                .isVisible();
    }

    @Test
    void aConsultantAddsAFieldSeesAMistakeWhileTypingMendsItAndReleases() {
        signIn("consultant", "/model/WorkRequest");
        page.getByText("Add field").click();
        page.locator("input[data-field=newField]").fill("slipway");
        page.locator("input[data-field=newField]").press("Enter");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        assertThat(page.locator(".cm-content")).containsText("slipway: { type: text }");

        page.locator(".cm-line", new Page.LocatorOptions().setHasText("slipway")).click();
        page.keyboard().press("End");
        page.keyboard().press("Enter");
        page.keyboard().type("jetty: { type: bolean }");
        assertThat(page.locator("[data-test=diagnostics]")).containsText("Did you mean boolean?");
        page.keyboard().press("Control+Shift+k");
        assertThat(page.getByText("No errors in this file.")).isVisible();

        page.locator("a", new Page.LocatorOptions().setHasText("Release")).last().click();
        assertThat(page.locator("[data-test=changes]"))
                .containsText("WorkRequest: field slipway is added");
        page.getByLabel("Note").fill("Where the job is done");
        button("Release").click();

        assertThat(page.getByText("is live.")).isVisible();
        page.navigate(Marina.address() + "/data/WorkRequest/new");
        assertThat(page.locator("#f-slipway")).isVisible();
    }

    @Test
    void aConsultantSeesTheModelAndTriesACall() {
        watched.expect("409 POST /api/berth-desk/v1/stays/ST-2026-000001/check-in");
        signIn("consultant", "/model");
        assertThat(page.locator(".vue-flow__node")).hasCount(10);
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("From the owner to the ledger"))
                .click();
        assertThat(page.locator(".vue-flow__edge-textwrapper").getByText("costCentre")).hasCount(3);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName("Open it")).click();
        assertThat(page.locator("[data-test=step]")).hasCount(4);
        assertThat(page.locator("[data-test=traveller]")).containsText("Owner.costCentre");
        page.navigate(Marina.address() + "/services/berth-desk-v1");
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Contract")).click();
        assertThat(page.locator("[data-test=contract]")).containsText("\"openapi\": \"3.1.0\"");
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Try a call")).click();
        page.getByLabel("Filter").fill("state = \"Alongside\"");
        button("Send").click();

        assertThat(page.locator("[data-test=answer]")).containsText("\"state\": \"Alongside\"");
        page.getByLabel("Operation").first().click();
        page.locator(".ant-select-item-option").getByText("Check in").click();
        page.getByLabel("Key", new Page.GetByLabelOptions().setExact(true)).fill("ST-2026-000001");
        button("Send").click();

        assertThat(page.locator("[data-test=answer]")).containsText("Check in");
    }

    @Test
    void aConsultantSeesAMistakeInACheckUnderlinedAndTriesItOnARecord() {
        signIn("consultant", "/model/Stay");
        page.getByText("Checks", new Page.GetByTextOptions().setExact(true)).click();
        asText("Condition of leavesAfterArriving");
        var condition =
                page.getByLabel(
                        "Condition of leavesAfterArriving",
                        new Page.GetByLabelOptions().setExact(true));
        condition.click();
        page.keyboard().press("Control+a");
        page.keyboard().type("departure > arival");
        assertThat(page.locator(".logic .cm-lintRange-error").first()).hasText("arival");

        condition.click();
        page.keyboard().press("Control+a");
        page.keyboard().type("nights > 3 and vess");
        assertThat(page.locator(".cm-tooltip-autocomplete")).containsText("vessel");
        page.keyboard().press("Escape");
        page.keyboard().press("Control+a");
        page.keyboard().type("departure > arrival ");
        page.locator(".try .ant-select").click();
        page.keyboard().type("ST-2026-000042");
        page.locator(".ant-select-item-option").first().click();
        assertThat(page.locator("[data-test=tried]")).hasText("true");
    }

    @Test
    void theDockMasterSeesTotalsMoveWhileTypingAndConfirmsAStay() {
        signIn("dock-master", "/data/Stay?filter=" + ManageClient.escape("state = \"Requested\""));
        page.locator(".ant-table-row a").first().click();
        assertThat(page.locator("[data-test=state]")).hasText("Requested");
        var before = page.locator("#f-grossTotal").inputValue();
        page.locator("#f-nightlyRate").fill("999");
        page.locator("#f-nightlyRate").press("Tab");

        assertThat(page.locator("#f-grossTotal")).not().hasValue(before);
        assertThat(page.getByText("Not saved yet")).isVisible();
        assertThat(button("Confirm")).isDisabled();
        page.locator("#f-departure").fill("2020-01-01");
        assertThat(page.getByText("Departure must be after arrival")).isVisible();
    }

    @Test
    void aConsultantMakesAClientSeesItsSecretOnceAndTriesSoap() {
        signIn("consultant", "/access");
        page.getByText("New client").click();
        page.getByLabel("Client name").fill("ferry-line");
        page.getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Grant"))
                .click();
        button("Make it").click();
        var secret = page.locator("[data-test=secret]").innerText();
        org.assertj.core.api.Assertions.assertThat(
                        Marina.get("ferry-line:" + secret, "/api/vessel-registry/v1/vessels")
                                .status())
                .isEqualTo(200);
        button("I have noted it").click();
        assertThat(page.locator("[data-test=ferry-line]")).containsText("vessel-registry/*/*");

        page.locator("[data-test=ferry-line]")
                .getByText("Disable", new Locator.GetByTextOptions().setExact(true))
                .click();
        assertThat(page.locator("[data-test=ferry-line]")).containsText("disabled");

        page.navigate(Marina.address() + "/services/harbour-report-v1");
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Try a call")).click();
        button("Send").click();
        assertThat(page.locator("[data-test=soap-answer]")).containsText("<FindStaysResponse");

        page.navigate(Marina.address() + "/services/berth-desk-v1");
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Try a call")).click();
        page.getByText("OData", new Page.GetByTextOptions().setExact(true)).click();
        button("Send").click();
        assertThat(page.locator("[data-test=odata-answer]")).containsText("@odata.context");
    }

    @Test
    void thePaletteGoesAnywhere() {
        signIn("consultant", "/");
        assertThat(page.getByText("Where things stand")).isVisible();
        page.keyboard().press("Control+k");
        page.getByLabel("Find anything").fill("new vessel");
        assertThat(page.getByText("New vessel")).isVisible();
        page.keyboard().press("Enter");

        assertThat(page).hasURL(Pattern.compile(".*/data/Vessel/new"));
    }

    /** A button that has an icon, which is read out before its name. */
    private Locator iconButton(String name) {
        return page.getByRole(
                AriaRole.BUTTON,
                new Page.GetByRoleOptions().setName(Pattern.compile("\\b" + name + "$")));
    }

    private Locator tick(String column, String path) {
        return page.getByLabel(column + " " + path, new Page.GetByLabelOptions().setExact(true));
    }

    @Test
    void aServiceIsMadeForAnObjectAndDesignedByTicking() {
        signIn("consultant", "/services");
        iconButton("New").click();
        page.getByLabel("Object it shows").last().click();
        page.keyboard().type("tariff");
        page.keyboard().press("Enter");
        assertThat(page.locator("[data-test=existing]")).hasText("No service shows Tariff yet.");
        page.getByLabel("Name of the service").fill("price-list");
        page.getByText("Read and find", new Page.GetByTextOptions().setExact(true)).click();
        page.getByText("OData", new Page.GetByTextOptions().setExact(true)).last().click();
        button("Make the service").click();

        assertThat(page).hasURL(Pattern.compile(".*/services/price-list-v1/design"));
        try {
            assertThat(tick("Read", "unitPrice")).isChecked();
            assertThat(tick("Create", "unitPrice")).not().isChecked();
            assertThat(page.locator("[data-test=answered]")).containsText("\"unitPrice\"");

            tick("Read", "unitPrice").click();
            assertThat(page.locator("[data-test=answered]")).not().containsText("\"unitPrice\"");
            tick("Update", "unitPrice").click();
            page.getByText("Text", new Page.GetByTextOptions().setExact(true)).last().click();
            assertThat(page.locator(".cm-content")).containsText("update: { fields: [unitPrice] }");
            assertThat(page.getByText("No errors in this file.")).isVisible();

            page.getByText("Contract", new Page.GetByTextOptions().setExact(true)).last().click();
            assertThat(page.locator("[data-test=contract]")).containsText("price-list/v1");
            page.getByText("JSON Schema").click();
            assertThat(page.locator("[data-test=contract]")).containsText("TariffUpdate");

            tick("Create", "code").click();
            assertThat(page.locator("[data-test=diagnostics]"))
                    .containsText("No record could be created");
        } finally {
            Marina.call(
                    Marina.CONSULTANT,
                    "DELETE",
                    "/manage/v1/draft/file?path=gullhaven/services/price-list.yaml",
                    "");
        }
    }

    @Test
    void aRoleIsMadeAndGivenToANewPersonWhoChangesThePassword() {
        signIn("consultant", "/access");
        iconButton("New role").click();
        page.getByLabel("Role name").fill("lock-keeper");
        page.getByLabel("Label", new Page.GetByLabelOptions().setExact(true)).fill("Lock keeper");
        iconButton("Object").click();
        page.getByLabel("Object", new Page.GetByLabelOptions().setExact(true)).first().click();
        page.keyboard().type("stay");
        page.keyboard().press("Enter");
        var grant = page.locator("[data-test=object-grant]");
        grant.getByText("FEEL").click();
        grant.locator(".cm-content").fill("state = \"Alongside\"");
        button("Make it").click();
        assertThat(page.locator("[data-test=role-lock-keeper]"))
                .containsText("Stay: view, where state = \"Alongside\"");

        iconButton("New person").click();
        page.getByPlaceholder("for signing in").fill("lotte");
        page.getByLabel("Roles", new Page.GetByLabelOptions().setExact(true)).last().click();
        page.keyboard().type("Lock");
        page.keyboard().press("Enter");
        page.getByLabel("Password", new Page.GetByLabelOptions().setExact(true))
                .fill(Demo.PASSWORD);
        button("Add").click();
        assertThat(page.locator("[data-test=role-lock-keeper]")).containsText("held by lotte");

        page.context()
                .clearCookies(
                        new BrowserContext.ClearCookiesOptions()
                                .setName(Pattern.compile("^(?!XSRF).*")));
        signIn("lotte", "/data/Stay");
        // The password was given to her by somebody else.
        page.locator("#next").fill("gates and weirs");
        button("Go on with this one").click();
        assertThat(page.locator(".ant-table-row").first()).containsText("Alongside");
        button("Your password and sessions").click();
        assertThat(page.getByText("this one", new Page.GetByTextOptions().setExact(true)))
                .isVisible();
        page.getByLabel("Current password").fill("gates and weirs");
        page.getByLabel("New password").fill("locks and weirs");
        button("Change the password").click();
        assertThat(page).hasURL(Pattern.compile(".*/sign-in.*"));
    }

    /** Whoever typed when the session ended signs in over the page, and nothing is lost. */
    @Test
    void aSessionThatEndsLosesNothingThatWasTyped() {
        watched.expect("401 ");
        signIn("consultant", "/model/WorkRequest");
        var label = page.getByLabel("Label of title", new Page.GetByLabelOptions().setExact(true));
        label.waitFor();
        page.context()
                .clearCookies(
                        new BrowserContext.ClearCookiesOptions()
                                .setName(Pattern.compile("^(?!XSRF).*")));
        label.fill("What is to be done");
        assertThat(page.getByText("Your session has ended")).isVisible();
        page.locator("#again").fill(Demo.PASSWORD);
        page.getByRole(AriaRole.DIALOG)
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Sign in"))
                .click();
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        assertThat(label).hasValue("What is to be done");
        button("Undo").click();
        assertThat(label).hasValue("");
    }

    /** Every page in every look keeps the rules of WCAG 2.2, A and AA, as far as axe-core sees. */
    @Test
    void everyPageIsAccessibleInLightAndDark() {
        signIn("consultant", "/");
        assertThat(page.getByText("Where things stand")).isVisible();
        for (var path : PAGES) {
            page.navigate(Marina.address() + path);
            page.locator("main h1, main .empty").first().waitFor();
            look();
        }
        page.navigate(Marina.address() + "/model/Stay");
        for (var tab :
                List.of(
                        "Form and list",
                        "Formulas",
                        "Checks",
                        "Rules",
                        "Lifecycle",
                        "Functions",
                        "Reactions")) {
            page.getByText(tab, new Page.GetByTextOptions().setExact(true)).first().click();
            look();
        }
    }

    /** Of the other look nothing differs but colours, so that only they are looked at again. */
    private void look() {
        page.waitForTimeout(SETTLED);
        watched.assertAccessible();
        button("Light or dark").click();
        page.waitForTimeout(COLOURS_SETTLED);
        watched.assertContrast();
    }
}

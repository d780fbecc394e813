package sandpiper.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.FilePayload;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.client.ManageClient;
import sandpiper.demo.Demo;

/**
 * From an empty instance to a call of a service, with clicks and keys alone: no file is written by
 * hand and no command is given.
 */
class FirstAfternoonTest {
    private static Chromium chromium;

    @TempDir Path folder;
    private Page page;
    private Watched watched;
    private String base;

    @BeforeAll
    static void open() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close() {
        chromium.close();
    }

    private Locator button(String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    private Locator dialogButton(String name) {
        return page.getByRole(AriaRole.DIALOG)
                .last()
                .getByRole(
                        AriaRole.BUTTON,
                        new Locator.GetByRoleOptions().setName(name).setExact(true));
    }

    private Locator field(String label) {
        return page.getByLabel(label, new Page.GetByLabelOptions().setExact(true));
    }

    private void go(String path) {
        page.navigate(base + path);
    }

    private void signIn() {
        go("/");
        page.locator("#name").fill(Demo.ADMIN);
        page.locator("#password").fill(Demo.PASSWORD);
        button("Sign in").click();
        assertThat(page.getByText("Where things stand")).isVisible();
    }

    private void choose(String label, String value) {
        var box =
                page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName(label))
                        .last();
        box.focus();
        box.press("ArrowDown");
        page.keyboard().type(value);
        page.locator(".ant-select-dropdown:visible .ant-select-item-option")
                .filter(new Locator.FilterOptions().setHasText(value))
                .first()
                .click();
    }

    @Test
    void everythingIsDefinedReleasedEnteredAndCalled() throws Exception {
        try (var service = ServiceProcess.start(folder.resolve("data.db"), Map.of())) {
            base = service.address();
            page = chromium.page();
            watched = new Watched(page);
            signIn();
            everyPageOpensAndSaysWhatToDo();
            beGuided();
            makeThePackage();
            defineAnotherObject();
            defineTheObject();
            addLineItemsAndAChoiceList();
            addAFormulaAndACheck();
            addARuleAndALifecycle();
            layItOut();
            writeARequirement();
            release("Orders of the yard");
            enterARecord();
            bringRecordsIn();
            lookAtTheList();
            publishAService();
            release("A service for orders");
            tryItAsAClient();
            callAsTheClient(service);
            extendWhatIsDelivered();
            takeTheMarinaOutAgain();
            watched.assertQuiet();
        } catch (RuntimeException | AssertionError e) {
            page.screenshot(
                    new Page.ScreenshotOptions().setPath(Path.of("target/first-afternoon.png")));
            throw e;
        }
    }

    private void everyPageOpensAndSaysWhatToDo() {
        for (var path :
                List.of(
                        "/",
                        "/packages",
                        "/model",
                        "/data",
                        "/services",
                        "/webhooks",
                        "/activity",
                        "/access",
                        "/requirements",
                        "/releases")) {
            go(path);
            assertThat(page.locator("main h1, main .empty").first()).isVisible();
            watched.assertAccessible();
            watched.assertQuiet();
        }
        go("/services");
        page.getByText("Make a package first").click();
        assertThat(page).hasURL(base + "/packages");
    }

    private void beGuided() {
        go("/");
        button("Guide me to a first service").click();
        assertThat(guide()).containsText("Step 1 of 8");
        watched.assertAccessible();
        guide().getByText("Go there").click();
        assertThat(page).hasURL(base + "/packages");
    }

    private Locator guide() {
        return page.locator("[data-test=guide]");
    }

    private void defineAnotherObject() {
        assertThat(guide()).containsText("Step 2 of 8");
        go("/model");
        button("Define the first object").click();
        field("Name of the object").fill("Customer");
        dialogButton("Create").click();
        assertThat(page).hasURL(base + "/model/Customer");
        assertThat(guide()).containsText("Step 3 of 8");
        go("/packages");
    }

    private void makeThePackage() {
        button("Make a package").click();
        field("Label").fill("Boat yard");
        assertThat(field("Name")).hasValue("boat-yard");
        field("Languages").fill("en, de");
        dialogButton("Create").click();
        assertThat(
                        page.getByRole(
                                AriaRole.HEADING, new Page.GetByRoleOptions().setName("Boat yard")))
                .isVisible();
    }

    private void defineTheObject() {
        button("New file: Objects of boat-yard").click();
        field("Name").fill("order");
        dialogButton("Create").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("begins with a capital letter");
        field("Name").fill("Order");
        dialogButton("Create").click();
        assertThat(page).hasURL(base + "/model/Order");

        // Enter goes on from field to field, and several lines become several fields.
        field("Name of name").press("Enter");
        page.locator("input[data-field=newField]").fill("partOf");
        page.locator("input[data-field=newField]").press("Enter");
        assertThat(page.locator("input[data-field=newField]")).isFocused();
        page.locator("input[data-field=newField]").fill("urgency");
        page.keyboard().press("Tab");
        choose("Type of partOf", "reference");
        field("Object that partOf points to").last().fill("Order");
        choose("Type of urgency", "choice");
        page.evaluate(
                "() => { const data = new DataTransfer(); data.setData('text/plain', 'Date of"
                    + " order\\tdate\\nDiscount\\tpercent');"
                    + " document.querySelector('.grid').dispatchEvent(new ClipboardEvent('paste', {"
                    + " clipboardData: data, bubbles: true })) }");
        assertThat(page.locator("input[data-field=dateOfOrder]")).isVisible();
        button("Details of name").click();
        page.getByText("in each language of the package").click();
        assertThat(page.locator(".cm-content")).containsText("localised: true");
        watched.assertAccessible();
    }

    private void addLineItemsAndAChoiceList() {
        button("Make a choice list for urgency").click();
        field("Name of the list").fill("Urgency");
        field("Code 1").fill("low");
        field("Label 1").fill("Can wait");
        field("Code 2").fill("high");
        field("Label 2").fill("At once");
        watched.assertAccessible();
        dialogButton("Create").click();
        assertThat(page.locator(".cm-content")).containsText("choices: Urgency");

        page.getByText("Line items").first().click();
        assertThat(field("Name of the line items")).hasValue("lines");
        field("Name of description").press("Enter");
        page.locator("input[data-field=newField]").fill("price");
        page.keyboard().press("Tab");
        choose("Type of price", "amount");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        assertThat(page.getByText("No errors in this file.")).isVisible();
    }

    private void addAFormulaAndACheck() {
        page.getByText("Fields", new Page.GetByTextOptions().setExact(true)).click();
        page.getByText("Add field").click();
        page.locator("input[data-field=newField]").fill("total");
        page.keyboard().press("Tab");
        choose("Type of total", "amount");
        page.getByText("Formulas", new Page.GetByTextOptions().setExact(true)).click();
        choose("Add a formula or a condition", "total: worked out as");
        type("Worked out as of total", "sum(lines.price)");
        page.getByText("Checks", new Page.GetByTextOptions().setExact(true)).click();
        page.getByText("Add check").click();
        putTogetherOverLines();
        type("Message of check1", "An order needs a line.");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        assertThat(page.getByText("No errors in this file.").or(page.getByText("Try it")).first())
                .isVisible();
        // What was done is taken back and done again.
        button("Undo").click();
        button("Redo").click();
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
    }

    /** At least one line, and none without a price. */
    private void putTogetherOverLines() {
        var card = page.locator("article.one").last();
        partButton(card, "Condition").click();
        assertThat(page.getByText("Not kept yet: one part is not finished.")).isVisible();
        choose("Field of the condition", "Count of lines");
        choose("How it stands", "is more than");
        field("Value").last().fill("0");
        partButton(card, "Over lines").click();
        choose("Field of the condition", "Price");
        choose("How it stands", "is filled in");
        page.getByLabel("How to write: Condition of check1").getByText("FEEL").click();
        assertThat(field("Condition of check1"))
                .hasText("count(lines) > 0 and (every line in lines satisfies line.price != null)");
        page.getByLabel("How to write: Condition of check1").getByText("Parts").click();
        assertThat(page.locator(".comparison")).hasCount(2);
        watched.assertAccessible();
    }

    private static Locator partButton(Locator card, String name) {
        return card.locator(".adding")
                .first()
                .getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(name));
    }

    private void tab(String name) {
        page.getByText(name, new Page.GetByTextOptions().setExact(true)).first().click();
    }

    private void addARuleAndALifecycle() {
        tab("Rules");
        page.getByText("Add rule").click();
        field("On").fill("change of discount");
        page.keyboard().press("Tab");
        partButton(page.locator("article.one"), "Condition").click();
        choose("Field of the condition", "Discount");
        choose("How it stands", "is more than");
        field("Value").last().fill("50");
        button("Insert a step").click();
        choose("Kind of step", "Warn");
        field("Say").fill("More than half is given away.");
        watched.assertAccessible();
        dialogButton("Insert").click();
        assertThat(field("Steps of newRule"))
                .containsText("warn \"More than half is given away.\"");

        tab("Lifecycle");
        button("Add a lifecycle").click();
        button("Condition before close").click();
        choosePart("Code", "is filled in");
        button("Condition before close").click();
        choosePart("Total", "is filled in");
        type("Message of check3", "Without a total it stays open.");
        assertThat(page.getByText("2 must hold")).isVisible();

        tab("Functions");
        page.getByText("Add function").click();
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        watched.assertAccessible();
    }

    private void choosePart(String fieldLabel, String relation) {
        partButton(page.locator(".before article.one").last(), "Condition").click();
        choose("Field of the condition", fieldLabel);
        choose("How it stands", relation);
    }

    private void layItOut() {
        tab("Form and list");
        button("Section").click();
        field("Heading of section 1").fill("What is ordered");
        page.keyboard().press("Tab");
        for (var name : List.of("code", "name")) {
            page.locator("[data-field=" + name + "]").focus();
            page.keyboard().press("Alt+ArrowUp");
        }
        page.locator("[data-field=urgency]").dragTo(page.locator("[data-field=name]"));
        choose("Columns of the list", "Code");
        choose("Columns of the list", "Total");
        page.keyboard().press("Escape");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        assertThat(page.locator(".cm-content").last())
                .containsText("fields: [code, urgency, name]");
        watched.assertAccessible();
    }

    private void writeARequirement() {
        go("/requirements");
        button("Write the first requirement").click();
        field("Number of the requirement").fill("R-1");
        page.locator("#requirement-text").fill("An order has at least one line.");
        button("Example").click();
        choose("Step 1: object", "Order");
        choose("Step 1: add a field", "Code");
        field("Step 1: code").fill("T-1");
        page.keyboard().press("Tab");
        page.getByText("is refused", new Page.GetByTextOptions().setExact(true)).click();
        field("Then: words").fill("An order needs a line");
        page.keyboard().press("Tab");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        assertThat(page.locator("[data-test=holds]")).isVisible();
        watched.assertAccessible();
    }

    private void lookAtTheList() {
        go("/data/Order");
        assertThat(page.locator(".ant-table-thead")).containsText("Total");
        assertThat(page.locator("[data-test=sum]").last()).not().hasText("");
        button("Filter").click();
        partButton(page.locator(".filter"), "Condition").click();
        choose("Field of the condition", "Total");
        choose("How it stands", "is more than");
        field("Value").last().fill("100");
        assertThat(page.locator("[data-test=total]")).hasText("102 records");
        button("Chart").click();
        assertThat(page.locator("[data-test=chart] svg")).isVisible();
        watched.assertAccessible();
        button("Keep view").click();
        field("Name").fill("Large ones");
        dialogButton("Keep").click();
        assertThat(button("Take view away")).isVisible();
        go("/data/Order");
        choose("View", "Large ones");
        assertThat(page.locator("[data-test=total]")).hasText("102 records");
    }

    private void tryItAsAClient() {
        go("/services/orders-desk-v1");
        page.getByRole(AriaRole.TAB, new Page.GetByRoleOptions().setName("Callers")).click();
        button("Client for this service").click();
        var dialog = page.getByRole(AriaRole.DIALOG).last();
        dialog.getByLabel("Client name").fill("till");
        watched.assertAccessible();
        dialogButton("Make it").click();
        dialogButton("I have noted it").click();
        button("Try as this client").click();
        choose("Operation", "Read");
        field("Key").fill("A-1");
        button("Send").click();
        assertThat(page.locator("[data-test=answer]")).containsText("120");
        assertThat(guide()).containsText("That was the whole way");
        guide().getByText("Done").click();
        watched.assertAccessible();
    }

    private void extendWhatIsDelivered() {
        go("/packages");
        button("Bring one in").click();
        button("Choose it").first().click();
        page.getByRole(AriaRole.DIALOG)
                .last()
                .getByRole(
                        AriaRole.BUTTON,
                        new Locator.GetByRoleOptions().setName(Pattern.compile("^Bring .*in")))
                .click();
        assertThat(page.getByRole(AriaRole.DIALOG)).hasCount(0);
        release("The marina, delivered");
        go("/model/Vessel");
        page.getByText("harbour/objects/vessel.yaml").click();
        button("Add fields to it").click();
        choose("Package of the extension", "boat-yard");
        dialogButton("Begin").click();
        page.getByText("Add field").click();
        page.locator("input[data-field=newField]").fill("hullNumber");
        page.keyboard().press("Tab");
        assertThat(page.locator("[data-test=state]")).hasText("Kept in the draft");
        assertThat(page.getByText("No errors in this file.")).isVisible();
        button("Used by").click();
        assertThat(page.locator("[data-test=use]").first()).isVisible();
        watched.assertAccessible();
    }

    /** Delivered or not, a package goes as a whole. */
    private void takeTheMarinaOutAgain() {
        go("/packages");
        for (var name : List.of("Gullhaven Marina", "Harbour")) {
            button("Take out " + name).click();
            page.getByRole(AriaRole.DIALOG)
                    .getByRole(
                            AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("Take it out"))
                    .click();
            assertThat(button("Take out " + name)).hasCount(0);
        }
        assertThat(page.getByText("Taken out since the last release:")).isVisible();
        watched.assertAccessible();
    }

    /** Types into an editor of logic. */
    private void type(String label, String text) {
        var editor = page.getByLabel(label).first();
        editor.click();
        page.keyboard().press("Control+a");
        page.keyboard().type(text);
        page.keyboard().press("Escape");
    }

    private void release(String note) {
        go("/releases");
        assertThat(page.locator("[data-test=changes]")).isVisible();
        watched.assertAccessible();
        field("Note").fill(note);
        button("Release").click();
        assertThat(page.getByText("is live.")).isVisible();
    }

    private void enterARecord() {
        watched.expect("422 POST /manage/v1/records/Order");
        go("/data/Order/new");
        page.locator("#f-code").fill("A-1");
        field("Name (en)").fill("Mast");
        field("Name (de)").fill("Mast");
        button("Save").click();
        assertThat(page.getByText("An order needs a line.").first()).isVisible();
        button("Add").click();
        field("Description").fill("Mast of ash");
        field("Price").fill("120");
        page.keyboard().press("Tab");
        watched.assertAccessible();
        button("Save").click();
        assertThat(page).hasURL(base + "/data/Order/record/A-1");
        assertThat(page.locator("#f-total")).hasValue("120.00");
    }

    private void bringRecordsIn() {
        go("/data/Order");
        var csv = new StringBuilder("Code;Name (en);lines.description;lines.price\n");
        for (int i = 1; i <= 200; i++) {
            csv.append("B-%d;Order %d;Rope;%d.50\n".formatted(i, i, i));
        }
        csv.append("B-200;;Shackle;1\nB-201;No lines;;\n");
        button("Import").click();
        page.locator("input[type=file]")
                .setInputFiles(
                        new FilePayload(
                                "orders.csv",
                                "text/csv",
                                csv.toString().getBytes(StandardCharsets.UTF_8)));
        assertThat(page.locator("[data-test=looked]"))
                .containsText("50 would be created, 0 changed and 0 refused");
        watched.assertAccessible();
        dialogButton("Bring 201 in").click();
        assertThat(page.locator("[data-test=written]"))
                .containsText("200 created, 0 changed or the same, 1 refused");
        assertThat(page.getByText("An order needs a line.")).isVisible();
        dialogButton("Close").last().click();
        assertThat(page.locator("[data-test=total]")).hasText("201 records");
        var saved = page.waitForDownload(() -> button("Export").click());
        assertThat(saved.suggestedFilename()).isEqualTo("Order.csv");
    }

    private void publishAService() {
        go("/services");
        button("Make the first service").click();
        choose("Object it shows", "Order");
        dialogButton("Make the service").click();
        assertThat(page).hasURL(base + "/services/orders-desk-v1/design");
        watched.assertAccessible();
    }

    private void callAsTheClient(ServiceProcess service) throws Exception {
        go("/access");
        button("New client").click();
        var dialog = page.getByRole(AriaRole.DIALOG).last();
        dialog.getByLabel("Client name").fill("shop");
        dialogButton("Grant").click();
        watched.assertAccessible();
        dialogButton("Make it").click();
        var secret = page.locator("[data-test=secret]").innerText();
        var answer =
                HttpClient.newHttpClient()
                        .send(
                                HttpRequest.newBuilder(
                                                URI.create(
                                                        service.address()
                                                                + "/api/orders-desk/v1/orders/A-1"))
                                        .header("Authorization", BasicSignIn.as("shop:" + secret))
                                        .build(),
                                BodyHandlers.ofString());
        assertThat(answer.statusCode()).as(answer.body()).isEqualTo(200);
        assertThat(ManageClient.read(answer.body()).path("total").asInt()).isEqualTo(120);
    }
}

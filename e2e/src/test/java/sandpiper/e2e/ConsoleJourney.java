package sandpiper.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;

/**
 * Journeys through the console of the marina, in one browser for a class and a new page for each.
 * What goes wrong in a page and was not expected fails the journey.
 */
abstract class ConsoleJourney {
    private static Chromium chromium;
    Page page;
    Watched watched;

    @BeforeAll
    static void open() {
        chromium = new Chromium();
    }

    @AfterAll
    static void close() {
        chromium.close();
    }

    @BeforeEach
    void newPage() {
        page = chromium.page();
        watched = new Watched(page);
    }

    @AfterEach
    void nothingWentWrong() {
        watched.assertQuiet();
    }

    /** Another page, of somebody else, that nobody watches. */
    static Page otherPage() {
        return chromium.page();
    }

    void signIn(String name, String then) {
        Chromium.signIn(page, name, then);
    }

    Locator button(String name) {
        return page.getByRole(
                AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    Locator inDialog(String name) {
        return page.locator(".ant-modal-footer button", new Page.LocatorOptions().setHasText(name));
    }
}

package sandpiper.e2e;

import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import com.microsoft.playwright.assertions.PlaywrightAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.ReducedMotion;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import sandpiper.demo.Demo;

/** The browser of the system, without a window. */
final class Chromium implements AutoCloseable {
    private static final double PATIENCE = 15_000;

    private final Playwright playwright =
            Playwright.create(
                    new Playwright.CreateOptions()
                            .setEnv(Map.of("PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD", "1")));
    private final Browser browser =
            playwright
                    .chromium()
                    .launch(
                            new BrowserType.LaunchOptions()
                                    .setExecutablePath(browserOfTheSystem())
                                    .setArgs(
                                            List.of(
                                                    "--no-sandbox",
                                                    "--disable-gpu",
                                                    "--disable-quic",
                                                    "--no-first-run",
                                                    "--disable-background-networking",
                                                    "--disable-component-update",
                                                    "--disable-sync")));

    /** The one without a window of its own takes a quarter less, where it is there. */
    private static Path browserOfTheSystem() {
        var shell = Path.of("/usr/bin/chromium-headless-shell");
        return Files.exists(shell) ? shell : Path.of("/usr/bin/chromium");
    }

    Chromium() {
        PlaywrightAssertions.setDefaultAssertionTimeout(PATIENCE);
    }

    /**
     * A page of a visitor nobody knows yet, who wants no motion: what moves is only waited for. It
     * is closed with the browser: closing it alone can wait for ever on a window of the browser's
     * own, such as the list of downloads.
     */
    Page page() {
        var page =
                browser.newContext(
                                new Browser.NewContextOptions()
                                        .setViewportSize(1280, 800)
                                        .setReducedMotion(ReducedMotion.REDUCE))
                        .newPage();
        page.setDefaultTimeout(PATIENCE);
        return page;
    }

    static void signIn(Page page, String name, String then) {
        page.navigate(Marina.address() + then);
        page.locator("#name").fill(name);
        page.locator("#password").fill(Demo.PASSWORD);
        page.getByRole(
                        AriaRole.BUTTON,
                        new Page.GetByRoleOptions().setName("Sign in").setExact(true))
                .click();
    }

    @Override
    public void close() {
        browser.close();
        playwright.close();
    }
}

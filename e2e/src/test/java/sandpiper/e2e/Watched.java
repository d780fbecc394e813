package sandpiper.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.PlaywrightException;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;

/**
 * Hears what goes wrong in a page while somebody works with it: errors of scripts, errors in the
 * console, requests that fail. What was not expected fails the journey.
 */
final class Watched {
    /** What the browser notes of each request that fails, which is heard of anyway. */
    private static final String OF_A_REQUEST = "Failed to load resource";

    private static final String ENDED_BY_LEAVING = "net::ERR_ABORTED";
    private static final int TRIES = 3;
    private static final int SETTLED = 300;

    private static final String ALL_RULES =
            "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']";
    private static final String CONTRAST = "{type: 'rule', values: ['color-contrast']}";

    private static final String RUN =
            "async () => { const found = await axe.run(document, {runOnly: %s});"
                    + " return found.violations.flatMap(one =>"
                    + " one.nodes.map(node => one.id + ' ' + node.target.join(' ') + ' ' +"
                    + " node.html.slice(0, 160))) }";

    private final Page page;
    private final Queue<String> troubles = new ConcurrentLinkedQueue<>();
    private final List<String> expected = new ArrayList<>();

    Watched(Page page) {
        this.page = page;
        page.onPageError(error -> troubles.add("page error: " + error));
        page.onConsoleMessage(message -> {
            if (message.type().equals("error") && !message.text().startsWith(OF_A_REQUEST)) {
                troubles.add("console: " + message.text());
            }
        });
        page.onRequestFailed(request -> {
            // Whoever goes to another page ends what this one still asks for.
            if (!ENDED_BY_LEAVING.equals(request.failure())) {
                troubles.add(
                        "%s %s %s"
                                .formatted(
                                        request.failure(),
                                        request.method(),
                                        pathOf(request.url())));
            }
        });
        page.onResponse(answer -> {
            if (answer.status() >= 400) {
                troubles.add(
                        "%d %s %s"
                                .formatted(
                                        answer.status(),
                                        answer.request().method(),
                                        pathOf(answer.url())));
            }
        });
        // Whoever comes first is asked who they are.
        expect("401 GET /manage/v1/session");
    }

    private static String pathOf(String url) {
        return url.replaceFirst("https?://[^/]*", "");
    }

    /** Something that is going to fail, and shall: {@code 422 POST /manage/v1/records/Owner}. */
    Watched expect(String trouble) {
        expected.add(trouble);
        return this;
    }

    /** Nothing has gone wrong so far but what was expected. */
    void assertQuiet() {
        assertThat(troubles.stream().filter(one -> expected.stream().noneMatch(one::startsWith)))
                .as("troubles of the page")
                .isEmpty();
    }

    /** The page as it is now keeps the rules of WCAG 2.2, A and AA, as far as axe-core sees. */
    void assertAccessible() {
        assertWithin(ALL_RULES);
    }

    /** What is written can be read on what is behind it. */
    void assertContrast() {
        assertWithin(CONTRAST);
    }

    private void assertWithin(String rules) {
        page.evaluate(axe());
        assertThat(violations(rules, TRIES)).as("axe-core on %s", page.url()).isEmpty();
    }

    /**
     * What axe-core sees. When the page is drawn anew just then it stumbles, or sees what is half
     * there, and looks again; what stays is told.
     */
    private Collection<?> violations(String rules, int tries) {
        try {
            var found = (Collection<?>) page.evaluate(RUN.formatted(rules));
            if (found.isEmpty() || tries == 1) {
                return found;
            }
            page.waitForTimeout(SETTLED);
            return violations(rules, tries - 1);
        } catch (PlaywrightException e) {
            if (tries == 1) {
                throw e;
            }
            page.waitForTimeout(SETTLED);
            return violations(rules, tries - 1);
        }
    }

    private static String axe() {
        try {
            return Files.readString(Path.of("../console/node_modules/axe-core/axe.min.js"));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

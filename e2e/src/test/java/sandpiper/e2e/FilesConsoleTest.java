package sandpiper.e2e;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.assertj.core.api.Assertions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** Files in the forms of the console. */
@ExtendWith(Marina.class)
class FilesConsoleTest extends ConsoleJourney {
    private static final Path PHOTO = Path.of("../demo/photos/motor.png");

    private Locator chooser() {
        return page.locator("input[type=file][aria-label=Photo]");
    }

    @Test
    void aPictureIsChosenSavedDownloadedAndTakenAway() throws Exception {
        signIn("clerk", "/data/Vessel/record/GH-104");
        assertThat(page.getByText("png, jpeg, up to 1 MB")).isVisible();
        chooser().setInputFiles(PHOTO);
        assertThat(page.locator(".file img")).isVisible();
        button("Save").click();

        assertThat(page.getByText("Saved.")).isVisible();
        assertThat(page.locator("[data-test=history]")).containsText("motor.png");
        assertThat(page.locator("[data-test=history]")).not().containsText("sha256");
        var picture = page.locator(".file img");
        assertThat(picture).hasAttribute("src", Pattern.compile("/manage/.*"));
        Assertions.assertThat(picture.evaluate("one => one.decode().then(() => one.naturalWidth)"))
                .isEqualTo(360);
        var download = page.waitForDownload(() -> page.locator(".file a").click());
        Assertions.assertThat(download.suggestedFilename()).isEqualTo("motor.png");
        Assertions.assertThat(Files.readAllBytes(download.path()))
                .isEqualTo(Files.readAllBytes(PHOTO));
        watched.assertAccessible();

        page.getByLabel("Take the file of Photo away").click();
        button("Save").click();
        assertThat(page.getByText("No file")).isVisible();
    }

    @Test
    void whatIsNoPictureIsToldWhileTheFormIsFilled() {
        signIn("clerk", "/data/Vessel/record/GH-106");
        chooser()
                .setInputFiles(
                        new FilePayload(
                                "papers.pdf",
                                "application/pdf",
                                "%PDF-1.7".getBytes(StandardCharsets.US_ASCII)));

        assertThat(page.locator("[role=alert]"))
                .containsText("must be image/png or image/jpeg, but \"papers.pdf\" is");
        chooser().setInputFiles(new FilePayload("large.png", "image/png", new byte[1_200_000]));
        assertThat(page.getByText("large.png has 1.2 MB; at most 1 MB are taken.")).isVisible();
    }
}

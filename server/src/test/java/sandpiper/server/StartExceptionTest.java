package sandpiper.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.BeanCreationException;
import org.springframework.boot.web.server.PortInUseException;
import sandpiper.engine.port.StorageException;
import sandpiper.server.settings.SomeSettings;

/** What keeps the service from starting is said in one sentence. */
class StartExceptionTest {
    private static String said(Throwable cause) {
        return String.valueOf(
                StartException.of(new BeanCreationException("engine", cause)).getMessage());
    }

    @Test
    void aDataFileThatCannotBeUsedIsSaidAsStorageSaysIt() {
        assertThat(said(new StorageException("The data file is damaged.", new Exception("x"))))
                .isEqualTo("The data file is damaged.");
    }

    @Test
    void aPortThatIsTakenIsNamed() {
        assertThat(said(new PortInUseException(8080)))
                .isEqualTo("Port 8080 is in use; choose another, for instance with --port.");
    }

    @Test
    void aSettingThatIsNotRightIsShown() {
        assertThat(
                        said(
                                catchThrowable(() ->
                                        SomeSettings.with(
                                                Map.of("sandpiper.limits.depth", "deep")))))
                .isEqualTo(
                        "The setting sandpiper.limits.depth has the value \"deep\", where a whole"
                                + " number is needed.");
        assertThat(
                        said(
                                catchThrowable(() ->
                                        SomeSettings.with(
                                                Map.of("sandpiper.limits.body", "large")))))
                .contains("sandpiper.limits.body", "a size such as 5MB");
        assertThat(
                        said(
                                catchThrowable(() ->
                                        SomeSettings.with(Map.of("sandpiper.limits.page", "0")))))
                .isEqualTo(
                        "The service does not start: sandpiper.limits.page must be from 1 to"
                                + " 10,000, but is 0.");
    }
}

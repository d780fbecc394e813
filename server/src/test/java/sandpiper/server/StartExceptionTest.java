package sandpiper.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.springframework.beans.TypeMismatchException;
import org.springframework.beans.factory.BeanCreationException;
import org.springframework.boot.web.server.PortInUseException;
import sandpiper.engine.port.StorageException;

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
        assertThat(said(new TypeMismatchException("deep", int.class)))
                .isEqualTo("A setting has the value \"deep\", where a whole number is needed.");
        assertThat(said(new IllegalArgumentException("sandpiper.limits.page must be lower.")))
                .isEqualTo("The service does not start: sandpiper.limits.page must be lower.");
    }
}

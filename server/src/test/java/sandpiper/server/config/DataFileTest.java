package sandpiper.server.config;

import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import sandpiper.engine.Engine;
import sandpiper.engine.access.StoredUser;
import sandpiper.engine.accounts.Accounts;
import sandpiper.engine.accounts.Users;
import sandpiper.engine.port.StorageException;
import sandpiper.engine.settings.InstanceSettings;

/** What is looked at before a data file is served. */
class DataFileTest {
    @TempDir Path folder;

    @Test
    void aDataFileThatIsGoneIsNotBegunAnew() throws Exception {
        var data = folder.resolve("data.db");
        DataFile.requireExpected(data, false);

        Files.writeString(Path.of(data + ".key"), "key");
        assertThatThrownBy(() -> DataFile.requireExpected(data, false))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("but there was one")
                .hasMessageContaining("serve --new");
        DataFile.requireExpected(data, true);
        Files.writeString(data, "");
        DataFile.requireExpected(data, false);
    }

    private static Engine engine(boolean empty, String mark) {
        Engine engine = mock();
        Accounts accounts = mock();
        Users users = mock();
        InstanceSettings settings = mock();
        when(engine.accounts()).thenReturn(accounts);
        when(accounts.users()).thenReturn(users);
        when(users.all()).thenReturn(empty ? List.of() : List.of(mock(StoredUser.class)));
        when(engine.settings()).thenReturn(settings);
        when(settings.get(any(), any()))
                .thenAnswer(call -> mark == null ? call.getArgument(1) : mark);
        return engine;
    }

    @Test
    void theFileOfADemoIsServedOnlyWhenThatIsMeant() {
        var demo = engine(false, "true");
        assertThatThrownBy(() -> DataFile.requireDemoMeant(demo, false))
                .isInstanceOf(StorageException.class)
                .hasMessageContaining("whose passwords everybody knows");
        verify(demo).close();

        DataFile.requireDemoMeant(engine(false, "true"), true);
        var own = engine(false, "false");
        DataFile.requireDemoMeant(own, true);
        DataFile.requireDemoMeant(own, false);
        verify(own, never()).close();
        DataFile.requireDemoMeant(engine(true, null), true);
        DataFile.requireDemoMeant(engine(true, null), false);
    }
}

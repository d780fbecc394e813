package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.UUID;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.Settings;

/** Hands out a copy of everything, made while the service goes on. */
@RestController
public class BackupController {
    private static final String SQLITE = "application/vnd.sqlite3";

    private final Engine engine;
    private final Path data;
    private final boolean inDatabase;

    BackupController(Engine engine, Settings settings) {
        this.engine = engine;
        this.data = settings.beside().toAbsolutePath();
        this.inDatabase = settings.inDatabase();
    }

    /** Everything as it is at one moment, as a data file to start a service on. */
    @Operation(summary = "Everything as it is at one moment, as a data file to start a service on")
    @GetMapping(path = "/manage/v1/backup", produces = SQLITE)
    void backup(@AuthenticationPrincipal Actor actor, HttpServletResponse response)
            throws IOException {
        // Whoever has the copy sees all records and who may do what.
        DutyCheck.require(actor, Duty.OPERATE);
        DutyCheck.require(actor, Duty.RECORDS);
        DutyCheck.require(actor, Duty.ACCESS);
        if (inDatabase) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "The data is in a database (%s), which has its own tools for backups: use pg_dump, or what whoever runs it uses."
                            .formatted(engine.storedIn()));
        }
        engine.accounts().log().note(actor.name(), "backup taken", actor.name(), "");
        var copy = data.resolveSibling(data.getFileName() + ".copy-" + UUID.randomUUID());
        try {
            engine.backUp(copy);
            response.setContentType(SQLITE);
            response.setContentLengthLong(Files.size(copy));
            response.setHeader(
                    HttpHeaders.CONTENT_DISPOSITION,
                    "attachment; filename=\"%s\"".formatted(data.getFileName()));
            Files.copy(copy, response.getOutputStream());
        } finally {
            Files.deleteIfExists(copy);
        }
    }
}

package sandpiper.server.manage;

import java.util.Locale;
import org.springframework.http.HttpStatus;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.server.problem.ProblemException;

/** Lets only those go on who are trusted with something. */
public final class DutyCheck {
    private DutyCheck() {}

    public static void require(Actor actor, Duty duty) {
        if (!actor.has(duty)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN,
                    "Your duties do not include %s."
                            .formatted(duty.name().toLowerCase(Locale.ROOT)));
        }
    }

    /** Lets only those go on who see at least some records. */
    public static void requireRecords(Actor actor) {
        if (!actor.seesRecords()) {
            throw new ProblemException(HttpStatus.FORBIDDEN, "No records are granted to you.");
        }
    }
}

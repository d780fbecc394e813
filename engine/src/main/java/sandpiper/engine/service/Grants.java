package sandpiper.engine.service;

import sandpiper.engine.access.RecordScope;
import sandpiper.engine.command.RecordCommand;

/** What is granted to somebody on the records of one object, by one way in. */
interface Grants {
    /**
     * The records a right reaches.
     *
     * @throws DeniedException when it is not granted at all
     */
    RecordScope granted(Right right);

    /** The records there are by this way, whatever is granted. */
    RecordScope shown();

    /**
     * The records a command finds.
     *
     * @throws DeniedException when something that it needs is not granted at all
     */
    default RecordScope before(RecordCommand command) {
        var rights = CommandRights.of(command);
        rights.kept().forEach(this::granted);
        var reached = rights.reached();
        return reached == null ? RecordScope.ALL : granted(reached).and(shown());
    }

    /**
     * What a record must be when a command is done. What a way in shows may be left by a change;
     * what is granted may not.
     */
    default RecordScope after(RecordCommand command) {
        return CommandRights.of(command).kept().stream()
                .map(this::granted)
                .reduce(RecordScope.ALL, RecordScope::and);
    }
}

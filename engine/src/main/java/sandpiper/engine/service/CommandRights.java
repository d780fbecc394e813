package sandpiper.engine.service;

import java.util.List;
import org.jspecify.annotations.Nullable;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.command.RecordCommand;

/**
 * What a command needs to be granted.
 *
 * @param reached the right that says which records it finds; {@code null} when it finds none: it
 *     makes one, or is about no record
 * @param kept the rights whose conditions the record must meet when it is done
 */
public record CommandRights(@Nullable Right reached, List<Right> kept) {
    private static final Right CREATE = new Right.Of(Action.CREATE);
    private static final Right EDIT = new Right.Of(Action.EDIT);
    private static final Right RETIRE = new Right.Of(Action.RETIRE);

    public CommandRights {
        kept = List.copyOf(kept);
    }

    /** The one table, whatever the protocol and whoever asks. */
    public static CommandRights of(RecordCommand command) {
        return switch (command) {
            case RecordCommand.Create _ -> new CommandRights(null, List.of(CREATE));
            case RecordCommand.Change _ -> new CommandRights(EDIT, List.of(EDIT));
            case RecordCommand.Save _ -> new CommandRights(EDIT, List.of(CREATE, EDIT));
            case RecordCommand.Transit transit ->
                    new CommandRights(new Right.Calling(transit.transition()), List.of());
            case RecordCommand.Call call ->
                    new CommandRights(
                            call.key() == null ? null : new Right.Calling(call.function()),
                            List.of());
            case RecordCommand.Remove _, RecordCommand.Restore _ ->
                    new CommandRights(RETIRE, List.of());
        };
    }
}

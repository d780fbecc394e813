package sandpiper.cli.access;

import picocli.CommandLine.Command;
import picocli.CommandLine.Mixin;
import sandpiper.cli.common.AnsweringCommand;
import sandpiper.cli.common.Connection;

@Command(
        name = "keys",
        mixinStandardHelpOptions = true,
        description = "The keys of tokens and cursors.",
        synopsisSubcommandLabel = "COMMAND",
        footer = {"", "Example:", "  sandpiper keys renew"})
public final class KeysCommand extends AnsweringCommand {
    @Command(
            name = "renew",
            mixinStandardHelpOptions = true,
            description = {
                "Make new keys, as after a backup was restored or got into other hands.",
                "Every token and cursor that was given out ends; clients ask for new ones."
            })
    int renew(@Mixin Connection connection) {
        connection.open().access().renewKeys();
        return say("renewed; tokens and cursors from before are not taken any more");
    }
}

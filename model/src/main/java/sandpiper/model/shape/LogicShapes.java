package sandpiper.model.shape;

import static sandpiper.model.shape.Shapes.CODE_LIST;
import static sandpiper.model.shape.Shapes.FIELD_NAME;
import static sandpiper.model.shape.Shapes.FIELD_NAMES;
import static sandpiper.model.shape.Shapes.FLAG;
import static sandpiper.model.shape.Shapes.LABEL;
import static sandpiper.model.shape.Shapes.TEXT;
import static sandpiper.model.shape.Shapes.key;
import static sandpiper.model.shape.Shapes.needed;

import java.util.List;
import java.util.regex.Pattern;
import sandpiper.model.Names;

/** What is said of checks, rules, lifecycles, functions, handlers and schedules. */
final class LogicShapes {
    static final Shape TRIGGER =
            new Shape.Either(
                    List.of(
                            new Shape.Text(
                                    null, "create, change, retire, or change of with field names"),
                            new Shape.ListOf(TEXT)));

    static final Shape CHECKS =
            new Shape.ListOf(
                    new Shape.Keys(
                            List.of(
                                    key("name", "What the check is called.", FIELD_NAME),
                                    needed("that", "The condition that must be true.", TEXT),
                                    needed(
                                            "say",
                                            "The message when it is not, with expressions in"
                                                    + " braces.",
                                            TEXT),
                                    key("at", "The field the message is about.", FIELD_NAME),
                                    key(
                                            "severity",
                                            "Whether it stops a save (error, the default) or"
                                                    + " only warns.",
                                            new Shape.Word(List.of("error", "warning"))),
                                    key(
                                            "on",
                                            "When it is looked at; any save when absent.",
                                            TRIGGER),
                                    key(
                                            "before",
                                            "Transitions before which it is looked at, and only"
                                                    + " then.",
                                            new Shape.Either(
                                                    List.of(
                                                            FIELD_NAME,
                                                            new Shape.ListOf(FIELD_NAME)))))));

    static final Shape RULES =
            new Shape.Named(
                    Names.FIELD,
                    FIELD_NAMES,
                    new Shape.Keys(
                            List.of(
                                    key(
                                            "label",
                                            "What people read; made from the name when"
                                                    + " absent.",
                                            TEXT),
                                    key("describe", "What the rule is for.", TEXT),
                                    needed("on", "The change that sets it off.", TRIGGER),
                                    key(
                                            "when",
                                            "The condition under which it does something;"
                                                    + " always when absent.",
                                            TEXT),
                                    needed("then", "Its steps, one a line.", TEXT))));

    static final Shape FUNCTIONS =
            Shapes.named(
                    new Shape.Keys(
                            List.of(
                                    LABEL,
                                    key("describe", "What the function does.", TEXT),
                                    key(
                                            "on",
                                            "Whether it is called on a record (the default) or"
                                                    + " on the object as a whole.",
                                            new Shape.Word(List.of("record", "object"))),
                                    key(
                                            "external",
                                            "Whether services, the console and the command line"
                                                    + " call it, and not only rules and other"
                                                    + " functions.",
                                            FLAG),
                                    key(
                                            "rights",
                                            "Whose rights it changes other records with: the"
                                                    + " caller's (the default) or its own.",
                                            new Shape.Word(List.of("caller", "own"))),
                                    key(
                                            "parameters",
                                            "What a caller gives.",
                                            Shapes.named(FieldShapes.VALUE)),
                                    key(
                                            "returns",
                                            "What it gives back; nothing when absent.",
                                            FieldShapes.VALUE),
                                    needed("body", "Its steps, one a line.", TEXT))));

    static final Shape HANDLERS =
            Shapes.named(
                    new Shape.Keys(
                            List.of(
                                    LABEL,
                                    key("describe", "What the handler is for.", TEXT),
                                    needed(
                                            "on",
                                            "The event or events it hears: StayEnded,"
                                                    + " Stay.created, Stay.changed.",
                                            new Shape.Either(
                                                    List.of(TEXT, new Shape.ListOf(TEXT)))),
                                    key(
                                            "when",
                                            "The condition under which it does something; always"
                                                    + " when absent.",
                                            TEXT),
                                    key(
                                            "run",
                                            "Whether it runs after the change is committed (after,"
                                                    + " the default), or as part of it (with), so"
                                                    + " that both are done or neither.",
                                            new Shape.Word(List.of("after", "with"))),
                                    key(
                                            "batch",
                                            "Whether one run takes all events of one change, as"
                                                    + " the list events.",
                                            FLAG),
                                    needed("then", "Its steps, one a line.", TEXT))));

    static final Shape SCHEDULES =
            Shapes.named(
                    new Shape.Keys(
                            List.of(
                                    LABEL,
                                    key("describe", "What it is for.", TEXT),
                                    key(
                                            "every",
                                            "When it runs, as cron has it: minute, hour, day of"
                                                    + " month, month, day of week.",
                                            TEXT),
                                    key(
                                            "on",
                                            "The day on which it runs for a record: 7 days before"
                                                    + " insuredUntil, 1 day after departure.",
                                            TEXT),
                                    key(
                                            "at",
                                            "The time of that day; 00:00 when absent.",
                                            new Shape.Text(
                                                    Pattern.compile("([01]\\d|2[0-3]):[0-5]\\d"),
                                                    "a time, as in 06:30")),
                                    key(
                                            "where",
                                            "The records it runs for; all in use when absent.",
                                            TEXT),
                                    key(
                                            "missed",
                                            "What becomes of times at which the service did not"
                                                    + " run: done once when it is back (once, the"
                                                    + " default), or left out (skip).",
                                            new Shape.Word(List.of("once", "skip"))),
                                    needed("then", "Its steps, one a line.", TEXT))));

    static final Shape STATES =
            new Shape.Either(
                    List.of(
                            CODE_LIST,
                            new Shape.Named(
                                    Pattern.compile(".{1,60}"),
                                    "at most 60 characters",
                                    Shapes.SPOKEN)));

    static final Shape LIFECYCLE =
            new Shape.Keys(
                    List.of(
                            key(
                                    "field",
                                    "The field that holds the state; state when absent.",
                                    FIELD_NAME),
                            needed("initial", "The state of a new record.", TEXT),
                            needed(
                                    "states",
                                    "The states, each with its label when it needs one.",
                                    STATES),
                            needed(
                                    "transitions",
                                    "The steps from state to state.",
                                    new Shape.Named(
                                            Names.FIELD,
                                            FIELD_NAMES,
                                            new Shape.Keys(
                                                    List.of(
                                                            key(
                                                                    "label",
                                                                    "What people read on its"
                                                                            + " button.",
                                                                    Shapes.SPOKEN),
                                                            key("describe", "What it means.", TEXT),
                                                            needed(
                                                                    "from",
                                                                    "The state or states in"
                                                                            + " which it can be"
                                                                            + " taken.",
                                                                    new Shape.Either(
                                                                            List.of(
                                                                                    TEXT,
                                                                                    CODE_LIST))),
                                                            needed(
                                                                    "to",
                                                                    "The state it leads to.",
                                                                    TEXT)))))));

    private LogicShapes() {}
}

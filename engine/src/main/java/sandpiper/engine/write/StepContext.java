package sandpiper.engine.write;

import sandpiper.engine.access.Actor;

/** What steps work with inside a unit of work, whoever runs them. */
record StepContext(
        Workspace workspace,
        FaultLog faults,
        Derivation derivation,
        NewRecords newRecords,
        Fills fills,
        Lifecycles lifecycles,
        RaisedEvents raised,
        RemovalChecks removal,
        Actor actor) {}

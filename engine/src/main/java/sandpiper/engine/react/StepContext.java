package sandpiper.engine.react;

import sandpiper.engine.access.Actor;
import sandpiper.engine.check.Lifecycles;
import sandpiper.engine.check.RemovalChecks;
import sandpiper.engine.derive.Derivation;
import sandpiper.engine.derive.Fills;
import sandpiper.engine.outside.OutsideWork;
import sandpiper.engine.work.FaultLog;
import sandpiper.engine.work.Workspace;

/** What steps work with inside a unit of work, whoever runs them. */
public record StepContext(
        Workspace workspace,
        FaultLog faults,
        Derivation derivation,
        NewRecords newRecords,
        Fills fills,
        Lifecycles lifecycles,
        RaisedEvents raised,
        RemovalChecks removal,
        Actor actor,
        OutsideWork outside) {}

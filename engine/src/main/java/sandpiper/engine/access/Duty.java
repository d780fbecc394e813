package sandpiper.engine.access;

/** What a person can be trusted with in the console. */
public enum Duty {
    /** Edit definitions in the draft. */
    DESIGN,
    /** Turn the draft into a release. */
    RELEASE,
    /** See and enter every record. */
    RECORDS,
    /** Manage users, roles and clients. */
    ACCESS,
    /** See who changed what, and how services are called. */
    AUDIT,
    /** See events and their deliveries, deliver again, and manage webhooks. */
    OPERATE
}

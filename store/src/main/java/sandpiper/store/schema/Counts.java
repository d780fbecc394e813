package sandpiper.store.schema;

/** Numbers of records in sentences. */
final class Counts {
    private Counts() {}

    /** {@code 1 record}, {@code 1,200 records}. */
    static String records(long count) {
        return of(count, "record", "records");
    }

    /** {@code 1 record has}, {@code 1,200 records have}. */
    static String recordsHave(long count) {
        return of(count, "record has", "records have");
    }

    /** A number of something. */
    static String of(long count, String one, String many) {
        return "%,d %s".formatted(count, count == 1 ? one : many);
    }
}

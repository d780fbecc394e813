package sandpiper.engine.definition;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import sandpiper.model.change.ReleaseChange;
import sandpiper.model.release.Release;

/** Definitions that are to be released. */
sealed interface Wanted {
    /** By path. */
    Map<String, String> files();

    /** What differs from the release that is live. */
    ReleaseChange change(Release live, Release next);

    /** As it stands at the beginning of a sentence. */
    String named();

    /** The note of a release that was given none. */
    String usualNote();

    /** What is being worked on. */
    record Draft(Map<String, String> files) implements Wanted {
        @Override
        public ReleaseChange change(Release live, Release next) {
            return ReleaseChange.between(live, next);
        }

        @Override
        public String named() {
            return "The draft";
        }

        @Override
        public String usualNote() {
            return "";
        }
    }

    /**
     * What was live before.
     *
     * @param live the number of the release that is live
     * @param way the releases from this one to the live one, which is not among them
     */
    record Earlier(int number, int live, Map<String, String> files, List<Release> way)
            implements Wanted {
        public Earlier {
            way = List.copyOf(way);
        }

        @Override
        public ReleaseChange change(Release live, Release next) {
            var whole = new ArrayList<Release>();
            whole.add(next);
            // The first of the way is this one, by an older reading of its files.
            way.stream().skip(1).forEach(whole::add);
            whole.add(live);
            return ReleaseChange.back(whole);
        }

        @Override
        public String named() {
            return "Release %d".formatted(number);
        }

        @Override
        public String usualNote() {
            return "Back to release %d".formatted(number);
        }
    }
}

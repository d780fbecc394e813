package sandpiper.model.contract;

import java.util.Locale;
import sandpiper.model.Names;
import sandpiper.model.release.ResourceType;

/** What contracts call a resource's records: {@code stays} gives {@code Stay} and {@code Stays}. */
public final class ResourceNames {
    private ResourceNames() {}

    /** One record: {@code WorkRequest} of {@code work-requests}. */
    public static String one(ResourceType resource) {
        return singular(many(resource));
    }

    /** Several records: {@code WorkRequests} of {@code work-requests}. */
    public static String many(ResourceType resource) {
        var name = new StringBuilder();
        for (var word : resource.name().split("-", -1)) {
            name.append(capital(word));
        }
        return name.toString();
    }

    /** "Stays" names many, "Stay" one. */
    public static String singular(String name) {
        if (name.endsWith("ies")) {
            return name.substring(0, name.length() - 3) + "y";
        }
        return name.endsWith("s") && !name.endsWith("ss")
                ? name.substring(0, name.length() - 1)
                : name;
    }

    /** With a capital letter in front. */
    public static String capital(String name) {
        return name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1);
    }

    /** With a small letter in front. */
    public static String small(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }

    /** An address in one word: {@code check-in} gives {@code CheckIn}. */
    public static String joined(String name) {
        var joined = new StringBuilder();
        for (var word : Names.address(name).split("-", -1)) {
            joined.append(capital(word));
        }
        return joined.toString();
    }
}

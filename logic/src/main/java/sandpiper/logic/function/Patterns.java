package sandpiper.logic.function;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;

/**
 * Regular expressions from users, in time linear to the text: a pattern that would run for ever
 * elsewhere costs no more here. What needs backtracking (back-references, look-around) is refused.
 */
final class Patterns {
    /** What all patterns that are kept may weigh; an expression seldom makes its patterns up. */
    private static final int MOST_KEPT = 200_000;

    /** What one may weigh: about as many steps of a compiled pattern, some 50 bytes each. */
    private static final int HEAVIEST = 5_000;

    private static final int LONGEST = 1_000;
    private static final Map<String, Optional<Pattern>> KEPT = new ConcurrentHashMap<>();
    private static final AtomicLong WEIGHT = new AtomicLong();

    private Patterns() {}

    /**
     * A compiled pattern, or nothing when it or its flags cannot be read.
     *
     * @param flags of XPath: s, m, i, x and q
     */
    static Optional<Pattern> compiled(String pattern, String flags) {
        if (pattern.length() > LONGEST) {
            return Optional.empty();
        }
        var known = KEPT.get(flags + '\0' + pattern);
        if (known != null) {
            return known;
        }
        long weight = flags.indexOf('q') >= 0 ? pattern.length() : PatternWeight.of(pattern);
        if (weight > HEAVIEST) {
            return Optional.empty();
        }
        var compiled = compile(pattern, flags);
        if (WEIGHT.addAndGet(weight + 1) > MOST_KEPT) {
            KEPT.clear();
            WEIGHT.set(weight + 1);
        }
        KEPT.put(flags + '\0' + pattern, compiled);
        return compiled;
    }

    private static Optional<Pattern> compile(String pattern, String flags) {
        int bits = 0;
        boolean literal = flags.indexOf('q') >= 0;
        var plain = literal ? Optional.of(Pattern.quote(pattern)) : SchemaClasses.plain(pattern);
        if (plain.isEmpty()) {
            return Optional.empty();
        }
        var text = plain.get();
        for (int i = 0; i < flags.length(); i++) {
            char flag = flags.charAt(i);
            switch (flag) {
                case 's' -> bits |= Pattern.DOTALL;
                case 'm' -> bits |= Pattern.MULTILINE;
                case 'i' -> bits |= Pattern.CASE_INSENSITIVE;
                case 'x' -> text = literal ? text : withoutSpace(text);
                case 'q' -> {
                    // every character stands for itself
                }
                default -> {
                    return Optional.empty();
                }
            }
        }
        try {
            return Optional.of(Pattern.compile(text, bits));
        } catch (PatternSyntaxException _) {
            return Optional.empty();
        }
    }

    private static String withoutSpace(String pattern) {
        var text = new StringBuilder();
        boolean inBrackets = false;
        for (int i = 0; i < pattern.length(); i++) {
            char c = pattern.charAt(i);
            if (c == '\\' && i + 1 < pattern.length()) {
                text.append(c).append(pattern.charAt(++i));
                continue;
            }
            inBrackets = c == '[' || (inBrackets && c != ']');
            if (inBrackets || !Character.isWhitespace(c)) {
                text.append(c);
            }
        }
        return text.toString();
    }
}

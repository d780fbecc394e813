package sandpiper.logic.function;

import java.util.BitSet;
import java.util.Optional;

/**
 * What XML Schema's regular expressions (Part 2, appendix G) have and RE2 has not: subtraction of
 * classes {@code [a-z-[aeiou]]}, blocks {@code \p{IsGreek}}, and the classes {@code \i \c \d \w} of
 * its own. They are worked out to plain ranges, so that the pattern still runs in linear time.
 */
final class SchemaClasses {
    private static final int ALL = Character.MAX_CODE_POINT + 1;

    private final String pattern;
    private final StringBuilder into = new StringBuilder();
    private int at;

    private SchemaClasses(String pattern) {
        this.pattern = pattern;
    }

    /** The pattern as RE2 reads it, or nothing when a class in it cannot be read. */
    static Optional<String> plain(String pattern) {
        try {
            return Optional.of(new SchemaClasses(pattern).translate());
        } catch (IllegalArgumentException | IndexOutOfBoundsException _) {
            return Optional.empty();
        }
    }

    private String translate() {
        while (at < pattern.length()) {
            char c = pattern.charAt(at);
            if (c == '\\') {
                escape();
            } else if (c == '[') {
                int start = at;
                var set = set();
                var written = pattern.substring(start, at);
                into.append(isPlain(written) ? written : ranges(set));
            } else {
                into.append(c);
                at++;
            }
        }
        return into.toString();
    }

    /** Whether RE2 reads a class in the same way. */
    private static boolean isPlain(String written) {
        return !written.contains("-[") && !written.matches("(?s).*\\\\([icwdICWD]|[pP]\\{Is).*");
    }

    private void escape() {
        char kind = pattern.charAt(at + 1);
        boolean block = pattern.startsWith("{Is", at + 2);
        switch (kind) {
            case 'i', 'I', 'c', 'C', 'd', 'D', 'w', 'W' -> into.append(ranges(escaped()));
            case 'p', 'P' -> {
                if (block) {
                    into.append(ranges(escaped()));
                } else {
                    copy(2);
                }
            }
            default -> copy(2);
        }
    }

    private void copy(int count) {
        into.append(pattern, at, at + count);
        at += count;
    }

    /** A class in square brackets, read to its end. */
    private BitSet set() {
        at++;
        boolean negated = pattern.charAt(at) == '^';
        at += negated ? 1 : 0;
        var set = new BitSet(ALL);
        BitSet less = null;
        boolean first = true;
        while (pattern.charAt(at) != ']' || first) {
            first = false;
            if (pattern.startsWith("-[", at)) {
                at++;
                less = set();
            } else {
                add(set);
            }
        }
        at++;
        if (negated) {
            set.flip(0, ALL);
        }
        if (less != null) {
            set.andNot(less);
        }
        return set;
    }

    /** One character, a range of them, or an escape. */
    private void add(BitSet set) {
        if (pattern.charAt(at) == '\\' && isClass(pattern.charAt(at + 1))) {
            set.or(escaped());
            return;
        }
        int low = character();
        boolean isRange =
                pattern.charAt(at) == '-'
                        && pattern.charAt(at + 1) != ']'
                        && pattern.charAt(at + 1) != '[';
        if (isRange) {
            at++;
            int high = character();
            if (high < low) {
                throw new IllegalArgumentException("A range runs upwards");
            }
            set.set(low, high + 1);
        } else {
            set.set(low);
        }
    }

    private static boolean isClass(char kind) {
        return "icwdsICWDSpP".indexOf(kind) >= 0;
    }

    private int character() {
        if (pattern.charAt(at) != '\\') {
            int c = pattern.codePointAt(at);
            at += Character.charCount(c);
            return c;
        }
        char kind = pattern.charAt(at + 1);
        at += 2;
        return switch (kind) {
            case 'n' -> '\n';
            case 'r' -> '\r';
            case 't' -> '\t';
            default -> kind;
        };
    }

    /** What an escape such as {@code \d} or {@code \p{IsGreek}} stands for. */
    private BitSet escaped() {
        char kind = pattern.charAt(at + 1);
        at += 2;
        var set =
                switch (Character.toLowerCase(kind)) {
                    case 'd' -> category("Nd");
                    case 's' -> of(c -> c == ' ' || c == '\t' || c == '\n' || c == '\r');
                    case 'i' -> of(SchemaClasses::beginsName);
                    case 'c' -> of(c -> beginsName(c) || goesOnInName(c));
                    case 'w' -> {
                        var others = category("P");
                        others.or(category("Z"));
                        others.or(category("C"));
                        others.flip(0, ALL);
                        yield others;
                    }
                    default -> named();
                };
        if (Character.isUpperCase(kind)) {
            set.flip(0, ALL);
        }
        return set;
    }

    private BitSet named() {
        int end = pattern.indexOf('}', at);
        if (pattern.charAt(at) != '{' || end < 0) {
            throw new IllegalArgumentException("A property stands in braces");
        }
        var name = pattern.substring(at + 1, end);
        at = end + 1;
        if (!name.startsWith("Is")) {
            return category(name);
        }
        var block = Character.UnicodeBlock.forName(name.substring(2));
        return of(c -> Character.UnicodeBlock.of(c) == block);
    }

    private static BitSet category(String name) {
        if (!name.matches("L[ultmo]?|M[nce]?|N[dlo]?|P[cdseifo]?|Z[slp]?|S[mcko]?|C[cfon]?")) {
            throw new IllegalArgumentException("No category is called " + name);
        }
        return of(c -> CATEGORIES[Character.getType(c)].startsWith(name));
    }

    /** By the numbers of {@link Character#getType(int)}. */
    private static final String[] CATEGORIES = {
        "Cn", "Lu", "Ll", "Lt", "Lm", "Lo", "Mn", "Me", "Mc", "Nd", "Nl", "No", "", "Zs", "Zl",
        "Zp", "Cc", "Cf", "", "Co", "Cs", "Pd", "Ps", "Pe", "Pc", "Po", "Sm", "Sc", "Sk", "So",
        "Pi", "Pf"
    };

    private static BitSet of(java.util.function.IntPredicate test) {
        var set = new BitSet(ALL);
        for (int c = 0; c < ALL; c++) {
            if (test.test(c)) {
                set.set(c);
            }
        }
        return set;
    }

    /** NameStartChar of XML 1.0. */
    private static boolean beginsName(int c) {
        return c == ':'
                || c == '_'
                || (c >= 'A' && c <= 'Z')
                || (c >= 'a' && c <= 'z')
                || (c >= 0xC0 && c <= 0x2FF && c != 0xD7 && c != 0xF7)
                || (c >= 0x370 && c <= 0x1FFF && c != 0x37E)
                || c == 0x200C
                || c == 0x200D
                || (c >= 0x2070 && c <= 0x218F)
                || (c >= 0x2C00 && c <= 0x2FEF)
                || (c >= 0x3001 && c <= 0xD7FF)
                || (c >= 0xF900 && c <= 0xFDCF)
                || (c >= 0xFDF0 && c <= 0xFFFD)
                || (c >= 0x10000 && c <= 0xEFFFF);
    }

    private static boolean goesOnInName(int c) {
        return c == '-'
                || c == '.'
                || (c >= '0' && c <= '9')
                || c == 0xB7
                || (c >= 0x300 && c <= 0x36F)
                || c == 0x203F
                || c == 0x2040;
    }

    private static String ranges(BitSet set) {
        if (set.isEmpty()) {
            return "[^\\x{0}-\\x{10FFFF}]";
        }
        var text = new StringBuilder("[");
        for (int from = set.nextSetBit(0); from >= 0; ) {
            int to = set.nextClearBit(from) - 1;
            text.append("\\x{").append(Integer.toHexString(from)).append('}');
            if (to > from) {
                text.append("-\\x{").append(Integer.toHexString(to)).append('}');
            }
            from = set.nextSetBit(to + 1);
        }
        return text.append(']').toString();
    }
}

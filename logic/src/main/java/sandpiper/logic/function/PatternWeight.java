package sandpiper.logic.function;

import java.util.ArrayDeque;

/**
 * What a regular expression comes to when it is compiled, where a repeat is written out as often as
 * it says: {@code (a{100}){100}} is ten thousand letters. Told from its text alone, before anything
 * is compiled.
 */
final class PatternWeight {
    private static final long TOO_MUCH = Integer.MAX_VALUE;

    /** What a class of characters may come to. */
    private static final int OF_CLASS = 8;

    private final String pattern;
    private final ArrayDeque<Long> outer = new ArrayDeque<>();
    private long group;
    private long last;
    private int at;

    private PatternWeight(String pattern) {
        this.pattern = pattern;
    }

    /** About as many steps as the compiled pattern has; of what is no pattern, any number. */
    static long of(String pattern) {
        return new PatternWeight(pattern).weigh();
    }

    private long weigh() {
        while (at < pattern.length()) {
            char c = pattern.charAt(at);
            switch (c) {
                case '\\' -> {
                    boolean isClass = at + 1 < pattern.length() && "pPiIcC".indexOf(next()) >= 0;
                    at += 2;
                    skipName(isClass);
                    atom(isClass ? OF_CLASS : 1);
                }
                case '[' -> {
                    skipClass();
                    atom(OF_CLASS);
                }
                case '(' -> {
                    add();
                    outer.push(group);
                    group = 1;
                    at++;
                }
                case ')' -> {
                    add();
                    last = group;
                    group = outer.isEmpty() ? 0 : outer.pop();
                    at++;
                }
                case '{' -> repeat();
                case '*', '+', '?' -> {
                    last++;
                    at++;
                }
                default -> {
                    at++;
                    atom(1);
                }
            }
        }
        add();
        while (!outer.isEmpty()) {
            group = bounded(group + outer.pop());
        }
        return group;
    }

    /** Goes behind the name of a class, as in {@code \p{Lu}}. */
    private void skipName(boolean isClass) {
        int end = pattern.indexOf('}', at);
        if (isClass && at < pattern.length() && pattern.charAt(at) == '{' && end > 0) {
            at = end + 1;
        }
    }

    private char next() {
        return pattern.charAt(at + 1);
    }

    private void atom(long weight) {
        add();
        last = weight;
    }

    private void add() {
        group = bounded(group + last);
        last = 0;
    }

    private static long bounded(long weight) {
        return Math.min(weight, TOO_MUCH);
    }

    private void repeat() {
        int end = pattern.indexOf('}', at);
        var counts = end < 0 ? "" : pattern.substring(at + 1, end);
        if (!counts.matches("\\d{1,9}(,\\d{0,9})?")) {
            at++;
            atom(1);
            return;
        }
        var most = counts.substring(counts.indexOf(',') + 1);
        long times =
                most.isEmpty() ? Long.parseLong(counts.replace(",", "")) + 1 : Long.parseLong(most);
        last = bounded(last * Math.max(times, 1));
        at = end + 1;
    }

    /** Goes behind a class; brackets inside belong to it. */
    private void skipClass() {
        int depth = 0;
        do {
            char c = pattern.charAt(at);
            if (c == '\\') {
                at++;
            } else if (c == '[') {
                depth++;
            } else if (c == ']') {
                depth--;
            }
            at++;
        } while (depth > 0 && at < pattern.length());
    }
}

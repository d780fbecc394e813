package sandpiper.logic.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.RecordType;

/** The names that can be used at a place, those of the places around it included. */
public final class Scope {
    private final @Nullable Scope outer;
    private final Map<String, Term> names = new LinkedHashMap<>();
    private final Term.@Nullable Local item;
    private final @Nullable RecordType record;

    private Scope(@Nullable Scope outer, Term.@Nullable Local item, @Nullable RecordType record) {
        this.outer = outer;
        this.item = item;
        this.record = record;
    }

    /** No names at all. */
    static Scope empty() {
        return new Scope(null, null, null);
    }

    /** A place for more names inside this one. */
    Scope inner() {
        return new Scope(this, null, null);
    }

    /**
     * A place where an item's members can be named.
     *
     * @param members of the item, or {@code null} when they are known only when it runs
     */
    Scope inside(Term.Local itemLocal, @Nullable RecordType members) {
        return new Scope(this, itemLocal, members);
    }

    void put(String name, Term term) {
        names.put(name, term);
    }

    public @Nullable Scope outer() {
        return outer;
    }

    /** The names given here, not those around. */
    public Map<String, Term> names() {
        return names;
    }

    /** The item whose members can be named here, or {@code null}. */
    Term.@Nullable Local item() {
        return item;
    }

    /** The item's members, or {@code null} when they are not known. */
    public @Nullable RecordType record() {
        return record;
    }

    /** Every name that can be used, nearest first. */
    public List<String> allNames() {
        var all = new ArrayList<String>();
        for (Scope scope = this; scope != null; scope = scope.outer) {
            all.addAll(scope.names.keySet());
            if (scope.record != null) {
                all.addAll(scope.record.memberNames());
            }
        }
        return all.stream().distinct().toList();
    }
}

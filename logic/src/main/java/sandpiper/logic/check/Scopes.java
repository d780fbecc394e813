package sandpiper.logic.check;

import sandpiper.logic.Span;
import sandpiper.logic.type.LogicType;
import sandpiper.logic.type.LogicType.Simple;

/** Makes the outermost scope from a setting, with the fixed places first. */
final class Scopes {
    private static final Span NOWHERE = new Span(0, 0);

    private Scopes() {}

    static Scope of(NameContext setting, Checking checking) {
        var scope = Scope.empty();
        var self = setting.self();
        var owner = setting.owner();
        var selfLocal = checking.local("this", typeOf(self), NOWHERE);
        var ownerLocal = checking.local("header", typeOf(owner), NOWHERE);
        var oldLocal = checking.local("old", typeOf(self), NOWHERE);
        var newLocal = checking.local("is new", Simple.BOOLEAN, NOWHERE);
        if (owner != null) {
            // Fields come before the word, so that one that is called so can be named.
            scope.put("header", ownerLocal);
            scope = scope.inside(ownerLocal, owner);
        }
        if (self != null) {
            scope = scope.inside(selfLocal, self);
            scope.put("this", selfLocal);
        }
        var item = setting.item();
        var itemLocal = checking.local("item", typeOf(item), NOWHERE);
        if (item != null) {
            scope = scope.inside(itemLocal, item);
            scope.put("item", itemLocal);
        }
        if (setting.changes()) {
            scope.put("old", oldLocal);
            scope.put("is new", newLocal);
        }
        scope = scope.inner();
        for (var name : setting.names().entrySet()) {
            scope.put(name.getKey(), checking.local(name.getKey(), name.getValue(), NOWHERE));
        }
        return scope;
    }

    private static LogicType typeOf(
            sandpiper.logic.type.@org.jspecify.annotations.Nullable RecordType record) {
        return record == null ? Simple.NOTHING : new LogicType.RecordOf(record);
    }
}

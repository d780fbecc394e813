package sandpiper.logic.run;

import static java.lang.constant.ConstantDescs.CD_Object;
import static java.lang.constant.ConstantDescs.CD_boolean;
import static java.lang.constant.ConstantDescs.CD_int;
import static java.lang.constant.ConstantDescs.CD_long;
import static java.lang.constant.ConstantDescs.CD_void;

import java.lang.classfile.CodeBuilder;
import java.lang.classfile.Label;
import java.lang.classfile.TypeKind;
import java.lang.constant.ClassDesc;
import java.lang.constant.ConstantDescs;
import java.lang.constant.DirectMethodHandleDesc;
import java.lang.constant.DynamicConstantDesc;
import java.lang.constant.MethodTypeDesc;
import java.lang.invoke.MethodHandles;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.syntax.ArithmeticOperator;
import sandpiper.logic.syntax.Operator;
import sandpiper.logic.term.Term;
import sandpiper.logic.type.Member;
import sandpiper.logic.value.Decimal;
import sandpiper.logic.value.Nothing;
import sandpiper.logic.value.RecordValue;

/**
 * Writes the method of a {@link GeneratedClass}: it has the record, the run and the frame, and
 * leaves the value of the expression.
 */
final class GeneratedBody {
    private static final ClassDesc OP = desc(Op.class);
    private static final ClassDesc FRAME = desc(Frame.class);
    private static final ClassDesc RUN = desc(Evaluation.class);
    private static final ClassDesc RECORD = desc(RecordValue.class);
    private static final ClassDesc NOTHING = desc(Nothing.class);
    private static final ClassDesc MEMBER = desc(Member.class);
    private static final ClassDesc BOOLEAN = desc(Boolean.class);
    private static final ClassDesc DECIMAL = desc(Decimal.class);
    private static final ClassDesc STRING = desc(String.class);
    private static final ClassDesc STEPS = desc(Steps.class);
    private static final ClassDesc RECKONING = desc(ArithmeticOps.class);
    private static final MethodTypeDesc EVAL = MethodTypeDesc.of(CD_Object, FRAME);
    private static final MethodTypeDesc RECKON =
            MethodTypeDesc.of(CD_Object, CD_Object, CD_Object, RUN);
    private static final DirectMethodHandleDesc CLASS_DATA =
            ConstantDescs.ofConstantBootstrap(
                    desc(MethodHandles.class), "classDataAt", CD_Object, CD_int);

    /** Variables of the body. */
    private static final int SELF_AT = 0;

    private static final int RUN_AT = 1;
    private static final int FRAME_AT = 2;

    private final CodeBuilder code;
    private final List<Object> constants;
    private boolean usesFrame;

    /** Variables with members of the record that have been read wherever the code is now. */
    private final Map<Member, Integer> read = new HashMap<>();

    /** Variables that stand for places of the frame; functions find them in the frame. */
    private final Map<Integer, Integer> places = new HashMap<>();

    /**
     * @param constants takes the constants of the class
     */
    GeneratedBody(CodeBuilder code, List<Object> constants) {
        this.code = code;
        this.constants = constants;
    }

    static ClassDesc desc(Class<?> type) {
        return type.describeConstable().orElseThrow();
    }

    /** Writes all of it. Whether it uses the frame. */
    boolean write(Term term) {
        value(term);
        code.areturn();
        return usesFrame;
    }

    /** Takes the value from the stack into a variable and gives its number. */
    private int kept() {
        int variable = code.allocateLocal(TypeKind.REFERENCE);
        code.astore(variable);
        return variable;
    }

    /** Leaves the value of a term on the stack. */
    private void value(Term term) {
        switch (term) {
            case Term.Constant(var value, _, _, _) -> constant(value, CD_Object);
            case Term.Local(int slot, _, _, _) -> place(slot);
            case Term.Read(Term.Local(int slot, _, _, _), var member, _)
                    when slot == NameContext.THIS ->
                    read(member);
            case Term.Read(var source, var member, _) -> {
                value(source);
                constant(member, MEMBER);
                code.invokestatic(STEPS, "read", MethodTypeDesc.of(CD_Object, CD_Object, MEMBER));
            }
            case Term.Arithmetic(var operator, var left, var right, _, _) -> {
                value(left);
                value(right);
                code.aload(RUN_AT).invokestatic(RECKONING, name(operator), RECKON);
            }
            case Term.If choice -> choice(choice);
            case Term.Compare _, Term.Logical _, Term.Within _ -> truth(term);
            case Term.Call call when isNot(call) -> truth(term);
            default -> function(Compiler.op(term));
        }
    }

    private static String name(ArithmeticOperator operator) {
        return switch (operator) {
            case PLUS -> "plus";
            case MINUS -> "minus";
            case TIMES -> "times";
            case DIVIDE -> "divided";
            case POWER -> "power";
        };
    }

    private static boolean isNot(Term.Call call) {
        return call.function().name().equals("not") && call.arguments().size() == 1;
    }

    private void constant(Object value, ClassDesc type) {
        constants.add(value);
        code.ldc(
                DynamicConstantDesc.ofNamed(
                        CLASS_DATA, ConstantDescs.DEFAULT_NAME, type, constants.size() - 1));
    }

    private void place(int slot) {
        var variable = places.get(slot);
        if (variable != null) {
            code.aload(variable);
        } else {
            usesFrame = true;
            code.aload(FRAME_AT)
                    .loadConstant(slot)
                    .invokevirtual(FRAME, "get", MethodTypeDesc.of(CD_Object, CD_int));
        }
    }

    private void function(Op function) {
        usesFrame = true;
        places.forEach((slot, variable) ->
                code.aload(FRAME_AT)
                        .loadConstant(slot)
                        .aload(variable)
                        .invokevirtual(
                                FRAME, "set", MethodTypeDesc.of(CD_void, CD_int, CD_Object)));
        constant(function, OP);
        code.aload(FRAME_AT).invokeinterface(OP, "eval", EVAL);
    }

    /** Leaves a member of the record on the stack; what has been read is at hand. */
    private void read(Member member) {
        var known = read.get(member);
        if (known != null) {
            code.aload(known);
            return;
        }
        code.aload(SELF_AT);
        constant(member, MEMBER);
        code.invokeinterface(RECORD, "read", MethodTypeDesc.of(CD_Object, MEMBER)).dup();
        read.put(member, kept());
    }

    /** Writes what may not be reached: what it reads is not known behind it. */
    private void perhaps(Runnable writing) {
        var before = new HashMap<>(read);
        writing.run();
        read.clear();
        read.putAll(before);
    }

    private void choice(Term.If choice) {
        var yes = code.newLabel();
        var no = code.newLabel();
        var end = code.newLabel();
        test(choice.condition(), new Ways(yes, no, no));
        code.labelBinding(yes);
        perhaps(() -> value(choice.then()));
        code.goto_(end).labelBinding(no);
        perhaps(() -> value(choice.otherwise()));
        code.labelBinding(end);
    }

    /** Leaves what a condition comes to on the stack. */
    private void truth(Term term) {
        var ways = new Ways(code.newLabel(), code.newLabel(), code.newLabel());
        var end = code.newLabel();
        test(term, ways);
        code.labelBinding(ways.yes)
                .getstatic(BOOLEAN, "TRUE", BOOLEAN)
                .goto_(end)
                .labelBinding(ways.no)
                .getstatic(BOOLEAN, "FALSE", BOOLEAN)
                .goto_(end)
                .labelBinding(ways.unknown)
                .getstatic(NOTHING, "NULL", NOTHING)
                .labelBinding(end);
    }

    /** Where to go on when a condition is true, false, or neither. */
    private record Ways(Label yes, Label no, Label unknown) {
        Ways opposite() {
            return new Ways(no, yes, unknown);
        }
    }

    /** Goes one of three ways. */
    private void test(Term term, Ways ways) {
        switch (term) {
            case Term.Logical(boolean isAnd, var parts, _) -> logical(isAnd, parts, ways);
            case Term.Within within -> within(within, ways);
            case Term.Compare compare -> compare(compare, ways);
            case Term.Call call when isNot(call) -> not(call.arguments().getFirst(), ways);
            default -> {
                value(term);
                outcome(ways);
            }
        }
    }

    /** Goes by the value on the stack. */
    private void outcome(Ways ways) {
        outcome(kept(), ways);
        code.goto_(ways.unknown);
    }

    /** Goes by a variable when it is true or false, and on behind this when it is neither. */
    private void outcome(int variable, Ways ways) {
        code.aload(variable)
                .getstatic(BOOLEAN, "TRUE", BOOLEAN)
                .if_acmpeq(ways.yes)
                .aload(variable)
                .getstatic(BOOLEAN, "FALSE", BOOLEAN)
                .if_acmpeq(ways.no);
    }

    private void not(Term negand, Ways ways) {
        value(negand);
        int variable = kept();
        outcome(variable, ways.opposite());
        code.aload(variable)
                .aload(RUN_AT)
                .invokestatic(STEPS, "not", MethodTypeDesc.of(CD_Object, CD_Object, RUN));
        outcome(ways);
    }

    /** The value is in a variable as long as the tests run, and not in the frame. */
    private void within(Term.Within within, Ways ways) {
        int slot = within.tested().slot();
        value(within.value());
        var outer = places.put(slot, kept());
        logical(false, within.tests(), ways);
        if (outer == null) {
            places.remove(slot);
        } else {
            places.put(slot, outer);
        }
    }

    private void logical(boolean isAnd, List<? extends Term> parts, Ways ways) {
        int open = code.allocateLocal(TypeKind.INT);
        code.iconst_0().istore(open);
        part(isAnd, parts.getFirst(), ways, open);
        perhaps(() -> parts.stream().skip(1).forEach(part -> part(isAnd, part, ways, open)));
        code.iload(open).ifne(ways.unknown).goto_(isAnd ? ways.yes : ways.no);
    }

    /** Goes on behind this when the part does not decide. */
    private void part(boolean isAnd, Term part, Ways ways, int open) {
        var next = code.newLabel();
        var unknown = code.newLabel();
        test(part, isAnd ? new Ways(next, ways.no, unknown) : new Ways(ways.yes, next, unknown));
        code.labelBinding(unknown).iconst_1().istore(open).labelBinding(next);
    }

    private void compare(Term.Compare compare, Ways asked) {
        var operator = compare.operator();
        if (operator != Operator.EQUAL && operator != Operator.NOT_EQUAL) {
            ordered(compare, asked);
            return;
        }
        var ways = operator == Operator.EQUAL ? asked : asked.opposite();
        value(compare.left());
        if (compare.right() instanceof Term.Constant constant
                && constant.value() instanceof String text) {
            text(text, ways);
        }
        value(compare.right());
        code.invokestatic(STEPS, "equal", MethodTypeDesc.of(CD_Object, CD_Object, CD_Object));
        outcome(ways);
    }

    /** Goes by the value on the stack when it is text, and on behind this with it when not. */
    private void text(String text, Ways ways) {
        int variable = kept();
        code.aload(variable);
        constant(text, STRING);
        code.if_acmpeq(ways.yes);
        constant(text, STRING);
        code.aload(variable)
                .invokevirtual(STRING, "equals", MethodTypeDesc.of(CD_boolean, CD_Object))
                .ifne(ways.yes)
                .aload(variable)
                .instanceOf(STRING)
                .ifne(ways.no)
                .aload(variable);
    }

    private void ordered(Term.Compare compare, Ways ways) {
        var operator = compare.operator();
        var other = code.newLabel();
        value(compare.left());
        int left = kept();
        if (compare.right() instanceof Term.Constant constant
                && constant.value() instanceof Decimal number
                && number.isShort()) {
            code.aload(left)
                    .instanceOf(DECIMAL)
                    .ifeq(other)
                    .aload(left)
                    .checkcast(DECIMAL)
                    .loadConstant(number.digits())
                    .loadConstant(number.places())
                    .invokevirtual(
                            DECIMAL, "compareTo", MethodTypeDesc.of(CD_int, CD_long, CD_int));
            switch (operator) {
                case LESS -> code.iflt(ways.yes);
                case LESS_OR_EQUAL -> code.ifle(ways.yes);
                case GREATER -> code.ifgt(ways.yes);
                default -> code.ifge(ways.yes);
            }
            code.goto_(ways.no);
        }
        code.labelBinding(other).aload(left);
        value(compare.right());
        boolean below = operator == Operator.LESS || operator == Operator.LESS_OR_EQUAL;
        boolean orEqual =
                operator == Operator.LESS_OR_EQUAL || operator == Operator.GREATER_OR_EQUAL;
        code.loadConstant(below ? 1 : 0)
                .loadConstant(orEqual ? 1 : 0)
                .aload(RUN_AT)
                .invokestatic(
                        STEPS,
                        "ordered",
                        MethodTypeDesc.of(
                                CD_Object, CD_Object, CD_Object, CD_boolean, CD_boolean, RUN));
        outcome(ways);
    }
}

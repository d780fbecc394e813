package sandpiper.logic.run;

import static java.lang.constant.ConstantDescs.CD_Object;
import static java.lang.constant.ConstantDescs.CD_int;
import static java.lang.constant.ConstantDescs.INIT_NAME;
import static java.lang.constant.ConstantDescs.MTD_void;

import java.lang.classfile.ClassFile;
import java.lang.classfile.CodeBuilder;
import java.lang.constant.ClassDesc;
import java.lang.constant.MethodTypeDesc;
import java.lang.invoke.MethodHandles;
import java.lang.invoke.MethodType;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import org.jspecify.annotations.Nullable;
import sandpiper.logic.check.NameContext;
import sandpiper.logic.term.Term;
import sandpiper.logic.value.RecordValue;

/**
 * Writes an expression as a class of its own, for those that run often.
 *
 * <p>Comparisons, reckoning and what joins them become one method; whatever else stands in the
 * expression is a function that the method calls, as it is in the tree of functions. Members and
 * fixed values are constants of the class, so that the JVM knows them when it compiles it. The
 * class is hidden and goes when the expression does.
 */
final class GeneratedClass {
    /** Bytes of a class beyond which the JVM would not compile its method, JVMS 4.7.3 aside. */
    private static final int LONGEST = 8_000;

    private static final ClassDesc OP = GeneratedBody.desc(Op.class);
    private static final ClassDesc FRAME = GeneratedBody.desc(Frame.class);
    private static final ClassDesc RUN = GeneratedBody.desc(Evaluation.class);
    private static final ClassDesc RECORD = GeneratedBody.desc(RecordValue.class);
    private static final ClassDesc EXPRESSION =
            ClassDesc.of(GeneratedClass.class.getPackageName(), "Expression");

    private static final MethodTypeDesc EVAL = MethodTypeDesc.of(CD_Object, FRAME);
    private static final MethodTypeDesc ABOUT = MethodTypeDesc.of(CD_Object, RECORD, RUN, CD_int);
    private static final MethodTypeDesc BODY = MethodTypeDesc.of(CD_Object, RECORD, RUN, FRAME);

    private GeneratedClass() {}

    /** The expression as a class, or {@code null} when it is too long to be of use as one. */
    static @Nullable Op of(Term term) {
        var constants = new ArrayList<>();
        byte[] bytes;
        try {
            bytes = bytes(term, constants);
        } catch (IllegalArgumentException e) {
            // So the class file interface says that a method would be longer than any may be.
            return null;
        }
        return bytes.length > LONGEST ? null : made(bytes, constants);
    }

    private static byte[] bytes(Term term, List<Object> constants) {
        return ClassFile.of()
                .build(
                        EXPRESSION,
                        written -> {
                            written.withFlags(ClassFile.ACC_FINAL).withInterfaceSymbols(OP);
                            written.withMethodBody(
                                    INIT_NAME, MTD_void, 0, GeneratedClass::constructor);
                            written.withMethodBody(
                                    "eval", EVAL, ClassFile.ACC_PUBLIC, GeneratedClass::eval);
                            var usesFrame = new AtomicBoolean();
                            written.withMethodBody(
                                    "body",
                                    BODY,
                                    ClassFile.ACC_STATIC,
                                    code -> {
                                        var body = new GeneratedBody(code, constants);
                                        usesFrame.set(body.write(term));
                                    });
                            if (!usesFrame.get()) {
                                written.withMethodBody(
                                        "about",
                                        ABOUT,
                                        ClassFile.ACC_PUBLIC,
                                        GeneratedClass::about);
                            }
                        });
    }

    private static void eval(CodeBuilder code) {
        code.aload(1)
                .loadConstant(NameContext.THIS)
                .invokevirtual(FRAME, "record", MethodTypeDesc.of(RECORD, CD_int))
                .aload(1)
                .invokevirtual(FRAME, "run", MethodTypeDesc.of(RUN))
                .aload(1)
                .invokestatic(EXPRESSION, "body", BODY)
                .areturn();
    }

    /** Instead of the usual way, which makes a frame. */
    private static void about(CodeBuilder code) {
        code.aload(1).aload(2).aconst_null().invokestatic(EXPRESSION, "body", BODY).areturn();
    }

    private static void constructor(CodeBuilder code) {
        code.aload(0).invokespecial(CD_Object, INIT_NAME, MTD_void).return_();
    }

    private static Op made(byte[] bytes, List<Object> constants) {
        try {
            var hidden =
                    MethodHandles.lookup()
                            .defineHiddenClassWithClassData(bytes, List.copyOf(constants), true);
            return (Op)
                    hidden.findConstructor(hidden.lookupClass(), MethodType.methodType(void.class))
                            .invoke();
        } catch (Throwable e) {
            throw new IllegalStateException(e);
        }
    }
}

package sandpiper.testing;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static java.util.stream.Collectors.counting;
import static java.util.stream.Collectors.groupingBy;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.jspecify.annotations.NullMarked;

/**
 * The rules of the house for one of its floors: imports only go down, rooms do not go in circles,
 * none is too full, and each says what may be null. What is broken is thrown as an {@link
 * AssertionError} that says where.
 */
public final class HouseRules {
    /** Types of a room, beyond which nobody finds what is in it. */
    private static final int MOST_TYPES = 26;

    private static final String HOUSE = "sandpiper.";

    private final String floor;
    private final JavaClasses classes;

    /** The rules for a floor, such as {@code engine}; its classes are looked at once. */
    public HouseRules(String floor) {
        this.floor = floor;
        this.classes =
                new ClassFileImporter()
                        .withImportOption(new ImportOption.DoNotIncludeTests())
                        .importPackages(HOUSE + floor);
        if (classes.isEmpty()) {
            throw new AssertionError("There are no classes of " + floor + " on the class path.");
        }
    }

    /** Holds the floor to all of the rules; {@code below} are the floors it may know. */
    public void check(String... below) {
        knowsOnly(below);
        roomsDoNotGoInCircles();
        noRoomIsTooFull();
        roomsSayWhatMayBeNull();
    }

    /** Imports go down, to these floors only. */
    public void knowsOnly(String... below) {
        var wrong = new ArrayList<String>();
        var allowed = Stream.concat(Stream.of(floor), Stream.of(below)).toList();
        for (var type : classes) {
            for (var dependency : type.getDirectDependenciesFromSelf()) {
                var target = dependency.getTargetClass().getPackageName();
                if (target.startsWith(HOUSE) && !allowed.contains(floorOf(target))) {
                    wrong.add(dependency.getDescription());
                }
            }
        }
        report("knows floors that it may not know", wrong);
    }

    private static String floorOf(String packageName) {
        return packageName.substring(HOUSE.length()).split("\\.")[0];
    }

    /** None of these packages, with what is in them, is known here. */
    public void neverUses(String why, String... packages) {
        noClasses()
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(packages)
                .because(why)
                .allowEmptyShould(true)
                .check(classes);
    }

    /** No room knows one that knows it, on whatever way. */
    public void roomsDoNotGoInCircles() {
        slices().matching(HOUSE + floor + ".(*)..")
                .should()
                .beFreeOfCycles()
                .allowEmptyShould(true)
                .check(classes);
    }

    /** The number of types of each room, without those within others. */
    public Map<String, Long> rooms() {
        return new TreeMap<>(types().collect(groupingBy(JavaClass::getPackageName, counting())));
    }

    private Stream<JavaClass> types() {
        return classes.stream()
                .filter(type -> type.isTopLevelClass() && !type.getSimpleName().isEmpty())
                .filter(type -> !type.getSimpleName().equals("package-info"));
    }

    /** No room has more types than somebody keeps in mind. */
    public void noRoomIsTooFull() {
        report(
                "has rooms with more than %d types".formatted(MOST_TYPES),
                rooms().entrySet().stream()
                        .filter(room -> room.getValue() > MOST_TYPES)
                        .map(room -> "%s has %d".formatted(room.getKey(), room.getValue()))
                        .toList());
    }

    /** Each room is marked, so that what is not marked {@code @Nullable} is never null. */
    public void roomsSayWhatMayBeNull() {
        var marked =
                classes.stream()
                        .filter(type -> type.getSimpleName().equals("package-info"))
                        .filter(type -> type.isAnnotatedWith(NullMarked.class))
                        .map(JavaClass::getPackageName)
                        .toList();
        report(
                "has rooms whose package-info is not marked",
                rooms().keySet().stream().filter(room -> !marked.contains(room)).toList());
    }

    private void report(String what, List<String> wrong) {
        if (!wrong.isEmpty()) {
            throw new AssertionError("%s %s:%n%s".formatted(floor, what, String.join("\n", wrong)));
        }
    }
}

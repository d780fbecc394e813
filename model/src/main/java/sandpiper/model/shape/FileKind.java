package sandpiper.model.shape;

import java.util.Arrays;
import java.util.Optional;
import java.util.regex.Pattern;

/** The kinds of definition files, where in a package they are, and what may stand in them. */
public enum FileKind {
    PACKAGE("package", "package.yaml", FileShapes.PACKAGE),
    OBJECT("object", "objects/*.yaml", FileShapes.OBJECT),
    EXTENSION("extension", "extensions/*.yaml", FileShapes.EXTENSION),
    CHOICES("choices", "choices/*.yaml", FileShapes.CHOICES),
    SERVICE("service", "services/*.yaml", ServiceShapes.SERVICE),
    SERVICE_EXTENSION("service-extension", "service-extensions/*.yaml", ServiceShapes.EXTENSION),
    EVENT("event", "events/*.yaml", FileShapes.EVENT),
    ROUTE("route", "routes/*.yaml", RouteShapes.ROUTE),
    CONNECTION("connection", "connections/*.yaml", ConnectionShapes.CONNECTION),
    ROLE("role", "roles/*.yaml", RoleShapes.ROLE),
    VIEW("view", "views/*.yaml", ViewShapes.VIEW),
    REQUIREMENT("requirement", "requirements/*.yaml", RequirementShapes.REQUIREMENT);

    private final String id;
    private final String where;
    private final Shape.Keys shape;

    FileKind(String id, String where, Shape.Keys shape) {
        this.id = id;
        this.where = where;
        this.shape = shape;
    }

    /** The kind's name in addresses and file names: {@code object}. */
    public String id() {
        return id;
    }

    /** Where such files are in a package's folder, with {@code *} for any name. */
    public String where() {
        return where;
    }

    /** What may stand in such a file. */
    public Shape.Keys shape() {
        return shape;
    }

    /**
     * The kind of a file by its path inside the package's folder, or nothing when no kind lives
     * there.
     */
    public static Optional<FileKind> of(String path) {
        return Arrays.stream(values())
                .filter(kind ->
                        Pattern.matches(kind.where.replace(".", "\\.").replace("*", "[^/]+"), path))
                .findFirst();
    }
}

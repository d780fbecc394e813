package sandpiper.model.check;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Predicate;
import sandpiper.logic.LogicCode;
import sandpiper.logic.Nearest;
import sandpiper.logic.ProblemCode;
import sandpiper.logic.Quoted;
import sandpiper.model.DefinitionCode;
import sandpiper.model.Diagnostic;
import sandpiper.model.Place;
import sandpiper.model.brought.BroughtReader;
import sandpiper.model.connection.ConnectionType;
import sandpiper.model.definition.Brought;
import sandpiper.model.definition.PackageType;
import sandpiper.model.definition.Requirement;
import sandpiper.model.logic.LogicCompiler;
import sandpiper.model.release.EventType;
import sandpiper.model.release.ObjectType;
import sandpiper.model.release.Release;
import sandpiper.model.release.RouteType;
import sandpiper.model.release.ServiceType;
import sandpiper.model.route.RouteReader;
import sandpiper.model.route.TravellingFields;
import sandpiper.model.service.ServiceExtensions;
import sandpiper.model.service.ServiceReader;
import sandpiper.model.shape.FileKind;
import sandpiper.model.source.Source;
import sandpiper.model.type.ChoiceList;

/**
 * Checks all definition files together and compiles them.
 *
 * <p>Every problem is found in one go: a file that cannot be read keeps no other from being
 * checked, and a name that is not known is reported where it is used.
 */
public final class Definitions {
    private final Map<String, String> files;
    private final List<Diagnostic> diagnostics = new ArrayList<>();
    private final Map<String, PackageType> packages = new LinkedHashMap<>();
    private final Map<String, Source> packageSources = new HashMap<>();
    private final Map<String, ChoiceList> choices = new LinkedHashMap<>();
    private final Map<String, ObjectType> objects = new LinkedHashMap<>();
    private final Map<String, Source> objectSources = new LinkedHashMap<>();
    private final Map<String, List<Source>> extensionSources = new HashMap<>();
    private final List<ServiceType> services = new ArrayList<>();
    private final Map<String, EventType> events = new LinkedHashMap<>();
    private final List<Requirement> requirements = new ArrayList<>();
    private final LabelReader labels = new LabelReader();
    private final DefinitionFiles sources;

    private Definitions(Map<String, String> files) {
        this.files = new TreeMap<>(files);
        this.sources = new DefinitionFiles(this.files, diagnostics);
    }

    /**
     * Checks files.
     *
     * @param files texts by path, such as {@code harbour/objects/owner.yaml}; the first folder is
     *     the package
     */
    public static CheckedDefinitions check(Map<String, String> files) {
        var definitions = new Definitions(files);
        var whole = definitions.checked(Definitions::isError);
        var alone = definitions.alone(whole);
        return alone.isEmpty() ? whole : whole.with(alone);
    }

    /**
     * Reads files that were released before, perhaps by an earlier service that knew less of what
     * can be wrong with expressions: that alone keeps none of them from being served.
     */
    public static CheckedDefinitions reread(Map<String, String> files) {
        return new Definitions(files).checked(one -> isError(one) && !isOfLogic(one));
    }

    private static boolean isError(Diagnostic diagnostic) {
        return diagnostic.severity() == Diagnostic.Severity.ERROR;
    }

    private static boolean isOfLogic(Diagnostic diagnostic) {
        return Arrays.stream(LogicCode.values())
                .anyMatch(code -> code.id().equals(diagnostic.code()));
    }

    /**
     * What is wrong with a package when nothing is built on it: it may name what a package adds
     * that needs it, and then it could never be installed without that one.
     */
    private List<Diagnostic> alone(CheckedDefinitions whole) {
        var found = new ArrayList<Diagnostic>();
        for (var name : packages.keySet()) {
            var needed = new TreeSet<String>();
            need(name, needed);
            boolean isExtended =
                    extensionSources.entrySet().stream()
                            .filter(one -> isOf(one.getKey(), needed))
                            .flatMap(one -> one.getValue().stream())
                            .anyMatch(source ->
                                    !needed.contains(DefinitionFiles.folder(source.file())));
            if (isExtended) {
                var own = new TreeMap<>(files);
                own.keySet().removeIf(path -> !needed.contains(DefinitionFiles.folder(path)));
                new Definitions(own)
                        .checked(Definitions::isError).diagnostics().stream()
                                .filter(one ->
                                        isError(one)
                                                && DefinitionFiles.folder(one.file()).equals(name))
                                .filter(one -> !whole.diagnostics().contains(one))
                                .map(one ->
                                        one.said(
                                                one.message()
                                                        + " The package %s is checked by itself too: what a package built on it adds is not its own."
                                                                .formatted(name)))
                                .forEach(found::add);
            }
        }
        return found;
    }

    private boolean isOf(String object, Set<String> packageNames) {
        var source = objectSources.get(object);
        return source != null && packageNames.contains(DefinitionFiles.folder(source.file()));
    }

    private void need(String name, Set<String> into) {
        var found = packages.get(name);
        if (found != null && into.add(name)) {
            found.depends().forEach(one -> need(one, into));
        }
    }

    private CheckedDefinitions checked(Predicate<Diagnostic> stops) {
        readPackages();
        var order = PackageOrder.of(packages, packageSources);
        for (var packageName : order) {
            readChoices(packageName);
        }
        for (var packageName : order) {
            readObjects(packageName);
        }
        for (var packageName : order) {
            readExtensions(packageName);
        }
        for (var packageName : order) {
            readEvents(packageName);
        }
        var routes = new RouteReader(packages, objects);
        for (var packageName : order) {
            sources.of(FileKind.ROUTE, packageName).forEach(one -> routes.read(one, packageName));
        }
        new TravellingFields(routes, packages, objects, filesOfObjects(), labels::alike).make();
        var connections = new ConnectionReader(packages, choices, sources.documents());
        for (var packageName : order) {
            sources.of(FileKind.CONNECTION, packageName)
                    .forEach(one -> connections.read(one, packageName));
        }
        connections.checkDocuments(diagnostics);
        packageSources.forEach((name, source) -> connections.checkRates(source, name));
        new ReferenceChecker(
                        packages, objects, objectSources, extensionSources, connections.named())
                .check();
        new LayoutReader(objects, objectSources, extensionSources).read();
        var compiled = compile(order, routes.routes(), connections.connections());
        // Services are read last: which fields can be filtered by is known only now.
        compiled.objects().forEach(object -> objects.put(object.name(), object));
        for (var packageName : order) {
            readServices(packageName, compiled);
        }
        var extensions = new ServiceExtensions(packages, services);
        for (var packageName : order) {
            sources.of(FileKind.SERVICE_EXTENSION, packageName)
                    .forEach(one -> extensions.add(one, packageName));
        }
        routes.check(services);
        var brought = new BroughtReader(compiled, services, diagnostics);
        for (var packageName : order) {
            sources.of(FileKind.ROLE, packageName).forEach(role -> brought.role(role, packageName));
            sources.of(FileKind.VIEW, packageName).forEach(view -> brought.view(view, packageName));
            files.forEach((path, text) -> {
                if (DefinitionFiles.folder(path).equals(packageName)
                        && BroughtReader.isSeed(path)) {
                    brought.seed(path, text, packageName);
                }
            });
        }
        for (var packageName : order) {
            readRequirements(packageName, compiled);
        }
        diagnostics.sort(Diagnostic.BY_PLACE);
        boolean wrong = diagnostics.stream().anyMatch(stops);
        return new CheckedDefinitions(
                diagnostics,
                wrong
                        ? null
                        : new Release(
                                order.stream().map(packages::get).toList(),
                                List.copyOf(objects.values()),
                                List.copyOf(choices.values()),
                                services,
                                List.copyOf(events.values()),
                                requirements,
                                routes.routes(),
                                connections.connections(),
                                brought.all(),
                                labels.labels()),
                compiled);
    }

    /** Compiles all logic; what is wrong with it is reported even when other things are wrong. */
    private Release compile(
            List<String> order, List<RouteType> routes, List<ConnectionType> connections) {
        var release =
                new Release(
                        order.stream().map(packages::get).toList(),
                        List.copyOf(objects.values()),
                        List.copyOf(choices.values()),
                        List.of(),
                        List.copyOf(events.values()),
                        List.of(),
                        routes,
                        connections,
                        Brought.NOTHING,
                        labels.labels());
        var findings = LogicCompiler.findings(release);
        diagnostics.addAll(findings.diagnostics());
        return release.with(findings.objects());
    }

    private Map<String, List<Source>> filesOfObjects() {
        var all = new HashMap<String, List<Source>>();
        objectSources.forEach((name, source) -> all.put(name, new ArrayList<>(List.of(source))));
        extensionSources.forEach(
                (name, more) -> all.computeIfAbsent(name, _ -> new ArrayList<>()).addAll(more));
        return all;
    }

    private void readExtensions(String packageName) {
        for (var source : sources.of(FileKind.EXTENSION, packageName)) {
            var name = Source.text(source.root(), "extend").orElse("");
            var object = objects.get(name);
            var owner = packages.get(packageName);
            if (owner == null || name.isEmpty()) {
                continue;
            }
            if (object == null) {
                source.error(
                        DefinitionCode.UNKNOWN_OBJECT,
                        "There is no object %s to extend.".formatted(Quoted.of(name)),
                        Nearest.to(name, objects.keySet()).orElse(null),
                        "extend");
            } else {
                objects.put(name, new ExtensionReader(source, owner, choices).read(object));
                labels.object(source, name, owner.languages());
                extensionSources.computeIfAbsent(name, _ -> new ArrayList<>()).add(source);
            }
        }
    }

    private void readPackages() {
        for (var source : sources.of(FileKind.PACKAGE)) {
            var folder = DefinitionFiles.folder(source.file());
            packages.put(folder, PackageReader.read(source, folder));
            packageSources.put(folder, source);
        }
        files.keySet().stream()
                .map(DefinitionFiles::folder)
                .filter(folder -> !folder.isEmpty() && !files.containsKey(folder + "/package.yaml"))
                .distinct()
                .forEach(folder ->
                        report(
                                folder + "/package.yaml",
                                DefinitionCode.MISSING_KEY,
                                "The package %s has no package.yaml."
                                        .formatted(Quoted.of(folder))));
    }

    private void readChoices(String packageName) {
        for (var source : sources.of(FileKind.CHOICES, packageName)) {
            var name = Source.text(source.root(), "choices").orElse("");
            var codes = source.root().get("codes");
            if (name.isEmpty() || codes.isEmpty()) {
                continue;
            }
            var owner = packages.get(packageName);
            var languages = owner == null ? List.<String>of() : owner.languages();
            labels.choices(source, name, languages);
            var list = ChoiceReader.read(source, name, codes.get(), languages);
            if (choices.putIfAbsent(name, list) != null) {
                source.error(
                        DefinitionCode.DUPLICATE_NAME,
                        "There is a choice list %s already.".formatted(Quoted.of(name)),
                        null,
                        "choices");
            }
        }
    }

    private void readObjects(String packageName) {
        for (var source : sources.of(FileKind.OBJECT, packageName)) {
            var name = Source.text(source.root(), "object").orElse("");
            if (name.isEmpty()) {
                continue;
            }
            var namesake =
                    objects.values().stream()
                            .filter(other -> other.name().equalsIgnoreCase(name))
                            .findFirst();
            if (namesake.isPresent()) {
                source.error(
                        DefinitionCode.DUPLICATE_NAME,
                        "There is an object %s already, in the package %s."
                                .formatted(
                                        Quoted.of(namesake.get().name()),
                                        namesake.get().packageName()),
                        null,
                        "object");
                continue;
            }
            var owner = packages.get(packageName);
            if (owner != null) {
                objects.put(name, new ObjectReader(source, owner, choices).read(name));
                objectSources.put(name, source);
                labels.object(source, name, owner.languages());
            }
        }
    }

    private void readEvents(String packageName) {
        for (var source : sources.of(FileKind.EVENT, packageName)) {
            var name = Source.text(source.root(), "event").orElse("");
            var owner = packages.get(packageName);
            if (name.isEmpty() || owner == null) {
                continue;
            }
            var event = EventReader.read(source, owner, choices, name);
            var about = event.about();
            if (about != null && !objects.containsKey(about)) {
                source.error(
                        DefinitionCode.UNKNOWN_OBJECT,
                        "There is no object %s.".formatted(Quoted.of(about)),
                        Nearest.to(about, objects.keySet()).orElse(null),
                        "about");
            }
            if (events.putIfAbsent(name, event) != null) {
                source.error(
                        DefinitionCode.DUPLICATE_NAME,
                        "There is an event %s already.".formatted(Quoted.of(name)),
                        null,
                        "event");
            }
        }
    }

    private void readRequirements(String packageName, Release compiled) {
        for (var source : sources.of(FileKind.REQUIREMENT, packageName)) {
            for (var one : new RequirementReader(source, packageName, compiled).read()) {
                boolean taken =
                        requirements.stream().anyMatch(other -> other.id().equals(one.id()));
                if (taken) {
                    source.errorAtKey(
                            DefinitionCode.DUPLICATE_NAME,
                            "There is a requirement %s already.".formatted(Quoted.of(one.id())),
                            null,
                            "requirements",
                            one.id());
                } else {
                    requirements.add(one);
                }
            }
        }
    }

    private void readServices(String packageName, Release compiled) {
        for (var source : sources.of(FileKind.SERVICE, packageName)) {
            var name = Source.text(source.root(), "service").orElse("");
            if (name.isEmpty()) {
                continue;
            }
            var service = new ServiceReader(source, packageName, objects, compiled).read(name);
            boolean taken =
                    services.stream()
                            .anyMatch(other ->
                                    other.name().equals(name)
                                            && other.version() == service.version());
            if (taken) {
                source.error(
                        DefinitionCode.DUPLICATE_NAME,
                        "There is a service %s already; give one another name or version."
                                .formatted(service.titled()),
                        null,
                        "service");
            } else {
                services.add(service);
            }
        }
    }

    private void report(String file, ProblemCode code, String message) {
        diagnostics.add(Diagnostic.error(file, Place.START, code, message, null));
    }
}

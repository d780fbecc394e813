package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeMap;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.core.io.ByteArrayResource;
import org.springframework.core.io.Resource;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.command.FaultPath;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.port.DefinitionStorage.StoredOrigin;
import sandpiper.logic.Quoted;
import sandpiper.model.Diagnostic;
import sandpiper.model.definition.PackageType;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.pack.ArchiveReader;
import sandpiper.server.pack.ArchiveWriter;
import sandpiper.server.pack.BadArchiveException;
import sandpiper.server.pack.Manifest;
import sandpiper.server.pack.PackedPackage;
import sandpiper.server.pack.SigningKey;
import sandpiper.server.pack.VersionOrder;
import sandpiper.server.problem.Problem;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.Settings;

/** Packages as a whole: which there are, from where they came, and as files that go elsewhere. */
@RestController
@RequestMapping("/manage/v1/packages")
public class PackageController {
    private static final String ZIP = "application/zip";

    private final Engine engine;
    private final String instance;
    private final List<String> trusted;
    private final @Nullable SigningKey key;

    PackageController(Engine engine, Settings settings) {
        this.engine = engine;
        this.instance = settings.instance().name();
        this.trusted = settings.packages().trusted();
        var file = settings.packages().signingKey();
        this.key = file == null ? null : SigningKey.read(file);
    }

    /**
     * From where a package came.
     *
     * @param instance where it was packed; empty when that has no name, or it was a folder
     * @param release the one it was packed from, or {@code null} for a folder
     * @param signer the fingerprint of the key it was signed with, or {@code null}
     */
    record PackageOrigin(
            String instance,
            @Nullable Integer release,
            @Nullable String signer,
            String at,
            String by) {}

    /**
     * A package of the live release.
     *
     * @param content what tells its files from any others
     * @param origin from where it came, or {@code null} when it was made or pushed here
     * @param altered files that differ from those that came
     */
    record LivePackage(
            String name,
            String version,
            String label,
            boolean sealed,
            List<String> depends,
            String content,
            int files,
            @Nullable PackageOrigin origin,
            List<String> altered) {}

    /**
     * A package that came into the draft.
     *
     * @param before the version that was in the draft, or {@code null} when there was none
     */
    record Unpacked(
            String name,
            String version,
            @Nullable String before,
            @Nullable String signer,
            List<String> added,
            List<String> changed,
            List<String> removed,
            List<Diagnostic> diagnostics) {}

    @Operation(summary = "List the packages that are live, and from where they came")
    @GetMapping
    List<LivePackage> all(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var live = engine.live();
        var files = engine.releases().filesOf(live.number());
        var origins = engine.drafts().origins();
        return live.release().packages().stream().map(one -> view(one, files, origins)).toList();
    }

    private static LivePackage view(
            PackageType one, Map<String, String> files, List<StoredOrigin> origins) {
        var own = new TreeMap<>(files);
        own.keySet().removeIf(path -> !Drafts.packageOf(path).equals(one.name()));
        var sums = Manifest.checksums(own);
        var content = Manifest.content(sums);
        var came = origins.stream().filter(it -> it.packageName().equals(one.name())).toList();
        var origin =
                came.stream()
                        .filter(it -> it.content().equals(content))
                        .findFirst()
                        .or(() ->
                                came.stream()
                                        .filter(it -> it.version().equals(one.version()))
                                        .findFirst());
        var manifest = origin.map(it -> Manifest.parse(it.manifest()));
        var altered = new TreeSet<String>();
        manifest.ifPresent(it -> {
            altered.addAll(sums.keySet());
            altered.addAll(it.files().keySet());
            altered.removeIf(path -> Objects.equals(sums.get(path), it.files().get(path)));
        });
        return new LivePackage(
                one.name(),
                one.version(),
                one.label(),
                one.sealed(),
                one.depends(),
                content,
                own.size(),
                origin.map(it -> origin(it, manifest.orElseThrow())).orElse(null),
                List.copyOf(altered));
    }

    private static PackageOrigin origin(StoredOrigin stored, Manifest manifest) {
        var packed = manifest.origin();
        return new PackageOrigin(
                packed == null ? "" : packed.instance(),
                packed == null ? null : packed.release(),
                stored.signer(),
                stored.at().toString(),
                stored.by());
    }

    @Operation(summary = "A live package as one file, to be unpacked elsewhere")
    @GetMapping(path = "/{name}/archive", produces = ZIP)
    ResponseEntity<Resource> archive(
            @PathVariable String name, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var live = engine.live();
        var versions = new TreeMap<String, String>();
        live.release().packages().forEach(one -> versions.put(one.name(), one.version()));
        if (!versions.containsKey(name)) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND,
                    "The live release has no package %s.".formatted(Quoted.of(name)));
        }
        var packed =
                PackedPackage.of(
                        name,
                        engine.releases().filesOf(live.number()),
                        versions,
                        new Manifest.Origin(instance, live.number()));
        return ResponseEntity.ok()
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        "attachment; filename=\"%s-%s.zip\"".formatted(name, versions.get(name)))
                .body(new ByteArrayResource(ArchiveWriter.write(packed, key)));
    }

    @Operation(
            summary = "Take a packed package into the draft, in the place of what was there",
            requestBody =
                    @io.swagger.v3.oas.annotations.parameters.RequestBody(
                            required = true,
                            content =
                                    @Content(
                                            mediaType = ZIP,
                                            schema = @Schema(type = "string", format = "binary"))))
    @PostMapping(path = "/unpack", consumes = ZIP)
    Unpacked unpack(@RequestBody byte[] archive, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var packed = read(archive);
        var manifest = packed.manifest();
        requireTrust(packed);
        var draft = engine.drafts().check();
        requireDependencies(manifest);
        var before = version(engine.drafts().files(), manifest.name());
        var after = engine.drafts().checkWith(manifest.name(), packed.files());
        requireFit(manifest, draft.errors(), after.errors());
        var pushed =
                engine.drafts()
                        .unpack(
                                packed.files(),
                                new StoredOrigin(
                                        manifest.name(),
                                        manifest.version(),
                                        manifest.content(),
                                        manifest.text(),
                                        packed.signer(),
                                        engine.clock().instant(),
                                        actor.name()),
                                actor);
        return new Unpacked(
                manifest.name(),
                manifest.version(),
                before.orElse(null),
                packed.signer(),
                pushed.added(),
                pushed.changed(),
                pushed.removed(),
                after.diagnostics());
    }

    private static PackedPackage read(byte[] archive) {
        try {
            return ArchiveReader.read(archive);
        } catch (BadArchiveException e) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    e.getMessage() + " Nothing was taken in.",
                    List.of());
        }
    }

    private void requireTrust(PackedPackage packed) {
        if (trusted.isEmpty()) {
            return;
        }
        var signer = packed.signer();
        if (signer == null || !trusted.contains(signer)) {
            throw new ProblemException(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    signer == null
                            ? "The package is not signed, and this instance takes signed ones only."
                                    + " Nothing was taken in."
                            : "The package is signed with the key %s, which this instance does not trust. Nothing was taken in."
                                    .formatted(signer));
        }
    }

    private static Optional<String> version(Map<String, String> files, String name) {
        try {
            return Optional.of(PackedPackage.of(name, files, Map.of(), null).manifest().version());
        } catch (BadArchiveException _) {
            return Optional.empty();
        }
    }

    /** What a package was packed beside must be there, and not be older. */
    private void requireDependencies(Manifest manifest) {
        var files = engine.drafts().files();
        var wrong = new ArrayList<String>();
        manifest.depends()
                .forEach((name, wanted) -> {
                    var there = version(files, name);
                    if (there.isEmpty()) {
                        wrong.add(
                                "%s%s is needed and is not here; unpack it first."
                                        .formatted(name, wanted.isEmpty() ? "" : " " + wanted));
                    } else if (VersionOrder.isOlder(there.get(), wanted)) {
                        wrong.add(
                                "It was made beside %s %s, and here is %s; unpack the newer one first."
                                        .formatted(name, wanted, there.get()));
                    }
                });
        if (!wrong.isEmpty()) {
            throw refused(
                    "%s %s does not fit here. Nothing was taken in."
                            .formatted(manifest.name(), manifest.version()),
                    wrong);
        }
    }

    /** Nothing that was right may become wrong, in the package or in what is built on it. */
    private static void requireFit(
            Manifest manifest, List<Diagnostic> before, List<Diagnostic> after) {
        var fresh =
                after.stream()
                        .filter(one ->
                                Drafts.packageOf(one.file()).equals(manifest.name())
                                        || !before.contains(one))
                        .map(one ->
                                "%s:%d:%d %s"
                                        .formatted(
                                                one.file(),
                                                one.line(),
                                                one.column(),
                                                one.message()))
                        .toList();
        if (!fresh.isEmpty()) {
            throw refused(
                    "With %s %s the definitions would have errors. Nothing was taken in."
                            .formatted(manifest.name(), manifest.version()),
                    fresh);
        }
    }

    private static ProblemException refused(String message, List<String> sentences) {
        return new ProblemException(
                HttpStatus.CONFLICT,
                message,
                sentences.stream()
                        .map(one -> new Problem.Wrong(FaultPath.WHOLE, "SP5005", one))
                        .toList());
    }
}

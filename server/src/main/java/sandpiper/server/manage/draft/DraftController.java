package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.definition.Drafts;
import sandpiper.engine.port.DefinitionStorage.DraftFileState;
import sandpiper.logic.Quoted;
import sandpiper.model.Diagnostic;
import sandpiper.server.manage.DutyCheck;
import sandpiper.server.pack.ArchiveReader;
import sandpiper.server.problem.ProblemException;
import sandpiper.server.settings.Settings;

/** The files being edited. */
@RestController
@RequestMapping("/manage/v1/draft")
public class DraftController {
    private static final int MOST_VERSIONS = 50;

    private final Engine engine;
    private final Settings.Instance instance;

    DraftController(Engine engine, Settings settings) {
        this.engine = engine;
        this.instance = settings.instance();
    }

    /** One definition file. */
    record DraftFile(@NotNull String path, @NotNull String text) {}

    /** All files and what there is to say about them. */
    record Draft(List<DraftFile> files, List<Diagnostic> diagnostics, List<String> sealed) {}

    /**
     * A file to be kept.
     *
     * @param base the text the change began with, so that somebody else's change is noticed; absent
     *     to keep it whatever is there
     */
    record Keep(@NotNull String path, @NotNull String text, @Nullable String base) {}

    /** A file and where it goes. */
    record Move(@NotNull String from, @NotNull String to) {}

    /**
     * Files to be made what they are in the live release.
     *
     * @param paths absent for the whole draft
     */
    record TakeBack(@Nullable List<String> paths) {}

    /** What a file was before it was changed or taken out. */
    record Version(String path, String text, String at, String by) {
        static Version of(DraftFileState file) {
            return new Version(file.path(), file.text(), file.at().toString(), file.by());
        }
    }

    /** What there is to say about the files after a change. */
    record Diagnostics(List<Diagnostic> diagnostics) {}

    /** Files by path. */
    record Push(@NotNull Map<String, String> files) {}

    /** What a push changed, and what there is to say about the files now. */
    record Pushed(
            List<String> added,
            List<String> changed,
            List<String> removed,
            List<Diagnostic> diagnostics) {}

    @Operation(summary = "Show the draft")
    @GetMapping
    Draft draft(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var files = engine.drafts().files();
        return new Draft(
                files.entrySet().stream()
                        .map(file -> new DraftFile(file.getKey(), file.getValue()))
                        .toList(),
                engine.drafts().check().diagnostics(),
                takesPackagesOnly() ? allPackages() : sealedPackages());
    }

    private boolean takesPackagesOnly() {
        return instance.accepts() == Settings.Accepts.PACKAGES;
    }

    private List<String> allPackages() {
        return engine.drafts().files().keySet().stream().map(Drafts::packageOf).distinct().toList();
    }

    private List<String> sealedPackages() {
        return engine.live().release().packages().stream()
                .filter(definition -> definition.sealed())
                .map(definition -> definition.name())
                .toList();
    }

    @Operation(summary = "Check files together with the draft")
    @PostMapping("/check")
    Diagnostics checkWith(
            @Valid @RequestBody DraftFile file, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return new Diagnostics(engine.drafts().checkWith(file.path(), file.text()).diagnostics());
    }

    @Operation(summary = "Keep a file in the draft")
    @PutMapping("/file")
    Diagnostics put(@Valid @RequestBody Keep file, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        requireEditable(file.path());
        engine.drafts()
                .put(file.path(), file.text(), file.base(), actor)
                .ifPresent(theirs -> {
                    throw new ProblemException(
                            HttpStatus.CONFLICT,
                            "%s changed this file at %s, after you began. Yours is not kept yet: take theirs, or keep yours in its place."
                                    .formatted(
                                            theirs.by(),
                                            theirs.at().truncatedTo(ChronoUnit.SECONDS)));
                });
        return new Diagnostics(engine.drafts().check().diagnostics());
    }

    /** Gives a file another path. */
    @Operation(summary = "Gives a file another path")
    @PostMapping("/move")
    Diagnostics move(@Valid @RequestBody Move move, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        requireEditable(move.from());
        requireEditable(move.to());
        if (!engine.drafts().move(move.from(), move.to(), actor)) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "There is no file %s, or there is one at %s already."
                            .formatted(move.from(), move.to()));
        }
        return new Diagnostics(engine.drafts().check().diagnostics());
    }

    /** Makes files, or the whole draft, what they are in the live release. */
    @Operation(summary = "Makes files, or the whole draft, what they are in the live release")
    @PostMapping("/take-back")
    Diagnostics takeBack(@Valid @RequestBody TakeBack body, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        var paths = body.paths();
        if (paths != null) {
            paths.forEach(DraftController::requirePath);
        }
        engine.drafts().takeBack(paths, actor);
        return new Diagnostics(engine.drafts().check().diagnostics());
    }

    /** What files were before, newest first. */
    @Operation(summary = "What files were before, newest first")
    @GetMapping("/versions")
    List<Version> versions(
            @RequestParam(required = false) @Nullable String path,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return engine.drafts().versions(path, MOST_VERSIONS).stream().map(Version::of).toList();
    }

    @Operation(summary = "Remove a file from the draft")
    @DeleteMapping("/file")
    Diagnostics remove(@RequestParam String path, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        requireEditable(path);
        engine.drafts().remove(List.of(path));
        return new Diagnostics(engine.drafts().check().diagnostics());
    }

    /**
     * Takes a package out as a whole; a delivered one, too, since nothing of it is edited. What it
     * was stays among the versions, and in the live release until the next one.
     */
    @Operation(summary = "Takes a package out as a whole")
    @DeleteMapping("/package")
    Diagnostics removePackage(@RequestParam String name, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        requireEditable();
        var paths =
                engine.drafts().files().keySet().stream()
                        .filter(path -> Drafts.packageOf(path).equals(name))
                        .toList();
        if (paths.isEmpty()) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND,
                    "The draft has no package %s.".formatted(Quoted.of(name)));
        }
        engine.drafts().remove(paths);
        return new Diagnostics(engine.drafts().check().diagnostics());
    }

    /** Some instances only run what was made and tested elsewhere. */
    private void requireEditable() {
        if (takesPackagesOnly()) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "%s takes packages only, and definitions are not changed in it: change them where they are made, pack them and unpack them here."
                            .formatted(
                                    instance.name().isEmpty()
                                            ? "This instance"
                                            : "The instance %s".formatted(instance.name())));
        }
    }

    private void requireEditable(String path) {
        requireEditable();
        requirePath(path);
        var owner = Drafts.packageOf(path);
        if (sealedPackages().contains(owner)) {
            throw new ProblemException(
                    HttpStatus.CONFLICT,
                    "%s is a delivered package and is not edited here; push a newer version of the whole package."
                            .formatted(owner));
        }
    }

    private static void requirePath(String path) {
        if (!ArchiveReader.isPath(path)) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "A file needs a path such as gullhaven/objects/stay.yaml.");
        }
    }

    @Operation(summary = "Put packages into the draft")
    @PostMapping("/push")
    Pushed push(@Valid @RequestBody Push push, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        requireEditable();
        push.files().keySet().forEach(DraftController::requirePath);
        var pushed = engine.drafts().push(push.files(), actor);
        return new Pushed(
                pushed.added(),
                pushed.changed(),
                pushed.removed(),
                engine.drafts().check().diagnostics());
    }
}

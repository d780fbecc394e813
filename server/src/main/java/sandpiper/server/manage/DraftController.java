package sandpiper.server.manage;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.util.List;
import java.util.Map;
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
import sandpiper.model.Diagnostic;
import sandpiper.server.problem.ProblemException;

/** The files being edited. */
@RestController
@RequestMapping("/manage/v1/draft")
class DraftController {
    private final Engine engine;

    DraftController(Engine engine) {
        this.engine = engine;
    }

    /** One definition file. */
    record DraftFile(@NotNull String path, @NotNull String text) {}

    /** All files and what there is to say about them. */
    record Draft(List<DraftFile> files, List<Diagnostic> diagnostics, List<String> sealed) {}

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

    @GetMapping
    Draft draft(@AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.DESIGN);
        var files = engine.drafts().files();
        return new Draft(
                files.entrySet().stream()
                        .map(file -> new DraftFile(file.getKey(), file.getValue()))
                        .toList(),
                engine.drafts().check().diagnostics(),
                sealedPackages());
    }

    private List<String> sealedPackages() {
        return engine.live().release().packages().stream()
                .filter(definition -> definition.sealed())
                .map(definition -> definition.name())
                .toList();
    }

    @PostMapping("/check")
    Diagnostics checkWith(
            @Valid @RequestBody DraftFile file, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.DESIGN);
        return new Diagnostics(engine.drafts().checkWith(file.path(), file.text()).diagnostics());
    }

    @PutMapping("/file")
    Diagnostics put(@Valid @RequestBody DraftFile file, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.DESIGN);
        requireEditable(file.path());
        engine.drafts().put(file.path(), file.text(), actor).join();
        return new Diagnostics(engine.drafts().check().diagnostics());
    }

    @DeleteMapping("/file")
    Diagnostics remove(@RequestParam String path, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.DESIGN);
        requireEditable(path);
        engine.drafts().remove(path).join();
        return new Diagnostics(engine.drafts().check().diagnostics());
    }

    private void requireEditable(String path) {
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
        if (!path.matches("[a-z0-9-]+/[A-Za-z0-9._/-]{1,200}") || path.contains("..")) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "A file needs a path such as gullhaven/objects/stay.yaml.");
        }
    }

    @PostMapping("/push")
    Pushed push(@Valid @RequestBody Push push, @AuthenticationPrincipal Actor actor) {
        Duties.require(actor, Duty.DESIGN);
        push.files().keySet().forEach(DraftController::requirePath);
        var pushed = engine.drafts().push(push.files(), actor).join();
        return new Pushed(
                pushed.added(),
                pushed.changed(),
                pushed.removed(),
                engine.drafts().check().diagnostics());
    }
}

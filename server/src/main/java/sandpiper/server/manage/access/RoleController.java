package sandpiper.server.manage.access;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant;
import sandpiper.engine.access.Role;
import sandpiper.server.manage.DutyCheck;

/** Roles: named sets of grants, which people are given. */
@RestController
@RequestMapping("/manage/v1/roles")
public class RoleController {
    private final Engine engine;

    RoleController(Engine engine) {
        this.engine = engine;
    }

    /**
     * What may be done with the records of an object.
     *
     * @param object its name, or {@code *} for every object
     * @param where a condition in FEEL that the records meet, or {@code null} for all
     * @param hidden fields and parts that are not seen
     * @param readOnly fields and parts that are seen but not changed
     */
    record ObjectGrantView(
            @NotBlank String object,
            @NotNull List<ObjectGrant.Action> actions,
            @Nullable @Size(max = 2000) String where,
            @Nullable List<String> hidden,
            @Nullable List<String> readOnly) {
        ObjectGrant grant() {
            return new ObjectGrant(
                    object,
                    new HashSet<>(actions),
                    where == null || where.isBlank() ? null : where,
                    Objects.requireNonNullElse(hidden, List.of()),
                    Objects.requireNonNullElse(readOnly, List.of()));
        }

        static ObjectGrantView of(ObjectGrant grant) {
            return new ObjectGrantView(
                    grant.object(),
                    grant.actions().stream().sorted().toList(),
                    grant.where(),
                    grant.hidden(),
                    grant.readOnly());
        }
    }

    /**
     * A role.
     *
     * @param services operations of services, as a client's grants
     * @param from the package that brings it, where it is changed; {@code null} when it was made in
     *     this instance
     */
    record RoleView(
            String name,
            String label,
            @Nullable String describe,
            List<Duty> duties,
            List<String> services,
            List<ObjectGrantView> objects,
            List<String> users,
            @Nullable String from) {
        static RoleView of(Role role, List<String> users) {
            return new RoleView(
                    role.name(),
                    role.label(),
                    role.describe(),
                    role.duties().stream().sorted().toList(),
                    role.services(),
                    role.objects().stream().map(ObjectGrantView::of).toList(),
                    users,
                    role.from());
        }
    }

    /** What a role shall be; what is absent is empty. */
    record RoleBody(
            @Nullable @Size(max = 80) String label,
            @Nullable @Size(max = 500) String describe,
            @Nullable List<Duty> duties,
            @Nullable List<@Size(max = 2000) String> services,
            @Nullable List<@Valid ObjectGrantView> objects) {}

    @Operation(summary = "List roles")
    @GetMapping
    List<RoleView> roles(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        return engine.accounts().roles().all().stream()
                .map(held -> RoleView.of(held.role(), held.users()))
                .toList();
    }

    /** Makes a role, or gives it other grants. */
    @Operation(summary = "Makes a role, or gives it other grants")
    @PutMapping("/{name:[a-z0-9-]{2,60}}")
    RoleView put(
            @PathVariable String name,
            @Valid @RequestBody RoleBody body,
            @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        var objects =
                Objects.requireNonNullElse(body.objects(), List.<ObjectGrantView>of()).stream()
                        .map(ObjectGrantView::grant)
                        .toList();
        var services = Objects.requireNonNullElse(body.services(), List.<String>of());
        new GrantChecks(engine.live(), engine.clock())
                .services("services", services)
                .objects("objects", objects)
                .finish();
        var role =
                new Role(
                        name,
                        body.label() == null ? name : body.label(),
                        body.describe(),
                        new HashSet<>(Objects.requireNonNullElse(body.duties(), List.<Duty>of())),
                        services,
                        objects,
                        null);
        engine.accounts().roles().put(actor, role);
        return RoleView.of(role, List.of());
    }

    @Operation(summary = "Remove a role")
    @DeleteMapping("/{name}")
    ResponseEntity<Void> remove(@PathVariable String name, @AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.ACCESS);
        engine.accounts().roles().remove(actor, name);
        return ResponseEntity.noContent().build();
    }
}

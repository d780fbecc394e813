package sandpiper.server.manage.record;

import io.swagger.v3.oas.annotations.Operation;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.Engine;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.engine.access.ObjectGrant.Action;
import sandpiper.engine.record.Figures;
import sandpiper.engine.record.NamedView;
import sandpiper.engine.views.NamedViews;
import sandpiper.logic.Quoted;
import sandpiper.model.definition.DeliveredView;
import sandpiper.server.problem.ProblemException;

/**
 * Views of lists that people keep by name: their own, and those that all see. What a view names is
 * looked at when it is used, since fields come and go.
 */
@RestController
@RequestMapping("/manage/v1/views/{object}")
public class NamedViewController {
    private final Engine engine;

    NamedViewController(Engine engine) {
        this.engine = engine;
    }

    /**
     * A drawing of records.
     *
     * @param by the field the records are grouped by
     * @param step how long a group is, for dates and moments
     * @param sum the field that is added up; {@code null} to count
     */
    record ChartView(
            NamedView.Chart.@NotNull Kind kind,
            @NotBlank @Size(max = 60) String by,
            Figures.@Nullable Step step,
            @Nullable @Size(max = 60) String sum) {}

    /**
     * A view, shared or one's own.
     *
     * @param from the package that brings it, where it is changed; {@code null} when it was kept in
     *     this instance
     */
    record ListView(
            String name,
            boolean shared,
            @Nullable String filter,
            @Nullable String search,
            @Nullable String sort,
            @Nullable String retired,
            List<String> columns,
            @Nullable ChartView chart,
            @Nullable String from) {
        static ListView of(NamedView view) {
            var chart = view.chart();
            return new ListView(
                    view.name(),
                    view.owner() == null,
                    view.filter(),
                    view.search(),
                    view.sort(),
                    view.retired(),
                    view.columns(),
                    chart == null
                            ? null
                            : new ChartView(chart.kind(), chart.by(), chart.step(), chart.sum()),
                    null);
        }

        static ListView of(DeliveredView view) {
            return new ListView(
                    view.name(),
                    true,
                    view.filter(),
                    null,
                    view.sort(),
                    null,
                    view.columns(),
                    view.chart() == null ? null : chart(view.chart()),
                    view.packageName());
        }

        private static ChartView chart(DeliveredView.Chart chart) {
            return new ChartView(
                    NamedView.Chart.Kind.valueOf(chart.kind().toUpperCase(Locale.ROOT)),
                    chart.by(),
                    chart.step() == null
                            ? null
                            : Figures.Step.valueOf(chart.step().toUpperCase(Locale.ROOT)),
                    chart.sum());
        }
    }

    /** What a view shall be. */
    record ListViewBody(
            @NotBlank @Size(max = 60) String name,
            boolean shared,
            @Nullable @Size(max = 4000) String filter,
            @Nullable @Size(max = 200) String search,
            @Nullable @Size(max = 100) String sort,
            @Nullable @Size(max = 20) String retired,
            @Nullable @Size(max = 100) List<@Size(max = 60) String> columns,
            @Nullable @Valid ChartView chart) {}

    @Operation(summary = "List the views of a list")
    @GetMapping
    List<ListView> views(@PathVariable String object, @AuthenticationPrincipal Actor actor) {
        require(object, actor);
        var brought = brought(object);
        // One of a package stands in the place of a shared one of its name.
        var kept =
                engine.views().of(object, actor.name()).stream()
                        .filter(view ->
                                view.owner() != null
                                        || brought.stream()
                                                .noneMatch(one -> one.name().equals(view.name())));
        return Stream.concat(brought.stream().map(ListView::of), kept.map(ListView::of)).toList();
    }

    private List<DeliveredView> brought(String object) {
        return engine.live().release().brought().views().stream()
                .filter(view -> view.object().equals(object))
                .toList();
    }

    private void requireOwn(String object, boolean shared, String name) {
        brought(object).stream()
                .filter(view -> shared && view.name().equals(name))
                .findFirst()
                .ifPresent(view -> {
                    throw new ProblemException(
                            HttpStatus.CONFLICT,
                            "The view %s comes with the package %s; change it there and release that."
                                    .formatted(Quoted.of(name), view.packageName()));
                });
    }

    private void require(String object, Actor actor) {
        var live = engine.live();
        RecordAccess.of(actor, live, RecordQueries.object(live, object)).require(Action.VIEW);
    }

    private static @Nullable String owner(boolean shared, Actor actor) {
        if (shared && !actor.has(Duty.DESIGN)) {
            throw new ProblemException(
                    HttpStatus.FORBIDDEN,
                    "Views that all see are kept by people with the duty design; keep it as your"
                            + " own.");
        }
        return shared ? null : actor.name();
    }

    @Operation(summary = "Keep a view")
    @PutMapping
    ListView put(
            @PathVariable String object,
            @Valid @RequestBody ListViewBody body,
            @AuthenticationPrincipal Actor actor) {
        require(object, actor);
        requireOwn(object, body.shared(), body.name().strip());
        var chart = body.chart();
        var view =
                new NamedView(
                        object,
                        owner(body.shared(), actor),
                        body.name().strip(),
                        body.filter(),
                        body.search(),
                        body.sort(),
                        body.retired(),
                        body.columns() == null ? List.of() : body.columns(),
                        chart == null
                                ? null
                                : new NamedView.Chart(
                                        chart.kind(), chart.by(), chart.step(), chart.sum()));
        if (!engine.views().put(actor.name(), view)) {
            throw new ProblemException(
                    HttpStatus.BAD_REQUEST,
                    "There are %d views already; remove some first.".formatted(NamedViews.MOST));
        }
        return ListView.of(view);
    }

    @Operation(summary = "Remove a view")
    @DeleteMapping
    ResponseEntity<Void> remove(
            @PathVariable String object,
            @RequestParam String name,
            @RequestParam(defaultValue = "false") boolean shared,
            @AuthenticationPrincipal Actor actor) {
        require(object, actor);
        requireOwn(object, shared, name);
        var owner = owner(shared, actor);
        if (!engine.views().remove(object, owner, name)) {
            throw new ProblemException(
                    HttpStatus.NOT_FOUND, "There is no view %s.".formatted(Quoted.of(name)));
        }
        return ResponseEntity.noContent().build();
    }
}

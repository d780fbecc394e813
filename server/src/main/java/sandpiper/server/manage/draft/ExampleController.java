package sandpiper.server.manage.draft;

import io.swagger.v3.oas.annotations.Operation;
import java.util.List;
import java.util.Map;
import java.util.ServiceLoader;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import sandpiper.engine.access.Actor;
import sandpiper.engine.access.Duty;
import sandpiper.server.ExamplePackages;
import sandpiper.server.manage.DutyCheck;

/** Packages that ship as examples. */
@RestController
public class ExampleController {
    /** An example with its definition files by path. */
    record ExamplePackageView(String label, String describe, Map<String, String> files) {}

    @Operation(summary = "List the examples that come along")
    @GetMapping("/manage/v1/examples")
    List<ExamplePackageView> shipped(@AuthenticationPrincipal Actor actor) {
        DutyCheck.require(actor, Duty.DESIGN);
        return ServiceLoader.load(ExamplePackages.class).stream()
                .map(ServiceLoader.Provider::get)
                .map(one -> new ExamplePackageView(one.label(), one.describe(), one.files()))
                .toList();
    }
}

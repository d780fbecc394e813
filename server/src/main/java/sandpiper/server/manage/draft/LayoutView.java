package sandpiper.server.manage.draft;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import sandpiper.model.layout.FormLayout;
import sandpiper.model.release.Field;
import sandpiper.model.release.ObjectType;

/**
 * How the console lays out the form and the list of an object.
 *
 * @param sections all fields that are shown, also those that no file places
 * @param side related records beside the form, or {@code null} for all there are
 * @param details by reference, the fields shown of the record it refers to
 * @param columns of lists; empty for the usual ones
 * @param sort of lists, or {@code null} for the newest first
 */
public record LayoutView(
        List<SectionView> sections,
        List<String> wide,
        @Nullable List<SideView> side,
        Map<String, List<String>> details,
        List<String> columns,
        @Nullable String sort) {
    /** Fields that stand together. */
    record SectionView(@Nullable String heading, List<String> fields) {}

    /** Records of an object that refer to the one in the form. */
    record SideView(String object, String field, List<String> columns) {}

    static LayoutView of(ObjectType object) {
        var form = object.layout().form();
        var side = form.side();
        return new LayoutView(
                sections(object, form),
                form.wide().stream().sorted().toList(),
                side == null
                        ? null
                        : side.stream()
                                .map(one -> new SideView(one.object(), one.field(), one.columns()))
                                .toList(),
                form.details(),
                object.layout().list().columns(),
                object.layout().list().sort());
    }

    private static List<SectionView> sections(ObjectType object, FormLayout form) {
        var sections = new ArrayList<SectionView>();
        var placed = new HashSet<>(form.leftOut());
        for (var section : form.sections()) {
            sections.add(
                    new SectionView(
                            section.heading(),
                            section.fields().stream()
                                    .filter(name -> !form.leftOut().contains(name))
                                    .toList()));
            placed.addAll(section.fields());
        }
        var rest =
                object.fields().stream()
                        .filter(field -> !object.isState(field))
                        .map(Field::name)
                        .filter(name -> !placed.contains(name))
                        .toList();
        if (!rest.isEmpty()) {
            sections.add(new SectionView(null, rest));
        }
        return sections;
    }

    /** Without the fields somebody may not see. */
    LayoutView without(Set<String> hidden) {
        return new LayoutView(
                sections.stream()
                        .map(one -> new SectionView(one.heading(), left(one.fields(), hidden)))
                        .toList(),
                left(wide, hidden),
                side,
                details.entrySet().stream()
                        .filter(entry -> !hidden.contains(entry.getKey()))
                        .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue)),
                left(columns, hidden),
                sort == null || hidden.contains(sort.replaceFirst("^-", "")) ? null : sort);
    }

    private static List<String> left(List<String> fields, Set<String> hidden) {
        return fields.stream().filter(name -> !hidden.contains(name)).toList();
    }
}

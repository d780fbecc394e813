package sandpiper.server.odata;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import org.apache.olingo.server.api.uri.UriInfo;
import org.apache.olingo.server.api.uri.queryoption.SystemQueryOption;
import org.jspecify.annotations.Nullable;
import sandpiper.model.release.FieldTree;
import sandpiper.server.odata.metadata.EntityShape;
import sandpiper.server.odata.request.Format;

/**
 * What entities of a service look like for what was selected and expanded, found out once for all
 * who ask alike. Safe for many threads; belongs to one release.
 */
public final class EntityForms {
    private static final int MOST = 500;

    private final Cache<Key, Form> forms = Caffeine.newBuilder().maximumSize(MOST).build();

    private record Key(
            String set,
            Format format,
            String usual,
            String besides,
            @Nullable String select,
            @Nullable String expand) {}

    /**
     * How an entity is read and written.
     *
     * @param tree the fields that are read for it
     * @param context what stands behind its set in a context URL
     */
    record Form(Projection wanted, FieldTree tree, EntityWriter writer, String context) {
        static Form of(String set, Format format, Projection wanted, FieldTree available) {
            var tree = wanted.tree(available);
            return new Form(
                    wanted,
                    tree,
                    new EntityWriter(set, format, wanted, tree),
                    wanted.contextList());
        }
    }

    /**
     * The form for the options of a request.
     *
     * @param usual what is answered when nothing is selected
     * @param besides what can be selected or expanded besides
     * @throws sandpiper.server.problem.ProblemException when something is asked for that is not
     *     shown, or in a way that is not offered
     */
    Form of(
            String set,
            EntityShape shape,
            Format format,
            FieldTree usual,
            FieldTree besides,
            UriInfo uri) {
        var select = uri.getSelectOption();
        var expand = uri.getExpandOption();
        var key = new Key(set, format, usual.shape(), besides.shape(), text(select), text(expand));
        return forms.get(
                key,
                _ -> {
                    var available = usual.and(besides);
                    return Form.of(
                            set,
                            format,
                            Projection.of(shape, available, usual, select, expand),
                            available);
                });
    }

    private static @Nullable String text(@Nullable SystemQueryOption option) {
        return option == null ? null : option.getText();
    }
}

/**
 * The form of each kind of definition file, said once: {@link sandpiper.model.shape.FileKind} holds
 * the shapes, {@link sandpiper.model.shape.ShapeChecker} compares a file with one, and {@link
 * sandpiper.model.shape.JsonSchemas} writes them down as JSON Schema 2020-12 for editors.
 */
@NullMarked
package sandpiper.model.shape;

import org.jspecify.annotations.NullMarked;

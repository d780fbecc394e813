/**
 * Documents that describe outside services (OpenAPI 3.0 and 3.1), as far as a connection needs
 * them: {@link sandpiper.model.openapi.ApiDocument} reads one, {@link
 * sandpiper.model.openapi.ApiExcerpt} cuts out what is used, {@link
 * sandpiper.model.openapi.ApiDifferences} tells two apart.
 */
@NullMarked
package sandpiper.model.openapi;

import org.jspecify.annotations.NullMarked;

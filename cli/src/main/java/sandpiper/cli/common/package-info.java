/**
 * What commands have in common: {@link sandpiper.cli.common.AnsweringCommand} is what each that
 * asks a service begins with.
 */
@NullMarked
package sandpiper.cli.common;

import org.jspecify.annotations.NullMarked;

/**
 * Packages as files that go from one instance to another: {@link
 * sandpiper.server.pack.PackedPackage} is one, {@link sandpiper.server.pack.ArchiveWriter} and
 * {@link sandpiper.server.pack.ArchiveReader} write and read it.
 */
@NullMarked
package sandpiper.server.pack;

import org.jspecify.annotations.NullMarked;

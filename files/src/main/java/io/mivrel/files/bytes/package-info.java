/**
 * Bytes of files: {@link io.mivrel.files.bytes.Utf8Input} turns any encoding into UTF-8, {@link
 * io.mivrel.files.bytes.GrowingFile} is written and read at the same time, {@link io.mivrel.files.bytes.Digests} works
 * out what evidence is kept of a file.
 */
@NullMarked
package io.mivrel.files.bytes;

import org.jspecify.annotations.NullMarked;

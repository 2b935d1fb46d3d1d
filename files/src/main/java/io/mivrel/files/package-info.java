/**
 * From files to rows and back: {@link io.mivrel.files.SourceFiles} opens a file by its content and layout, {@link
 * io.mivrel.files.FolderOutlet} lets delivered files appear whole or not at all. The readers stand in packages of their
 * own; settings and books on disk are read in {@code io.mivrel.files.settings}.
 */
@NullMarked
package io.mivrel.files;

import org.jspecify.annotations.NullMarked;

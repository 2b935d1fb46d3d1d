/**
 * Bytes to rows and back: {@link io.mivrel.files.SeparatedRows} reads separated text, {@link
 * io.mivrel.files.SeparatedWriter} writes it, {@link io.mivrel.files.FolderOutlet} lets finished files appear whole or
 * not at all. Settings and books on disk are read in {@link io.mivrel.files.settings}.
 */
package io.mivrel.files;

/**
 * The keys of settings files: each is said once, with what it may hold and what it means. By these tables files are read and
 * written, JSON Schemas are made, and the page {@code docs/keys.md}.
 */
@NullMarked
package io.mivrel.files.keys;

import org.jspecify.annotations.NullMarked;

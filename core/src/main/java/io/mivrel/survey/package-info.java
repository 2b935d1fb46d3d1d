/**
 * Looking at an unknown file: a {@link io.mivrel.survey.Surveyor} takes rows, profiles every column, says which fields
 * they are, proves the reading by arithmetic where it can, and asks where the file does not tell. The {@link
 * io.mivrel.survey.Survey} it answers is a proposal with its evidence; nothing in it is assumed silently.
 */
@NullMarked
package io.mivrel.survey;

import org.jspecify.annotations.NullMarked;

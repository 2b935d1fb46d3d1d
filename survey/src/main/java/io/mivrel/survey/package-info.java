/**
 * Looking at an unknown file: a {@link io.mivrel.survey.Surveyor} takes rows, profiles every column, says which fields
 * they are, proves the reading by arithmetic where it can, and asks where the file does not tell. The {@link
 * io.mivrel.survey.Survey} it answers is a proposal with its evidence; nothing in it is assumed silently.
 *
 * <p>On the way: a {@code Sample} finds titles and data among the first rows, a {@code ColumnSurvey} profiles a column,
 * {@code Relation} finds the running balance and what moves it, {@code BankColumns} says what the others are and {@code
 * BankSigns} whose plus the amounts' plus is, {@code Interpretation} puts that together, and {@code FinalReading} reads the whole
 * file. The words are those of {@link io.mivrel.text.TradeWords}, and those of titles are what each {@link io.mivrel.model.Kind} says of its fields.
 */
@NullMarked
package io.mivrel.survey;

import org.jspecify.annotations.NullMarked;

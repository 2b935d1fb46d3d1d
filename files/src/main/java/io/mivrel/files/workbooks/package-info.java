/**
 * Workbooks: XLSX, XLS and ODS, one sheet of each as rows. Numbers come as the 15 digits that a spreadsheet keeps, dates
 * as {@code uuuu-MM-dd}, formulas as the value that was saved with them.
 */
@NullMarked
package io.mivrel.files.workbooks;

import org.jspecify.annotations.NullMarked;

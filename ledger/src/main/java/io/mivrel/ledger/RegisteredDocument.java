package io.mivrel.ledger;

import io.mivrel.money.Money;
import java.time.LocalDate;
import java.util.List;

/**
 * One document that the register remembers.
 *
 * @param run the run that delivered it
 * @param kind its kind, such as {@code journals}
 * @param account the bank account of a bank transaction; empty for other kinds
 * @param reference its number, or its name by place
 * @param day its date
 * @param amount its amount: of a journal, the sum of its debits
 * @param state {@code intended} while its run is not published, {@code delivered}, {@code posted}, {@code refused} or {@code withdrawn}
 * @param file the file that its first row stood in
 * @param row that row, from 1
 * @param deliveries the deliveries that it went out by
 */
public record RegisteredDocument(
        String run,
        String kind,
        String account,
        String reference,
        LocalDate day,
        Money amount,
        String state,
        String file,
        long row,
        List<String> deliveries) {}

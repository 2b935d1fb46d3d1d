package io.mivrel.model;

/**
 * One line of an invoice, amounts as printed.
 *
 * @param net minor units without tax
 * @param tax minor units of tax
 * @param source the record with the other fields
 */
public record InvoiceLine(long net, long tax, SourceRecord source) {

    public long gross() {
        return Math.addExact(net, tax);
    }
}

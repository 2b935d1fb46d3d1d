package io.mivrel.kinds;

import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/** The four kinds of documents that name a party, with what each does to that party's control account. */
public enum InvoiceKind {
    INVOICE("invoice", true, 1),
    CREDIT_NOTE("credit note", true, -1),
    BILL("bill", false, -1),
    SUPPLIER_CREDIT("supplier credit", false, 1);

    private final String word;
    private final boolean sale;
    private final int controlSign;

    InvoiceKind(String word, boolean sale, int controlSign) {
        this.word = word;
        this.sale = sale;
        this.controlSign = controlSign;
    }

    /** The word of layouts and deliveries. */
    public String word() {
        return word;
    }

    /** True when the party is a customer. */
    public boolean isSale() {
        return sale;
    }

    /** True for what takes back an invoice or a bill. */
    public boolean isCredit() {
        return this == CREDIT_NOTE || this == SUPPLIER_CREDIT;
    }

    /** +1 when its gross debits the control account, -1 when it credits it. */
    public int controlSign() {
        return controlSign;
    }

    /** The kind with this word, or {@code null}. */
    public static @Nullable InvoiceKind of(@Nullable String word) {
        for (InvoiceKind kind : values()) {
            if (kind.word.equals(word)) {
                return kind;
            }
        }
        return null;
    }

    /** The control sign of the kind with this word; 1 for an unknown one, so that its amounts count as printed. */
    static int sign(@Nullable String word) {
        InvoiceKind kind = of(word);
        return kind == null ? 1 : kind.controlSign;
    }

    public static List<String> words() {
        return Arrays.stream(values()).map(InvoiceKind::word).toList();
    }
}

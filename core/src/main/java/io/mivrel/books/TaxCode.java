package io.mivrel.books;

import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;

/** A tax code: its rate in per cent and the account the tax is posted to ({@code null} for a rate of nil). */
public record TaxCode(
        String code, String name, BigDecimal rate, @Nullable String account) {}

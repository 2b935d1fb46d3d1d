package io.mivrel.start;

import io.mivrel.kinds.InvoiceLines;
import io.mivrel.model.Field;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.Survey;
import io.mivrel.text.AmountFormat;
import java.io.IOException;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * What a list of invoices tells about the books: its parties and its tax codes. A rate is taken from the figures only when
 * it explains the tax of every line with that code.
 */
final class InvoiceFacts {
    private static final int MOST = 100_000;
    private static final BigDecimal HUNDRED = BigDecimal.valueOf(100);

    /** Parties by their code: the words for the kinds of their documents. */
    private final Map<String, Set<String>> parties = new LinkedHashMap<>();

    private final Map<String, List<long[]>> taxed = new LinkedHashMap<>();
    private final Map<String, BigDecimal> rates = new LinkedHashMap<>();

    private InvoiceFacts() {}

    /** {@code null} for files of another kind. */
    static @Nullable InvoiceFacts of(RawFiles group) throws IOException {
        if (group.gives() != InvoiceLines.KIND) {
            return null;
        }
        if (group.facts == null) {
            group.facts = read(group.survey.survey(), group.survey.rows(MOST));
        }
        return group.facts;
    }

    private static InvoiceFacts read(Survey survey, List<List<String>> rows) {
        InvoiceFacts facts = new InvoiceFacts();
        for (List<String> row : rows.subList(Math.min(rows.size(), survey.titlesRow()), rows.size())) {
            String party = cell(survey, InvoiceLines.PARTY, row);
            if (!party.isEmpty()) {
                facts.parties
                        .computeIfAbsent(party, p -> new LinkedHashSet<>())
                        .add(cell(survey, InvoiceLines.DOCUMENT_KIND, row));
            }
            String code = cell(survey, InvoiceLines.TAX_CODE, row);
            if (!code.isEmpty()) {
                List<long[]> lines = facts.taxed.computeIfAbsent(code, c -> new ArrayList<>());
                long net = survey.numbers().parse(cell(survey, InvoiceLines.NET, row));
                long tax = survey.numbers().parse(cell(survey, InvoiceLines.TAX, row));
                if (AmountFormat.isAmount(net) && AmountFormat.isAmount(tax)) {
                    lines.add(new long[] {net, tax});
                }
            }
        }
        facts.taxed.forEach((code, lines) -> {
            BigDecimal rate = rate(lines);
            if (rate != null) {
                facts.rates.put(code, rate);
            }
        });
        return facts;
    }

    private static String cell(Survey survey, Field field, List<String> row) {
        ColumnSurvey column = survey.fields().get(field);
        return column == null || column.place() > row.size() ? "" : row.get(column.place() - 1);
    }

    // The rate of the largest line, rounded to a tenth, if all others agree with it to a minor unit.
    private static @Nullable BigDecimal rate(List<long[]> lines) {
        long[] largest = lines.stream()
                .filter(l -> l[0] != 0)
                .max((a, b) -> Long.compare(Math.abs(a[0]), Math.abs(b[0])))
                .orElse(null);
        if (largest == null) {
            return null;
        }
        BigDecimal rate = BigDecimal.valueOf(largest[1])
                .multiply(HUNDRED)
                .divide(BigDecimal.valueOf(largest[0]), 1, RoundingMode.HALF_UP);
        for (long[] line : lines) {
            BigDecimal tax = BigDecimal.valueOf(line[0]).multiply(rate).divide(HUNDRED);
            if (tax.subtract(BigDecimal.valueOf(line[1])).abs().compareTo(BigDecimal.ONE) > 0) {
                return null;
            }
        }
        return rate.signum() < 0 ? null : rate.stripTrailingZeros();
    }

    Set<String> taxCodes() {
        return taxed.keySet();
    }

    /** Tax codes whose rate the figures do not tell. */
    Set<String> unknownRates() {
        Set<String> unknown = new LinkedHashSet<>(taxed.keySet());
        unknown.removeAll(rates.keySet());
        return unknown;
    }

    /** Takes rates that a person says: {@code STD: 20, RED: 5}. */
    void rates(String said) throws WrongAnswerException {
        Map<String, BigDecimal> all = new LinkedHashMap<>();
        for (String pair : said.split(",")) {
            String[] parts = pair.split(":", 2);
            if (parts.length < 2 || !parts[1].strip().matches("[0-9]{1,3}(\\.[0-9]{1,6})?")) {
                throw new WrongAnswerException("'" + pair.strip() + "' is not a tax code, a colon and its per cent");
            }
            all.put(parts[0].strip(), new BigDecimal(parts[1].strip()));
        }
        for (String code : unknownRates()) {
            if (!all.containsKey(code)) {
                throw new WrongAnswerException("the rate of '" + code + "' is missing");
            }
        }
        rates.putAll(all);
    }

    /** tax-codes.csv; {@code account} may be {@code null} where all rates are nil. */
    String taxCodesFile(@Nullable String account) {
        StringBuilder csv = new StringBuilder("code,name,rate,account\n");
        for (String code : taxed.keySet()) {
            BigDecimal rate = rates.getOrDefault(code, BigDecimal.ZERO);
            csv.append(CompanyFiles.csv(
                            code, code, rate.toPlainString(), rate.signum() == 0 || account == null ? "" : account))
                    .append('\n');
        }
        return csv.toString();
    }

    /** parties.csv: who has a bill or a supplier credit is a supplier, whoever else a customer. */
    String partiesFile(Map<String, String> kinds) {
        StringBuilder csv = new StringBuilder("code,name,kind\n");
        parties.forEach((party, words) -> {
            boolean supplier = words.stream()
                    .map(w -> kinds.getOrDefault(w, w))
                    .anyMatch(k -> k.equals("bill") || k.equals("supplier credit"));
            csv.append(CompanyFiles.csv(party, party, supplier ? "supplier" : "customer"))
                    .append('\n');
        });
        return csv.toString();
    }

    int partyCount() {
        return parties.size();
    }
}

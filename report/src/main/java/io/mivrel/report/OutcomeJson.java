package io.mivrel.report;

import io.mivrel.corrections.Correction;
import io.mivrel.delivery.DeliveredFile;
import io.mivrel.intake.BalanceProof;
import io.mivrel.intake.IntakeTally;
import io.mivrel.intake.StatementSpan;
import io.mivrel.model.Finding;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.CurrencyTotals;
import io.mivrel.money.Money;
import io.mivrel.money.Totals;
import io.mivrel.rows.LeftOut;
import io.mivrel.run.DocumentCount;
import io.mivrel.run.RunReport;
import io.mivrel.run.UncodedGroups;
import java.io.StringWriter;
import java.math.BigDecimal;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.core.util.DefaultPrettyPrinter;

/**
 * A run told to machines, with the content of the summary. Format {@code mivrel-outcome} version 1. Amounts are strings
 * with all decimals, so that no reader makes binary fractions of them; dates are ISO 8601.
 */
public final class OutcomeJson {
    private final RunReport report;
    private final JsonGenerator json;

    private OutcomeJson(RunReport report, JsonGenerator json) {
        this.report = report;
        this.json = json;
    }

    /**
     * The whole document.
     *
     * @param evidence the evidence folder; {@code null} when there is none
     * @param workbook the held rows to correct; {@code null} when there is none
     * @param uncoded lines that nothing codes, in groups
     */
    public static String of(
            RunReport report,
            @Nullable String evidence,
            @Nullable String workbook,
            List<UncodedGroups.Group> uncoded,
            int status) {
        return text(json -> new OutcomeJson(report, json).write(evidence, workbook, uncoded, status));
    }

    /**
     * A mistake in the settings.
     *
     * @param line from 1; 0 for the file as a whole
     * @param column from 1; 0 when it is not known
     */
    public record Problem(String file, int line, int column, String message, String suggestion) {}

    /** What is said instead when the settings are wrong: nothing was read then. */
    public static String ofProblems(List<Problem> problems) {
        return text(json -> {
            json.writeStartObject();
            json.writeStringProperty("format", "mivrel-outcome");
            json.writeNumberProperty("version", 1);
            json.writeNumberProperty("status", 2);
            json.writeArrayPropertyStart("settingsProblems");
            for (Problem problem : problems) {
                json.writeStartObject();
                json.writeStringProperty("file", problem.file);
                json.writeNumberProperty("line", problem.line);
                json.writeNumberProperty("column", problem.column);
                json.writeStringProperty("message", problem.message);
                json.writeStringProperty("suggestion", problem.suggestion);
                json.writeEndObject();
            }
            json.writeEndArray();
            json.writeEndObject();
        });
    }

    static String text(Consumer<JsonGenerator> content) {
        StringWriter text = new StringWriter();
        ObjectWriteContext pretty = new ObjectWriteContext.Base() {
            @Override
            public tools.jackson.core.PrettyPrinter getPrettyPrinter() {
                return new DefaultPrettyPrinter();
            }

            @Override
            public boolean hasPrettyPrinter() {
                return true;
            }
        };
        try (JsonGenerator json = new JsonFactory().createGenerator(pretty, text)) {
            content.accept(json);
        }
        return text.append('\n').toString();
    }

    private void write(
            @Nullable String evidence, @Nullable String workbook, List<UncodedGroups.Group> uncoded, int status) {
        json.writeStartObject();
        json.writeStringProperty("format", "mivrel-outcome");
        json.writeNumberProperty("version", 1);
        json.writeStringProperty("run", report.name());
        json.writeStringProperty("company", report.company());
        json.writeStringProperty("currency", report.currency().getCurrencyCode());
        json.writeStringProperty("records", report.kind().name());
        json.writeBooleanProperty("checkedOnly", report.checkedOnly());
        json.writeNumberProperty("status", status);
        json.writeNumberProperty("rowsRead", report.rowsRead());
        leftOut("leftOut", report.leftOut());
        count("clear", report.clear());
        count("held", report.held());
        totals("amountsRead", report.readTotals().main());
        others("amountsReadInOtherCurrencies", report.readTotals());
        files();
        deliveries();
        corrections();
        uncoded(uncoded);
        findings();
        if (workbook != null) {
            json.writeStringProperty("workbook", workbook);
        }
        if (evidence != null) {
            json.writeStringProperty("evidence", evidence);
        }
        json.writeEndObject();
    }

    private void corrections() {
        json.writeArrayPropertyStart("corrections");
        for (Correction one : report.corrections()) {
            json.writeStartObject();
            json.writeStringProperty("file", one.file());
            json.writeNumberProperty("row", one.row());
            json.writeStringProperty("done", one.done());
            json.writeStringProperty("who", one.who());
            json.writeStringProperty("when", one.when());
            json.writeStringProperty("why", one.why());
            json.writeStringProperty("before", one.before());
            json.writeStringProperty("after", one.after());
            json.writeStringProperty("writtenIn", one.place());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void uncoded(List<UncodedGroups.Group> groups) {
        json.writeArrayPropertyStart("uncoded");
        for (UncodedGroups.Group group : groups) {
            json.writeStartObject();
            json.writeStringProperty("words", group.words());
            json.writeStringProperty("direction", group.direction());
            json.writeNumberProperty("lines", group.lines());
            json.writeStringProperty("amount", amount(group.sum()));
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void leftOut(String name, Map<LeftOut, Long> causes) {
        json.writeObjectPropertyStart(name);
        causes.forEach((cause, count) -> json.writeNumberProperty(cause.words(), count));
        json.writeEndObject();
    }

    private void count(String name, DocumentCount count) {
        json.writeObjectPropertyStart(name);
        json.writeNumberProperty("documents", count.documents());
        json.writeNumberProperty("rows", count.rows());
        json.writeStringProperty("plus", amount(count.totals().debit()));
        json.writeStringProperty("minus", amount(count.totals().credit()));
        others("inOtherCurrencies", count.allTotals());
        if (count.firstDate() != null && count.lastDate() != null) {
            json.writeStringProperty("firstDate", count.firstDate().toString());
            json.writeStringProperty("lastDate", count.lastDate().toString());
        }
        json.writeEndObject();
    }

    private void others(String name, CurrencyTotals totals) {
        List<Totals> others = totals.all().subList(1, totals.all().size());
        if (!others.isEmpty()) {
            json.writeObjectPropertyStart(name);
            others.forEach(other -> totals(other.currency().getCurrencyCode(), other));
            json.writeEndObject();
        }
    }

    private void totals(String name, Totals totals) {
        json.writeObjectPropertyStart(name);
        json.writeNumberProperty("count", totals.count());
        json.writeStringProperty("plus", amount(totals.debit()));
        json.writeStringProperty("minus", amount(totals.credit()));
        json.writeEndObject();
    }

    private void files() {
        json.writeArrayPropertyStart("files");
        for (IntakeTally file : report.files()) {
            json.writeStartObject();
            json.writeStringProperty("file", file.file());
            json.writeNumberProperty("rows", file.rows());
            json.writeNumberProperty("rowsFannedOut", file.again());
            json.writeNumberProperty("records", file.records());
            json.writeNumberProperty("unreadable", file.unreadable());
            leftOut("leftOut", file.leftOut());
            currency(file.totals());
            totals("amounts", file.totals());
            file.firstDate().ifPresent(d -> json.writeStringProperty("firstDate", d.toString()));
            file.lastDate().ifPresent(d -> json.writeStringProperty("lastDate", d.toString()));
            file.proof().ifPresent(this::proof);
            if (file.unproved().rows() > 0) {
                json.writeObjectPropertyStart("notProved");
                json.writeNumberProperty("rows", file.unproved().rows());
                json.writeStringProperty("in", amount(file.unproved().in()));
                json.writeStringProperty("out", amount(file.unproved().out()));
                json.writeNumberProperty("firstRow", file.unproved().firstRow());
                json.writeEndObject();
            }
            if (!file.values().isEmpty()) {
                json.writeObjectPropertyStart("values");
                file.values().forEach(this::values);
                json.writeEndObject();
            }
            statements(file.spans());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void values(String field, Map<String, Long> counts) {
        json.writeObjectPropertyStart(field);
        new TreeMap<>(counts).forEach(json::writeNumberProperty);
        json.writeEndObject();
    }

    private void statements(List<StatementSpan> spans) {
        json.writeArrayPropertyStart("statements");
        for (StatementSpan span : spans) {
            json.writeStartObject();
            json.writeStringProperty("name", span.name());
            if (span.from() != null && span.to() != null) {
                json.writeStringProperty("from", span.from().toString());
                json.writeStringProperty("to", span.to().toString());
            }
            if (span.opening() != SourceRecord.ABSENT) {
                json.writeStringProperty("opening", amount(span.opening()));
            }
            json.writeStringProperty("movement", amount(span.movement()));
            if (span.closing() != SourceRecord.ABSENT) {
                json.writeStringProperty("closing", amount(span.closing()));
            }
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void proof(BalanceProof proof) {
        json.writeObjectPropertyStart("balanceProof");
        json.writeBooleanProperty("holds", proof.holds());
        json.writeStringProperty("opening", amount(proof.opening()));
        json.writeStringProperty("movement", amount(proof.movement()));
        json.writeStringProperty("closing", amount(proof.closing()));
        json.writeBooleanProperty("stated", proof.stated());
        json.writeNumberProperty("steps", proof.steps());
        json.writeNumberProperty("broken", proof.broken());
        json.writeEndObject();
    }

    private void deliveries() {
        json.writeArrayPropertyStart("deliveries");
        for (DeliveredFile delivered : report.deliveries()) {
            json.writeStartObject();
            json.writeStringProperty("delivery", delivered.delivery());
            if (!delivered.sheet().isEmpty()) {
                json.writeStringProperty("sheet", delivered.sheet());
            }
            json.writeArrayPropertyStart("files");
            delivered.files().forEach(file -> json.writeString(file.name()));
            json.writeEndArray();
            json.writeNumberProperty("documents", delivered.documents());
            json.writeNumberProperty("rows", delivered.rows());
            currency(delivered.totals());
            totals("readBack", delivered.totals());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void findings() {
        json.writeObjectPropertyStart("findingCounts");
        report.findings().counts().forEach((rule, count) -> json.writeNumberProperty(rule.id(), count));
        json.writeEndObject();
        json.writeArrayPropertyStart("findings");
        List<Finding> worstFirst = report.findings().worstFirst();
        for (Finding finding : worstFirst) {
            json.writeStartObject();
            json.writeStringProperty("rule", finding.rule().id());
            json.writeStringProperty("severity", finding.severity().word());
            json.writeStringProperty("file", finding.origin().file());
            json.writeNumberProperty("row", finding.origin().row());
            json.writeStringProperty("field", finding.field());
            json.writeStringProperty("value", finding.value());
            json.writeStringProperty("reason", finding.reason());
            json.writeStringProperty("suggestion", finding.suggestion());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeNumberProperty("findingsNotListed", report.findings().dropped());
    }

    private void currency(Totals totals) {
        if (!totals.currency().equals(report.currency())) {
            json.writeStringProperty("currency", totals.currency().getCurrencyCode());
        }
    }

    private String amount(long minor) {
        return BigDecimal.valueOf(minor, Money.decimals(report.currency())).toPlainString();
    }
}

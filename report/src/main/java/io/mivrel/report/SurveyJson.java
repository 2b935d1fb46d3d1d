package io.mivrel.report;

import io.mivrel.intake.StatementSpan;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.survey.ColumnSurvey;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.Survey;
import java.math.BigDecimal;
import java.util.Locale;
import tools.jackson.core.JsonGenerator;

/**
 * A survey told to machines. Format {@code mivrel-survey} version 1. Amounts are strings with all decimals, dates are ISO
 * 8601; the proposed layout is its YAML text, with a question in place of each answer that the file does not give.
 */
public final class SurveyJson {
    private final Survey survey;
    private final JsonGenerator json;

    private SurveyJson(Survey survey, JsonGenerator json) {
        this.survey = survey;
        this.json = json;
    }

    /** The whole document; {@code layout} is the proposed layout as text. */
    public static String of(Survey survey, String layout) {
        return OutcomeJson.text(json -> new SurveyJson(survey, json).write(layout));
    }

    private void write(String layout) {
        FileProfile facts = survey.facts();
        json.writeStartObject();
        json.writeStringProperty("format", "mivrel-survey");
        json.writeNumberProperty("version", 1);
        json.writeStringProperty("file", survey.file());
        json.writeStringProperty("kind", facts.kind().word());
        if (!facts.encodingWhy().isEmpty()) {
            json.writeStringProperty("encoding", facts.encoding());
        }
        if (facts.currencyStated()) {
            json.writeStringProperty("currency", facts.currency().getCurrencyCode());
        }
        json.writeNumberProperty("rows", survey.rows());
        json.writeNumberProperty("rowsOfData", survey.dataRows());
        json.writeNumberProperty("titlesRow", survey.titlesRow());
        if (survey.gives() != null) {
            json.writeStringProperty("gives", survey.gives().name());
        }
        if (survey.pattern() != null) {
            json.writeStringProperty("dates", survey.pattern().pattern());
        }
        json.writeStringProperty("order", survey.order().word());
        columns();
        statements();
        json.writeArrayPropertyStart("proofs");
        for (Survey.Proof proof : survey.proofs()) {
            json.writeStartObject();
            json.writeBooleanProperty("holds", proof.holds());
            json.writeStringProperty("words", proof.words());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeArrayPropertyStart("questions");
        for (Survey.Question question : survey.open()) {
            json.writeStartObject();
            json.writeStringProperty("about", question.about());
            json.writeStringProperty("words", question.words());
            json.writeEndObject();
        }
        json.writeEndArray();
        json.writeStringProperty("layout", layout);
        json.writeEndObject();
    }

    private void columns() {
        json.writeArrayPropertyStart("columns");
        for (ColumnSurvey column : survey.columns()) {
            json.writeStartObject();
            json.writeNumberProperty("place", column.place());
            json.writeStringProperty("title", column.title());
            survey.fields().forEach((field, from) -> {
                if (from == column) {
                    json.writeStringProperty("field", field.name());
                }
            });
            if (column.filled() > 0) {
                json.writeStringProperty("holds", column.type().name().toLowerCase(Locale.ROOT));
            }
            json.writeNumberProperty("filled", column.filled());
            json.writeNumberProperty("blank", column.blank());
            json.writeArrayPropertyStart("samples");
            column.samples().forEach(json::writeString);
            json.writeEndArray();
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void statements() {
        if (survey.statements().isEmpty()) {
            return;
        }
        json.writeArrayPropertyStart("statements");
        for (StatementSpan span : survey.statements()) {
            json.writeStartObject();
            json.writeStringProperty("name", span.name());
            if (span.from() != null && span.to() != null) {
                json.writeStringProperty("from", span.from().toString());
                json.writeStringProperty("to", span.to().toString());
            }
            amount("opening", span.opening());
            amount("movement", span.movement());
            amount("closing", span.closing());
            json.writeEndObject();
        }
        json.writeEndArray();
    }

    private void amount(String name, long minor) {
        if (minor != SourceRecord.ABSENT) {
            int decimals = Money.decimals(survey.facts().currency());
            json.writeStringProperty(name, BigDecimal.valueOf(minor, decimals).toPlainString());
        }
    }
}

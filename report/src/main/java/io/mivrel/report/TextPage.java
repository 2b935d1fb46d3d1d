package io.mivrel.report;

import java.util.Locale;

/** A page of text: a title, lines with their names in a column, tables. */
final class TextPage {
    private final SummaryText.Style style;
    private final StringBuilder out = new StringBuilder();

    TextPage(SummaryText.Style style) {
        this.style = style;
    }

    TextPage title(String text) {
        out.append('\n').append(mark("1", text)).append("\n\n");
        return this;
    }

    TextPage line(String name, String text) {
        out.append("  ").append(mark("36", String.format(Locale.ROOT, "%-10s", name)));
        out.append("  ").append(text).append('\n');
        return this;
    }

    TextPage say(String text) {
        out.append("  ").append(text).append('\n');
        return this;
    }

    TextPage alarm(String text) {
        out.append("  ").append(mark("1;33", text)).append('\n');
        return this;
    }

    TextPage strong(String text) {
        out.append("  ").append(mark("1", text)).append('\n');
        return this;
    }

    TextPage blank() {
        out.append('\n');
        return this;
    }

    TextPage add(String text) {
        out.append(text);
        return this;
    }

    private String mark(String code, String text) {
        return style == SummaryText.Style.COLOUR ? "\u001b[" + code + "m" + text + "\u001b[0m" : text;
    }

    @Override
    public String toString() {
        return out.toString();
    }
}

package io.mivrel.files.workbooks;

import io.mivrel.model.Rule;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.zip.ZipFile;
import javax.xml.stream.XMLStreamConstants;
import org.jspecify.annotations.Nullable;

/** OpenDocument spreadsheets (OASIS OpenDocument 1.2 part 1, section 9), streamed from {@code content.xml}. */
final class OdsWorkbook implements Workbooks.Workbook {
    /** Types of cells that are numbers or days. */
    private static final Set<String> PLAIN = Set.of("float", "currency", "percentage", "date");

    private static final long LAST_ROW = 1L << 20;

    private final Path file;

    OdsWorkbook(Path file) {
        this.file = file;
    }

    @Override
    public List<String> sheets() throws IOException {
        List<String> names = new ArrayList<>();
        try (Content content = new Content(file)) {
            while (content.nextTable()) {
                names.add(content.xml.attribute("name"));
            }
        }
        return names;
    }

    @Override
    public RowSource rows(String wanted) throws IOException {
        int place = Workbooks.place(sheets(), wanted);
        Content content = new Content(file);
        for (int i = 0; i <= place; i++) {
            content.nextTable();
        }
        return content;
    }

    private static final class Content implements RowSource {
        private final ZipFile zip;
        private final XmlPart xml;
        private final Row row = new Row();
        private final Cells cells = new Cells();
        private long number;
        private long repeats;
        private boolean ended;
        private int depth;

        Content(Path file) throws IOException {
            zip = new ZipFile(file.toFile());
            try {
                xml = XmlPart.open(zip, "content.xml");
            } catch (IOException e) {
                zip.close();
                throw e;
            }
        }

        boolean nextTable() throws IOException {
            number = 0;
            ended = false;
            while (true) {
                int event = xml.step();
                if (event == XMLStreamConstants.START_ELEMENT && xml.is("table")) {
                    return true;
                }
                if (event == XMLStreamConstants.END_DOCUMENT) {
                    return false;
                }
            }
        }

        @Override
        public @Nullable Row next() throws IOException {
            while (!ended) {
                if (repeats > 0) {
                    repeats--;
                    number++;
                    cells.fill(row, number);
                    return row;
                }
                readRow();
            }
            return null;
        }

        private void readRow() throws IOException {
            while (true) {
                int event = xml.step();
                if (event == XMLStreamConstants.START_ELEMENT) {
                    if (xml.is("table-row")) {
                        long times = times("number-rows-repeated", LAST_ROW);
                        readCells();
                        if (cells.isEmpty()) {
                            // Blank rows are passed over, as in the other workbooks.
                            number += times;
                        } else {
                            repeats = times;
                        }
                        return;
                    }
                } else if (event == XMLStreamConstants.END_ELEMENT && xml.is("table")
                        || event == XMLStreamConstants.END_DOCUMENT) {
                    ended = true;
                    return;
                }
            }
        }

        private long times(String attribute, long most) throws IOException {
            String text = xml.attribute(attribute);
            if (text.isEmpty()) {
                return 1;
            }
            if (!text.matches("[0-9]{1,9}") || Long.parseLong(text) > most) {
                throw new UnreadableFileException(
                        Rule.FILE_BEYOND_CAP, number, attribute + "=\"" + text + "\" is more than " + most, "");
            }
            return Long.parseLong(text);
        }

        private void readCells() throws IOException {
            cells.clear();
            long place = 0;
            while (true) {
                int event = xml.step();
                if (event == XMLStreamConstants.END_ELEMENT && xml.is("table-row")) {
                    return;
                }
                if (event != XMLStreamConstants.START_ELEMENT
                        || !xml.is("table-cell") && !xml.is("covered-table-cell")) {
                    continue;
                }
                long times = times("number-columns-repeated", Workbooks.MOST_CELLS);
                boolean number = PLAIN.contains(xml.attribute("value-type"));
                String text = cell();
                for (long i = 0; i < times && !text.isEmpty(); i++) {
                    int at = (int) Math.min(place + i, Workbooks.MOST_CELLS);
                    if (number) {
                        cells.putPlain(at, text);
                    } else {
                        cells.put(at, text);
                    }
                }
                place += times;
            }
        }

        private String cell() throws IOException {
            String type = xml.attribute("value-type");
            String value = xml.attribute("value");
            String date = xml.attribute("date-value");
            String truth = xml.attribute("boolean-value");
            String formula = xml.attribute("formula");
            String shown = shown();
            return switch (type) {
                case "float", "currency", "percentage" -> CellText.number(value);
                case "date" -> date.length() > 10 ? date.substring(0, 10) : date;
                case "boolean" -> truth.toUpperCase(java.util.Locale.ROOT);
                case "" -> {
                    if (!formula.isEmpty() && shown.isEmpty()) {
                        cells.faulty(RowFault.FORMULA_UNVALUED);
                        yield formula;
                    }
                    yield shown;
                }
                default -> shown;
            };
        }

        // The paragraphs of a cell, one below the other; notes are not part of it.
        private String shown() throws IOException {
            StringBuilder text = new StringBuilder();
            depth = 1;
            int note = 0;
            while (depth > 0) {
                int event = xml.step();
                if (event == XMLStreamConstants.START_ELEMENT) {
                    depth++;
                    if (note > 0 || xml.is("annotation")) {
                        note++;
                    } else if (xml.is("p") && !text.isEmpty()) {
                        text.append('\n');
                    } else if (xml.is("s")) {
                        text.append(" ".repeat((int) times("c", 10_000)));
                    } else if (xml.is("tab") || xml.is("line-break")) {
                        text.append(xml.is("tab") ? '\t' : '\n');
                    }
                } else if (event == XMLStreamConstants.END_ELEMENT) {
                    depth--;
                    note -= note > 0 ? 1 : 0;
                } else if (note == 0
                        && depth > 1
                        && (event == XMLStreamConstants.CHARACTERS || event == XMLStreamConstants.CDATA)) {
                    text.append(xml.characters());
                }
                if (text.length() > 1 << 20) {
                    throw new UnreadableFileException(
                            Rule.FILE_BEYOND_CAP, number, "a cell holds more than 1,048,576 characters", "");
                }
            }
            return text.toString();
        }

        @Override
        public void close() throws IOException {
            xml.close();
            zip.close();
        }
    }
}

package io.mivrel.files.workbooks;

import io.mivrel.model.Rule;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import java.io.IOException;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.zip.ZipFile;
import org.apache.poi.ss.usermodel.BuiltinFormats;
import org.jspecify.annotations.Nullable;

/**
 * Office Open XML workbooks (ECMA-376 part 1, SpreadsheetML), streamed row by row. Read by hand, since readers made for it
 * take memory by the places that cells claim to stand at, which a hostile file can choose.
 */
final class XlsxWorkbook implements Workbooks.Workbook {
    private static final String FOLDER = "xl/";
    private static final int MOST_TEXTS = 10_000_000;

    private record Sheet(String name, String relation, boolean hidden) {}

    private final Path file;

    XlsxWorkbook(Path file) {
        this.file = file;
    }

    @Override
    public List<String> sheets() throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            return new Parts(zip).sheets.stream().map(Sheet::name).toList();
        }
    }

    @Override
    public Set<String> hidden() throws IOException {
        try (ZipFile zip = new ZipFile(file.toFile())) {
            return new Parts(zip)
                    .sheets.stream().filter(Sheet::hidden).map(Sheet::name).collect(Collectors.toSet());
        }
    }

    @Override
    public RowSource rows(String wanted) throws IOException {
        ZipFile zip = new ZipFile(file.toFile());
        try {
            Parts parts = new Parts(zip);
            int place = Workbooks.place(parts.sheets.stream().map(Sheet::name).toList(), wanted);
            parts.readTexts();
            parts.readStyles();
            return new Rows(zip, parts, parts.sheet(place));
        } catch (IOException | RuntimeException e) {
            zip.close();
            throw e;
        }
    }

    /** What a sheet needs of the other parts. */
    private static final class Parts {
        private final ZipFile zip;
        private final List<Sheet> sheets = new ArrayList<>();
        private final Map<String, String> targets = new HashMap<>();
        private final List<String> texts = new ArrayList<>();
        private final List<Boolean> dateStyles = new ArrayList<>();
        private boolean from1904;

        Parts(ZipFile zip) throws IOException {
            this.zip = zip;
            try (XmlPart part = XmlPart.open(zip, FOLDER + "_rels/workbook.xml.rels")) {
                while (part.nextStart()) {
                    if (part.is("Relationship")) {
                        targets.put(part.attribute("Id"), part.attribute("Target"));
                    }
                }
            }
            try (XmlPart part = XmlPart.open(zip, FOLDER + "workbook.xml")) {
                while (part.nextStart()) {
                    if (part.is("sheet")) {
                        boolean hidden = part.attribute("state").matches("hidden|veryHidden");
                        sheets.add(new Sheet(part.attribute("name"), part.attribute("id"), hidden));
                    } else if (part.is("workbookPr")) {
                        from1904 = part.attribute("date1904").matches("1|true");
                    }
                }
            }
        }

        String sheet(int place) throws IOException {
            return path(targets.getOrDefault(sheets.get(place).relation(), ""));
        }

        // Targets are relative to the folder of the workbook, or begin at the root.
        private String path(String target) throws IOException {
            String path = target.startsWith("/") ? target.substring(1) : FOLDER + target;
            if (zip.getEntry(path) == null) {
                throw new UnreadableFileException(
                        Rule.FILE_DAMAGED, 0, "the workbook lacks its part '" + path + "'", "save it again");
            }
            return path;
        }

        private @Nullable String find(String name) {
            return targets.values().stream()
                    .filter(t -> t.endsWith(name))
                    .map(t -> t.startsWith("/") ? t.substring(1) : FOLDER + t)
                    .filter(p -> zip.getEntry(p) != null)
                    .findFirst()
                    .orElse(null);
        }

        void readTexts() throws IOException {
            String path = find("sharedStrings.xml");
            if (path == null) {
                return;
            }
            try (XmlPart part = XmlPart.open(zip, path)) {
                while (part.nextStart()) {
                    if (part.is("si")) {
                        if (texts.size() == MOST_TEXTS) {
                            throw new UnreadableFileException(
                                    Rule.FILE_BEYOND_CAP, 0, "the workbook has more than " + MOST_TEXTS + " texts", "");
                        }
                        texts.add(part.shownText("si"));
                    }
                }
            }
        }

        void readStyles() throws IOException {
            String path = find("styles.xml");
            if (path == null) {
                return;
            }
            Map<String, Boolean> dates = new HashMap<>();
            boolean used = false;
            try (XmlPart part = XmlPart.open(zip, path)) {
                while (part.nextStart()) {
                    if (part.is("numFmt")) {
                        dates.put(part.attribute("numFmtId"), CellText.isDate(part.attribute("formatCode")));
                    } else if (part.is("cellXfs")) {
                        used = true;
                    } else if (part.is("cellStyles") || part.is("dxfs")) {
                        used = false;
                    } else if (used && part.is("xf")) {
                        String id = part.attribute("numFmtId");
                        dateStyles.add(dates.computeIfAbsent(id, Parts::isBuiltinDate));
                    }
                }
            }
        }

        private static boolean isBuiltinDate(String id) {
            return id.matches("[0-9]{1,3}") && CellText.isDate(BuiltinFormats.getBuiltinFormat(Integer.parseInt(id)));
        }
    }

    private static final class Rows implements RowSource {
        private final ZipFile zip;
        private final Parts parts;
        private final XmlPart sheet;
        private final Row row = new Row();
        private final Cells cells = new Cells();
        private long number;

        Rows(ZipFile zip, Parts parts, String path) throws IOException {
            this.zip = zip;
            this.parts = parts;
            this.sheet = XmlPart.open(zip, path);
        }

        @Override
        public @Nullable Row next() throws IOException {
            while (sheet.nextStart()) {
                if (sheet.is("row")) {
                    long before = number;
                    number = rowNumber(sheet.attribute("r"));
                    if (number <= before) {
                        throw damaged("row " + number + " stands below row " + before);
                    }
                    cells.clear();
                    readCells();
                    if (!cells.isEmpty()) {
                        cells.fill(row, number);
                        return row;
                    }
                }
            }
            return null;
        }

        private long rowNumber(String text) throws IOException {
            if (text.isEmpty()) {
                return number + 1;
            }
            int row = CellText.whole(text, 7);
            if (row < 1) {
                throw damaged("a row has the number '" + text + "'");
            }
            return row;
        }

        private UnreadableFileException damaged(String what) {
            return new UnreadableFileException(Rule.FILE_DAMAGED, number, what, Rule.FILE_DAMAGED.remedy());
        }

        private void readCells() throws IOException {
            int place = -1;
            while (sheet.nextStartWithin("row")) {
                if (!sheet.is("c")) {
                    continue;
                }
                String reference = sheet.attribute("r");
                place = reference.isEmpty() ? place + 1 : place(reference);
                String type = sheet.attribute("t");
                if (type.isEmpty() || type.equals("n") || type.equals("d")) {
                    cells.putPlain(place, cell());
                } else {
                    cells.put(place, cell());
                }
            }
        }

        // The letters of a reference such as XFD12, which is the last column.
        private int place(String reference) throws IOException {
            int place = 0;
            int letters = 0;
            while (letters < reference.length()
                    && reference.charAt(letters) >= 'A'
                    && reference.charAt(letters) <= 'Z') {
                place = place * 26 + reference.charAt(letters) - 'A' + 1;
                if (++letters > 3) {
                    break;
                }
            }
            if (letters == 0 || letters > 3 || place > Workbooks.MOST_CELLS) {
                throw damaged("a cell stands at '" + (reference.length() > 20 ? reference.substring(0, 20) : reference)
                        + "', beyond the last column");
            }
            return place - 1;
        }

        private String cell() throws IOException {
            String type = sheet.attribute("t");
            String style = sheet.attribute("s");
            String value = null;
            String formula = null;
            String inline = "";
            while (sheet.nextStartWithin("c")) {
                if (sheet.is("v")) {
                    value = sheet.text();
                } else if (sheet.is("f")) {
                    formula = sheet.text();
                } else if (sheet.is("is")) {
                    inline = sheet.shownText("is");
                }
            }
            if (type.equals("inlineStr")) {
                return inline;
            }
            if (value == null) {
                if (formula != null) {
                    cells.faulty(RowFault.FORMULA_UNVALUED);
                    return "=" + formula;
                }
                return "";
            }
            return switch (type) {
                case "s" -> shared(value.strip());
                case "str", "e" -> value;
                case "b" -> value.strip().equals("1") ? "TRUE" : value.strip().equals("0") ? "FALSE" : value;
                case "d" -> value.length() > 10 ? value.substring(0, 10) : value;
                default -> isDate(style) ? CellText.date(value, parts.from1904) : CellText.number(value);
            };
        }

        private String shared(String index) throws IOException {
            int place = CellText.whole(index, 8);
            if (place < 0 || place >= parts.texts.size()) {
                throw damaged("a cell names the text '" + index + "', which the workbook lacks");
            }
            return parts.texts.get(place);
        }

        private boolean isDate(String style) {
            int place = CellText.whole(style, 6);
            return place >= 0 && place < parts.dateStyles.size() && parts.dateStyles.get(place);
        }

        @Override
        public void close() throws IOException {
            sheet.close();
            zip.close();
        }
    }
}

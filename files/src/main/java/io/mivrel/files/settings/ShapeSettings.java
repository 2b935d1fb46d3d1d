package io.mivrel.files.settings;

import com.google.re2j.Pattern;
import com.google.re2j.PatternSyntaxException;
import io.mivrel.files.keys.FormatKeys;
import io.mivrel.files.keys.Key;
import io.mivrel.files.keys.ShapeKeys;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.RowFilter;
import io.mivrel.rows.RowOrder;
import io.mivrel.shape.CarryDown;
import io.mivrel.shape.FanOut;
import io.mivrel.shape.FillDown;
import io.mivrel.shape.Link;
import io.mivrel.shape.PageHeads;
import io.mivrel.shape.Shape;
import io.mivrel.shape.Tags;
import io.mivrel.shape.Wrapped;
import io.mivrel.shape.Years;
import io.mivrel.text.DatePattern;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** The parts of a layout that say what shape a file has: of pages, rows and linked files. */
final class ShapeSettings {
    private ShapeSettings() {}

    /** {@code apart} are the rows that the layout leaves out, and so are no part of one that goes on. */
    static List<Shape> read(SettingsNode form, FileFormat file, List<RowFilter> apart) {
        List<Shape> shapes = new ArrayList<>();
        form.blocks(ShapeKeys.YEARS).forEach(years -> years(years, shapes));
        carryDown(form, shapes);
        pages(form.block(ShapeKeys.PAGE_HEADS), shapes);
        wrapped(form.block(ShapeKeys.WRAPPED), apart, shapes);
        fillDown(form.block(ShapeKeys.FILL_DOWN), shapes);
        SettingsNode tags = form.block(ShapeKeys.TAGS);
        if (tags != null) {
            tags(tags, shapes);
        }
        SettingsNode links = form.block(ShapeKeys.LINK);
        if (links != null) {
            for (String name : links.keys()) {
                link(links.block(name), name, file, shapes);
            }
        }
        fanOut(form, shapes);
        if (!shapes.isEmpty() && file.kind().isStatement()) {
            form.wrong("a statement has no other shape than its own", "");
        }
        return shapes;
    }

    private static void years(SettingsNode form, List<Shape> shapes) {
        String column = form.required(FormatKeys.COLUMN);
        DatePattern pattern = yearless(form);
        String period = form.required(ShapeKeys.PERIOD);
        SettingsNode days = form.block(ShapeKeys.DAYS);
        DatePattern written = days == null ? null : FormatSettings.pattern(days, null);
        if (days == null) {
            form.wrong("'years' needs 'days': how the days of the period are written", "days: {pattern: dd/MM/uuuu}");
        } else {
            days.done();
        }
        String title = form.required(ShapeKeys.TITLE);
        form.done();
        if (column != null && pattern != null && period != null && written != null && title != null) {
            shapes.add(new Years(LayoutFile.columnRef(column), pattern, period, written, title));
        }
    }

    private static @Nullable DatePattern yearless(SettingsNode form) {
        String pattern = form.required(ShapeKeys.YEARLESS);
        try {
            return pattern == null ? null : DatePattern.yearless(pattern);
        } catch (IllegalArgumentException e) {
            form.at(ShapeKeys.YEARLESS, String.valueOf(e.getMessage()), "pattern: dd MMM");
            return null;
        }
    }

    private static void pages(@Nullable SettingsNode form, List<Shape> shapes) {
        if (form != null) {
            String begins = form.required(ShapeKeys.BEGINS);
            String ends = form.text(ShapeKeys.ENDS, begins);
            form.done();
            if (begins != null && ends != null) {
                shapes.add(new PageHeads(begins, ends));
            }
        }
    }

    private static void wrapped(@Nullable SettingsNode form, List<RowFilter> apart, List<Shape> shapes) {
        if (form == null) {
            return;
        }
        List<String> begins = columns(form, ShapeKeys.BEGINNERS);
        List<String> joins = columns(form, ShapeKeys.JOINS);
        String filler = form.text(ShapeKeys.FILLER, "");
        form.done();
        if (begins.isEmpty() || joins.isEmpty()) {
            form.wrong("'wrapped' needs 'begins' and 'joins'", "wrapped: {begins: Date, joins: Details}");
        } else if (filler.length() > 1) {
            form.at(ShapeKeys.FILLER, "'filler' is one character, such as .", "");
        } else {
            shapes.add(new Wrapped(begins, joins, filler, apart));
        }
    }

    private static void fillDown(@Nullable SettingsNode form, List<Shape> shapes) {
        if (form == null) {
            return;
        }
        List<String> filled = columns(form, ShapeKeys.FILLED);
        List<String> where = columns(form, ShapeKeys.WHERE);
        form.done();
        if (filled.isEmpty()) {
            form.wrong("'fill down' needs 'columns'", "fill down: {columns: Date, where: Amount}");
        } else {
            shapes.add(new FillDown(filled, where));
        }
    }

    private static List<String> columns(SettingsNode form, Key key) {
        return form.texts(key).stream().map(LayoutFile::columnRef).toList();
    }

    private static void carryDown(SettingsNode form, List<Shape> shapes) {
        List<CarryDown.Heading> headings = new ArrayList<>();
        for (SettingsNode heading : form.blocks(ShapeKeys.CARRY_DOWN)) {
            String title = heading.required(ShapeKeys.TITLE);
            String column = LayoutFile.columnRef(heading.text(ShapeKeys.IN_COLUMN, ""));
            Pattern take = take(heading);
            // A heading may be known by its pattern alone.
            String begins = take == null
                    ? heading.required(ShapeKeys.HEADING_BEGINS)
                    : heading.text(ShapeKeys.HEADING_BEGINS, "");
            heading.done();
            if (title != null && begins != null) {
                headings.add(new CarryDown.Heading(title, column, begins, take));
            }
        }
        if (!headings.isEmpty()) {
            shapes.add(new CarryDown(headings));
        }
    }

    /** What is taken out of a text; {@code null} when it is taken whole. */
    static Pattern take(SettingsNode form) {
        String take = form.text(FormatKeys.TAKE);
        try {
            return take == null ? null : Pattern.compile(take);
        } catch (PatternSyntaxException e) {
            form.at(FormatKeys.TAKE, "'" + take + "' is not a pattern: " + e.getDescription(), "");
            return null;
        }
    }

    private static void tags(SettingsNode form, List<Shape> shapes) {
        String column = form.required(FormatKeys.COLUMN);
        Map<String, Tags.Kind> tags = new LinkedHashMap<>();
        for (String tag : form.keys()) {
            if (!tag.equals(FormatKeys.COLUMN.name())) {
                Tags.Kind kind = kind(form.block(tag));
                if (kind != null) {
                    tags.put(tag, kind);
                }
            }
        }
        form.done();
        if (column != null && tags.values().stream().noneMatch(k -> k.role() == Tags.Role.LINE)) {
            form.wrong("no tag of 'tags' has 'line', so no row would be read", "L: {line: [tag, account, amount]}");
        } else if (column != null) {
            shapes.add(new Tags(LayoutFile.columnRef(column), tags));
        }
    }

    private static Tags.Kind kind(SettingsNode form) {
        List<String> heading = names(form, ShapeKeys.HEADING);
        List<String> line = names(form, ShapeKeys.LINE);
        String of = form.text(ShapeKeys.COLUMNS_OF);
        int cell = form.number(ShapeKeys.COLUMNS_OF_CELL);
        List<String> also = form.texts(ShapeKeys.ALSO);
        boolean aside = form.yes(ShapeKeys.ASIDE, false);
        boolean named = form.has(ShapeKeys.HEADING) || form.has(ShapeKeys.LINE);
        form.done();
        if ((form.has(ShapeKeys.HEADING) ? 1 : 0)
                        + (form.has(ShapeKeys.LINE) ? 1 : 0)
                        + (of != null ? 1 : 0)
                        + (cell > 0 ? 1 : 0)
                        + (aside ? 1 : 0)
                != 1) {
            form.wrong("a tag needs one of 'heading', 'line', 'columns of', 'columns of cell' and 'aside'", "");
            return null;
        }
        if (named) {
            boolean isHeading = form.has(ShapeKeys.HEADING);
            return new Tags.Kind(isHeading ? Tags.Role.HEADING : Tags.Role.LINE, isHeading ? heading : line, null, 0);
        }
        return new Tags.Kind(aside ? Tags.Role.ASIDE : Tags.Role.COLUMNS, also, of, cell);
    }

    // A stroke stands for a cell that is not wanted; 'named' for columns that a row of the file names.
    private static List<String> names(SettingsNode form, Key key) {
        List<String> names = form.texts(key);
        return names.equals(List.of("named"))
                ? List.of()
                : names.stream().map(n -> n.equals("-") ? "" : n).toList();
    }

    private static void link(SettingsNode form, String name, FileFormat main, List<Shape> shapes) {
        String file = form.text(ShapeKeys.FILE, Link.SAME);
        String key = form.required(ShapeKeys.KEY);
        String theirKey = form.text(ShapeKeys.THEIR_KEY, key);
        boolean firstOnly = form.isSecond(ShapeKeys.KEYS);
        SettingsNode otherForm = form.block(ShapeKeys.FORM);
        String sheet = form.text(FormatKeys.SHEET);
        form.done();
        if (file.contains("/") || file.contains("\\") || file.startsWith("..")) {
            form.at(ShapeKeys.FILE, "'" + file + "' must be the plain name of a file beside the one that is read", "");
            return;
        }
        FileFormat other = otherForm != null
                ? FormatSettings.source(otherForm)
                : sheet != null
                        ? FileFormat.workbook(sheet, 1)
                        : new FileFormat(
                                main.kind(),
                                main.separator(),
                                main.encoding(),
                                main.part(),
                                main.slices(),
                                main.kind() == FileKind.FIXED_WIDTH ? 0 : Math.max(1, main.titlesRow()),
                                1,
                                2,
                                "",
                                RowOrder.OLDEST_FIRST);
        if (key != null) {
            shapes.add(
                    new Link(name, file, other, LayoutFile.columnRef(key), LayoutFile.columnRef(theirKey), firstOnly));
        }
    }

    private static void fanOut(SettingsNode form, List<Shape> shapes) {
        List<FanOut.Amount> amounts = new ArrayList<>();
        for (SettingsNode amount : form.blocks(ShapeKeys.FAN_OUT)) {
            String column = amount.required(FormatKeys.COLUMN);
            String account = amount.text(ShapeKeys.FAN_ACCOUNT, "");
            String text = amount.text(ShapeKeys.FAN_TEXT, column == null ? "" : column);
            String side = amount.required(ShapeKeys.FAN_SIDE);
            if (side != null) {
                amount.choice(ShapeKeys.FAN_SIDE);
            }
            amount.done();
            if (column != null && side != null) {
                amounts.add(new FanOut.Amount(LayoutFile.columnRef(column), account, text, side));
            }
        }
        if (!amounts.isEmpty()) {
            shapes.add(new FanOut(amounts));
        }
    }
}

package io.mivrel.survey.settings;

import static io.mivrel.files.settings.Quoted.quoted;

import io.mivrel.files.settings.Quoted;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** Mends the text of a layout for a file whose columns have other titles; everything else stays as it was written. */
public final class LayoutMender {
    private LayoutMender() {}

    /**
     * The text of a layout that reads both forms: a renamed column has both titles, and new ones are listed as unused.
     *
     * @param renamed new titles by old ones
     * @param fresh titles that the layout does not know
     */
    public static String mend(Path layout, Map<String, String> renamed, List<String> fresh) throws IOException {
        List<String> lines = new ArrayList<>();
        List<String> unused = new ArrayList<>(fresh.stream().map(Quoted::quoted).toList());
        boolean listed = false;
        for (String line : Files.readAllLines(layout)) {
            String mended = line;
            for (Map.Entry<String, String> title : renamed.entrySet()) {
                mended = mended(mended, title.getKey(), title.getValue());
            }
            if (mended.startsWith("unused: [") && !unused.isEmpty()) {
                listed = true;
                mended = mended.replaceFirst(
                        "unused: \\[ *",
                        Matcher.quoteReplacement(
                                "unused: [" + String.join(", ", unused) + (mended.contains("[]") ? "" : ", ")));
            }
            // The order is that of the file it was made for.
            if (!line.startsWith("columns in order:")) {
                lines.add(mended);
            }
        }
        if (!listed && !unused.isEmpty()) {
            lines.add("unused: [" + String.join(", ", unused) + "]");
        }
        return String.join("\n", lines) + "\n";
    }

    private static String mended(String line, String old, String now) {
        String both = quoted(old) + ", " + quoted(now);
        Pattern one = Pattern.compile(
                "(\\bcolumn: *)(" + Pattern.quote(quoted(old)) + "|" + Pattern.quote(old) + ")(?= *(?:[,}#]|$))");
        Matcher found = one.matcher(line);
        if (found.find()) {
            return found.replaceFirst("$1" + Matcher.quoteReplacement("[" + both + "]"));
        }
        Pattern several = Pattern.compile("(\\bcolumn: *\\[[^]]*)(?=])");
        Matcher list = several.matcher(line);
        return list.find() && list.group(1).contains(old)
                ? list.replaceFirst("$1" + Matcher.quoteReplacement(", " + quoted(now)))
                : line;
    }
}

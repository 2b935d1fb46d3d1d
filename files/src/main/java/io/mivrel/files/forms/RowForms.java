package io.mivrel.files.forms;

import io.mivrel.delivery.RowForm;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.ServiceLoader;

/** The forms by their words: those that are here, and those that a program brings. */
public final class RowForms {
    /** The word of text in columns of fixed width. */
    public static final String FIXED = "fixed width";

    /** The word of workbooks. */
    public static final String WORKBOOK = "workbook";

    private static final Map<String, RowForm> ALL = all();

    private RowForms() {}

    private static Map<String, RowForm> all() {
        Map<String, RowForm> all = new LinkedHashMap<>();
        for (RowForm form : new RowForm[] {new SeparatedForm(), new FixedForm(), new WorkbookForm()}) {
            all.put(form.word(), form);
        }
        ServiceLoader.load(RowForm.class).forEach(form -> all.put(form.word(), form));
        return all;
    }

    /** Their words, the usual one first. */
    public static List<String> words() {
        return List.copyOf(ALL.keySet());
    }

    /** The form of a word; throws {@link IllegalArgumentException} that names those that there are. */
    public static RowForm of(String word) {
        RowForm form = ALL.get(word);
        if (form == null) {
            throw new IllegalArgumentException(
                    "there is no form '" + word + "'; there are " + String.join(", ", words()));
        }
        return form;
    }
}

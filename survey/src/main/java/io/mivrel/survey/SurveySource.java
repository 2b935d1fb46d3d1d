package io.mivrel.survey;

import io.mivrel.layout.Layout;
import io.mivrel.rows.RowSource;
import java.io.IOException;

/** A file to survey. */
public interface SurveySource {

    /** What its beginning says. */
    FileProfile facts() throws IOException;

    /** Its rows by these facts. */
    RowSource open(FileProfile facts) throws IOException;

    /** Its rows as a run would read them with a layout. */
    RowSource open(Layout layout) throws IOException;

    /** What the whole file says, once all rows of the last {@link #open} have been read. */
    FileProfile confirmed(FileProfile assumed);
}

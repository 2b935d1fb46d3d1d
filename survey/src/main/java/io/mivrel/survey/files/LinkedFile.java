package io.mivrel.survey.files;

import io.mivrel.files.SourceFiles;
import io.mivrel.layout.Layout;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.RowSource;
import io.mivrel.shape.Link;
import io.mivrel.shape.TitledRows;
import io.mivrel.survey.FileProfile;
import io.mivrel.survey.SurveySource;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/** A file with the columns of others that are linked to it, as a survey sees it. For one thread. */
public final class LinkedFile implements SurveySource {
    private final SurveyFile main;
    private final FileFormat form;
    private final List<Link> links;

    /**
     * @param main the file whose rows are the lines
     * @param form how it is laid out
     * @param links files that stand beside it
     */
    public LinkedFile(SurveyFile main, FileFormat form, List<Link> links) {
        this.main = main;
        this.form = form;
        this.links = links;
    }

    @Override
    public FileProfile facts() throws IOException {
        return main.facts();
    }

    @Override
    public RowSource open(FileProfile facts) throws IOException {
        RowSource rows = new TitledRows(main.open(facts), form);
        try {
            for (Link link : links) {
                rows = link.over(rows, this::sibling);
            }
            return rows;
        } catch (IOException e) {
            rows.close();
            throw e;
        }
    }

    @Override
    public RowSource open(Layout layout) throws IOException {
        RowSource rows =
                new TitledRows(SourceFiles.open(main.file(), main.file().toString(), form), form);
        try {
            for (Link link : links) {
                rows = link.over(rows, this::sibling);
            }
            return rows;
        } catch (IOException e) {
            rows.close();
            throw e;
        }
    }

    private RowSource sibling(String name, FileFormat other) throws IOException {
        Path file = main.file().resolveSibling(name);
        return SourceFiles.open(file, name, other);
    }

    @Override
    public FileProfile confirmed(FileProfile assumed) {
        return main.confirmed(assumed);
    }
}

package io.mivrel.bench;

import de.siegmar.fastcsv.reader.CsvReader;
import de.siegmar.fastcsv.reader.CsvRecord;
import java.io.IOException;
import java.nio.file.Path;

/** The floor to compare with: reads every row of a file with the CSV library and does nothing with it. */
public final class FloorRead {
    private FloorRead() {}

    /** The file to read. */
    public static void main(String[] args) throws IOException {
        long rows = 0;
        long cells = 0;
        try (CsvReader<CsvRecord> reader = CsvReader.builder().ofCsvRecord(Path.of(args[0]))) {
            for (CsvRecord row : reader) {
                rows++;
                cells += row.getFieldCount();
            }
        }
        System.out.println(rows + " rows, " + cells + " cells");
    }
}

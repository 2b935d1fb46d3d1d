package io.mivrel.files;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.files.bytes.Digests;
import io.mivrel.kinds.BankLines;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.rows.FileFormat;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import java.nio.file.Files;
import java.nio.file.Path;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What was read of a file is known byte for byte, in every format that is read from its beginning to its end. */
public class ReadingsTest {
    @DataProvider
    Object[][] files() {
        return new Object[][] {
            {"a.csv", FileFormat.csv(), "Date,Text,Amount\n2027-03-01,tin,1.00\n"},
            {"a.prn", FileFormat.fixedWidth("UTF-8", new FileFormat.Slice("Date", 1, 10)), "2027-03-01 tin\n"},
            {
                "a.sta",
                FileFormat.statement(FileKind.MT940),
                ":20:1\n:25:12345678\n:28C:1/1\n:60F:C270301GBP10,00\n:61:270302D1,00NTRFx\n:62F:C270302GBP9,00\n-\n"
            },
            {"a.qif", FileFormat.statement(FileKind.QIF), "!Type:Bank\nD03/02/27\nT-1.00\nPtin\n^\n"},
        };
    }

    @Test(dataProvider = "files")
    public void whatWasReadIsComparedWithTheFile(String name, FileFormat format, String text) throws Exception {
        Path file = Files.createTempDirectory("mivrel readings").resolve(name);
        Files.writeString(file, text);
        Layout layout = Layout.named("x", BankLines.KIND)
                .format(format)
                .field(BankLines.DATE, FieldSource.date("Date", "uuuu-MM-dd"))
                .buildUnchecked();
        SourceFiles.Opener opener = SourceFiles.opener(file, name, layout);
        long checksum = Digests.withChecksum(file).checksum();
        read(opener);
        read(opener);
        assertThat(opener.readBytesOf(checksum)).isTrue();
        assertThat(opener.readBytesOf(checksum ^ 1)).isFalse();
        // Read once more after a change, the readings differ from each other, whatever the file is now.
        Files.writeString(file, text.replace("tin", "tim").replace("1,00", "2,00"));
        read(opener);
        assertThat(opener.readBytesOf(checksum)).isFalse();
        assertThat(opener.readBytesOf(Digests.withChecksum(file).checksum())).isFalse();
    }

    private static void read(SourceFiles.Opener opener) throws Exception {
        try (RowSource rows = opener.open()) {
            for (Row row = rows.next(); row != null; row = rows.next()) {
                assertThat(row.fault()).isNull();
            }
        }
    }
}

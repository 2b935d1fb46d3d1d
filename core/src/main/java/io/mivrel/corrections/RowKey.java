package io.mivrel.corrections;

import io.mivrel.model.Finding;
import io.mivrel.rows.Row;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.List;

/**
 * The key of a row: a digest of its cells without blanks around them and blank cells at the end, so that a row is known again
 * after a spreadsheet has saved it, and wherever it has moved. The first 80 bits of SHA-256 (FIPS 180-4), in hexadecimal.
 */
public final class RowKey {
    private static final int BYTES = 10;
    private static final byte DIVIDER = 0x1F;

    private final MessageDigest digest;

    public RowKey() {
        try {
            digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException everyPlatformHasIt) {
            throw new IllegalStateException(everyPlatformHasIt);
        }
    }

    public String of(Row row) {
        return of(cells(row));
    }

    public String of(List<String> cells) {
        int size = cells.size();
        while (size > 0 && isBlank(cells.get(size - 1))) {
            size--;
        }
        for (String cell : cells.subList(0, size)) {
            digest.update((isBlank(cell) ? "" : cell.strip()).getBytes(StandardCharsets.UTF_8));
            digest.update(DIVIDER);
        }
        return HexFormat.of().formatHex(digest.digest(), 0, BYTES);
    }

    /** The key of what is wrong with a file as a whole. */
    public String of(Finding ofFile) {
        return of(List.of(ofFile.rule().id(), ofFile.origin().file(), ofFile.value(), ofFile.reason()));
    }

    private static boolean isBlank(String cell) {
        return cell.isBlank() || cell.equals(Row.NO_CELL);
    }

    /** The cells of a row as texts. */
    public static List<String> cells(Row row) {
        List<String> cells = new ArrayList<>(row.size());
        for (int i = 0; i < row.size(); i++) {
            cells.add(row.text(i));
        }
        return cells;
    }
}

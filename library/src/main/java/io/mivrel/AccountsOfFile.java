package io.mivrel;

import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.files.SourceFiles;
import io.mivrel.intake.Input;
import io.mivrel.layout.Layout;
import io.mivrel.model.Finding;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.Statement;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Divides a file of statements by their accounts: each is an input of its own, of the account that has its number. */
final class AccountsOfFile {
    private AccountsOfFile() {}

    /**
     * One input for each account that the statements name, in their order. A number that no account of the books has
     * stands in place of the account, and a file that cannot be read keeps the layout as it is; the plan refuses both.
     */
    static List<Input> inputs(String shown, SourceFiles.Opener file, Layout layout, Books books) {
        String column = layout.whose().numberColumn();
        if (column != null) {
            return byColumn(shown, file, layout, column, books);
        }
        Map<String, Statement> accounts = new LinkedHashMap<>();
        try (RowSource rows = file.open()) {
            for (Row row = rows.next(); row != null; row = rows.next()) {
                Statement ended = row.ended();
                if (ended != null && ended.account() != null) {
                    accounts.putIfAbsent(ended.account(), ended);
                } else if (ended != null) {
                    return List.of(new Input(shown, layout, file));
                }
            }
        } catch (IOException unreadable) {
            return List.of(new Input(shown, layout, file));
        }
        if (accounts.isEmpty()) {
            return List.of(new Input(shown, layout, file));
        }
        List<Input> inputs = new ArrayList<>();
        accounts.forEach((number, statement) -> {
            String code = books.accounts().stream()
                    .filter(account -> account.holdsMoney() && account.hasNumber(number, statement.currency()))
                    .map(Account::code)
                    .findFirst()
                    .orElse(number);
            Layout ofAccount = layout.ofAccount(code, number);
            String name = accounts.size() == 1 ? shown : shown + ", account " + number;
            SourceFiles.Opener opener = file.of(ofAccount, name);
            inputs.add(new Input(name, ofAccount, () -> new OwnRows(opener.open())));
        });
        return inputs;
    }

    // Accounts that stand in a column, each row beside its own.
    private static List<Input> byColumn(
            String shown, SourceFiles.Opener file, Layout layout, String column, Books books) {
        Set<String> numbers = new LinkedHashSet<>();
        try (RowSource rows = file.open()) {
            NumberedRows numbered = new NumberedRows(rows, layout, column, null);
            for (Row row = numbered.next(); row != null; row = numbered.next()) {
                String number = numbered.number(row);
                if (number != null && !number.isEmpty()) {
                    numbers.add(number);
                }
            }
        } catch (IOException unreadable) {
            return List.of(new Input(shown, layout, file));
        }
        if (numbers.isEmpty()) {
            return List.of(new Input(shown, layout, file));
        }
        List<Input> inputs = new ArrayList<>();
        for (String number : numbers) {
            String code = books.accounts().stream()
                    .filter(account -> account.holdsMoney() && account.hasNumber(number, null))
                    .map(Account::code)
                    .findFirst()
                    .orElse(number);
            String name = numbers.size() == 1 ? shown : shown + ", account " + number;
            SourceFiles.Opener opener = file.of(layout, name);
            inputs.add(new Input(
                    name,
                    layout.ofAccount(code, layout.format().part()),
                    () -> new OwnRows(new NumberedRows(opener.open(), layout, column, number))));
        }
        return inputs;
    }

    /** Rows of which those of other accounts are set aside, by the number that stands in a column. */
    private static final class NumberedRows implements RowSource {
        private final RowSource all;
        private final Layout layout;
        private final String column;
        private final @Nullable String wanted;
        private int place = -1;

        NumberedRows(RowSource all, Layout layout, String column, @Nullable String wanted) {
            this.all = all;
            this.layout = layout;
            this.column = column;
            this.wanted = wanted;
            if (column.startsWith("#")) {
                place = Integer.parseInt(column.substring(1)) - 1;
            }
        }

        @Override
        public @Nullable Row next() throws IOException {
            Row row = all.next();
            String number = row == null ? null : number(row);
            if (row != null && wanted != null && number != null && !number.isEmpty() && !number.equals(wanted)) {
                row.aside(LeftOut.OTHER_ACCOUNT);
            }
            return row;
        }

        @Override
        public void skipTo(long physicalRow) throws IOException {
            all.skipTo(physicalRow);
        }

        /** The account of a row of data; {@code null} for another row. */
        @Nullable
        String number(Row row) {
            List<String> titles = all.titles();
            if (place < 0 && titles != null) {
                place = titles.indexOf(column);
            }
            if (titles == null && place < 0 && row.number() == layout.format().titlesRow()) {
                for (int i = 0; i < row.size(); i++) {
                    place = row.trimmed(i).equals(column) ? i : place;
                }
                return null;
            }
            boolean data = titles != null || row.number() > layout.format().titlesRow();
            return data && place >= 0 && place < row.size() && row.fault() == null && row.aside() == null
                    ? row.trimmed(place)
                    : null;
        }

        @Override
        public @Nullable List<String> titles() {
            return all.titles();
        }

        @Override
        public List<Finding> remarks() {
            return all.remarks();
        }

        @Override
        public void close() throws IOException {
            all.close();
        }
    }

    /** The rows of one account. Each other row is counted where its own account is read, and nowhere else. */
    private record OwnRows(RowSource all) implements RowSource {
        @Override
        public @Nullable Row next() throws IOException {
            Row row = all.next();
            while (row != null && row.aside() == LeftOut.OTHER_ACCOUNT) {
                row = all.next();
            }
            return row;
        }

        @Override
        public @Nullable List<String> titles() {
            return all.titles();
        }

        @Override
        public List<Finding> remarks() {
            return all.remarks();
        }

        @Override
        public void skipTo(long physicalRow) throws IOException {
            all.skipTo(physicalRow);
        }

        @Override
        public void close() throws IOException {
            all.close();
        }
    }
}

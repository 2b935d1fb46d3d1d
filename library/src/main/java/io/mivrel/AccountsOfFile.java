package io.mivrel;

import io.mivrel.books.Account;
import io.mivrel.books.Books;
import io.mivrel.files.SourceFiles;
import io.mivrel.intake.Layout;
import io.mivrel.model.Finding;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.Statement;
import io.mivrel.run.Input;
import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Divides a file of statements by their accounts: each is an input of its own, of the account that has its number. */
final class AccountsOfFile {
    private AccountsOfFile() {}

    /**
     * One input for each account that the statements name, in their order. A number that no account of the books has
     * stands in place of the account, and a file that cannot be read keeps the layout as it is; the plan refuses both.
     */
    static List<Input> inputs(String shown, SourceFiles.Opener file, Layout layout, Books books) {
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

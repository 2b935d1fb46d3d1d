package io.mivrel;

import io.mivrel.books.Books;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.PracticePlace;
import io.mivrel.practice.web.WebLedger;
import io.mivrel.practice.web.WebPlace;
import java.io.IOException;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Opens the ledgers that settings name. Secrets come from the environment. */
public final class Ledgers {
    // What looks otherwise may be the secret itself.
    private static final String NAME = "[A-Z][A-Z0-9]*(_[A-Z0-9]+)+";

    private Ledgers() {}

    /** Opens a ledger that exists. {@code company} is whose books are wanted where the settings name none. */
    public static Ledger open(LedgerSettings settings, @Nullable String company) throws IOException {
        try {
            String of = settings.company() == null ? company : settings.company();
            return settings.kind() == LedgerSettings.Kind.HTTP
                    ? new WebLedger(settings.name(), web(settings))
                    : PracticeLedger.open(settings.name(), place(settings), of);
        } catch (NoClassDefFoundError absent) {
            throw lacking(settings, absent);
        }
    }

    /** Opens the practice ledger, and makes its books of these when it has none. */
    public static PracticeLedger openPractice(LedgerSettings settings, Books books) throws IOException {
        try {
            return PracticeLedger.openOrCreate(settings.name(), place(settings), books);
        } catch (NoClassDefFoundError absent) {
            throw lacking(settings, absent);
        }
    }

    private static IOException lacking(LedgerSettings settings, Throwable absent) {
        return new IOException(
                "the ledger '" + settings.name() + "' needs io.mivrel:mivrel-extras on the class path (there is no "
                        + absent.getMessage() + ")",
                absent);
    }

    private static WebPlace web(LedgerSettings settings) throws LedgerException {
        String token = System.getenv(settings.secretFrom());
        if (token == null || token.isBlank()) {
            throw new LedgerException(
                    LedgerException.Kind.REFUSED,
                    "the ledger '" + settings.name() + "' needs its token in "
                            + (settings.secretFrom().matches(NAME)
                                    ? "the environment variable " + settings.secretFrom()
                                    : "an environment variable; the one whose name stands under 'token from' in its"
                                            + " settings is not set"),
                    null);
        }
        return new WebPlace(Objects.requireNonNull(settings.address()), token.strip(), settings.certificate());
    }

    private static PracticePlace place(LedgerSettings settings) throws LedgerException {
        if (settings.kind() == LedgerSettings.Kind.HTTP) {
            throw new LedgerException(
                    LedgerException.Kind.REFUSED,
                    "the ledger '" + settings.name() + "' is reached over HTTP; its books are opened where they lie",
                    null);
        }
        return settings.file() != null
                ? PracticePlace.file(settings.file())
                : PracticePlace.server(
                        settings.address(), System.getenv(settings.userFrom()), System.getenv(settings.secretFrom()));
    }
}

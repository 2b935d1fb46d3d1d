package io.mivrel;

import io.mivrel.books.Books;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.posting.Ledger;
import io.mivrel.posting.LedgerException;
import io.mivrel.posting.LedgerPlace;
import io.mivrel.posting.LedgerProvider;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Opens the ledgers that settings name, by what {@link LedgerProvider}s there are. Secrets come from the environment. */
public final class Ledgers {
    private Ledgers() {}

    /** Opens a ledger that exists. {@code company} is whose books are wanted where the settings name none. */
    public static Ledger open(LedgerSettings settings, @Nullable String company) throws IOException {
        return with(settings, company, LedgerProvider::open);
    }

    /** Opens a ledger, and makes its books of these when it has none. */
    public static Ledger openOrCreate(LedgerSettings settings, Books books) throws IOException {
        return with(settings, null, (provider, place) -> provider.openOrCreate(place, books));
    }

    private interface Opening {
        Ledger by(LedgerProvider provider, LedgerPlace place) throws LedgerException;
    }

    private static Ledger with(LedgerSettings settings, @Nullable String company, Opening opening) throws IOException {
        LedgerProvider provider = LedgerProvider.all().get(settings.kind());
        if (provider == null) {
            throw lacking(settings, "mivrel-practice", "kind " + settings.kind(), null);
        }
        try {
            return opening.by(
                    provider,
                    new LedgerPlace(
                            settings.name(),
                            settings.file(),
                            settings.address(),
                            settings.company() == null ? company : settings.company(),
                            System.getenv(settings.userFrom()),
                            System.getenv(settings.secretFrom()),
                            settings.secretFrom(),
                            settings.certificate(),
                            settings.own()));
        } catch (NoClassDefFoundError absent) {
            throw lacking(settings, "mivrel-extras", String.valueOf(absent.getMessage()), absent);
        }
    }

    private static IOException lacking(
            LedgerSettings settings, String artefact, String what, @Nullable Throwable absent) {
        return new IOException(
                "the ledger '" + settings.name() + "' needs io.mivrel:" + artefact + " on the class path (there is no "
                        + what + ")",
                absent);
    }
}

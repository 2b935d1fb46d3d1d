package io.mivrel.posting;

import java.nio.file.Path;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * Where a ledger is, as its settings say it, with the secrets that they only name. Never shown with them. Immutable.
 *
 * @param name what it is called
 * @param file its database file; {@code null} for none
 * @param address of its server; {@code null} for none
 * @param company whose books are wanted; {@code null} for the only ones there are
 * @param user who calls; {@code null} when nothing says it
 * @param secret the password or token; {@code null} when the environment has none
 * @param secretFrom the environment variable that the secret comes from, for messages
 * @param certificate PEM file with the server's certificate, or that of its issuer; {@code null} for those that Java trusts
 * @param own what else its settings say under {@code with}
 */
public record LedgerPlace(
        String name,
        @Nullable Path file,
        @Nullable String address,
        @Nullable String company,
        @Nullable String user,
        @Nullable String secret,
        String secretFrom,
        @Nullable Path certificate,
        Map<String, String> own) {
    // What looks otherwise may be the secret itself.
    private static final String NAME = "[A-Z][A-Z0-9]*(_[A-Z0-9]+)+";

    /** The secret, without blanks around it. Throws, and names the variable that lacks it, when there is none. */
    public String requireSecret() throws LedgerException {
        if (secret == null || secret.isBlank()) {
            throw new LedgerException(
                    LedgerException.Kind.REFUSED,
                    "the ledger '" + name + "' needs its token in "
                            + (secretFrom.matches(NAME)
                                    ? "the environment variable " + secretFrom
                                    : "an environment variable; the one whose name stands under 'token from' in its"
                                            + " settings is not set"),
                    null);
        }
        return secret.strip();
    }

    @Override
    public String toString() {
        return name;
    }
}

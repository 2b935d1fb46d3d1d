package io.mivrel.practice.web;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * Where a ledger's server is. Never shown with its token.
 *
 * @param address such as {@code https://localhost:8091}
 * @param token who calls
 * @param certificate PEM file with the server's certificate, or that of its issuer; {@code null} for those that Java trusts
 */
public record WebPlace(
        String address, String token, @Nullable Path certificate) {
    @Override
    public String toString() {
        return address;
    }
}

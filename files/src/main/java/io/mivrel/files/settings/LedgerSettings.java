package io.mivrel.files.settings;

import io.mivrel.files.keys.LedgerKeys;
import io.mivrel.posting.LedgerProvider;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * A ledger to post to, as its settings file names it. Secrets are never in it: it only names the environment variables that
 * hold them. Immutable.
 *
 * @param name what it is called
 * @param kind what it is reached by: {@code practice}, {@code http}, or the kind of another {@link LedgerProvider}
 * @param file the database file of a practice ledger; {@code null} for one on a server
 * @param address of a database for JDBC, or of the ledger's own server; {@code null} for a file
 * @param company whose books they are; {@code null} for those of the run
 * @param userFrom environment variable with the user of the database
 * @param secretFrom environment variable with the password of the database, or the token of the server
 * @param holdsDelivered true when documents that went out in import files are not posted
 * @param certificate the server's certificate, or that of its issuer; {@code null} for those that Java trusts
 * @param own what a provider of another kind wants to know, under {@code with}
 */
public record LedgerSettings(
        String name,
        String kind,
        Path file,
        String address,
        String company,
        String userFrom,
        String secretFrom,
        boolean holdsDelivered,
        Path certificate,
        Map<String, String> own,
        Path settings) {
    /** The environment variable with the token, where the settings name none. */
    public static final String TOKEN = "MIVREL_LEDGER_TOKEN";

    /**
     * Finds the settings of a ledger: a file, or the name of one in the folder {@code ledgers} beside the run sheet. Throws
     * with every mistake in it.
     */
    public static LedgerSettings read(String named, Path runFolder) throws SettingsException {
        Path path = Path.of(named);
        if (!Files.isRegularFile(path)) {
            Path beside = runFolder.resolve("ledgers").resolve(named + ".yaml");
            path = Files.isRegularFile(beside) ? beside : path;
        }
        Problems problems = new Problems();
        SettingsNode form = SettingsNode.open(path, path.toString(), problems);
        problems.throwIfAny();
        LedgerSettings settings = read(form, path);
        form.done();
        problems.throwIfAny();
        return settings;
    }

    private static LedgerSettings read(SettingsNode form, Path path) {
        Path folder = path.toAbsolutePath().getParent();
        String name = form.required(LedgerKeys.LEDGER);
        Set<String> kinds = new TreeSet<>(LedgerProvider.all().keySet());
        kinds.addAll(List.of("practice", "http"));
        String kind = form.choice(LedgerKeys.KIND, "practice", kinds);
        boolean http = kind.equals("http");
        String file = form.text(LedgerKeys.FILE);
        String address = form.text(LedgerKeys.ADDRESS);
        if (http && (address == null || file != null)) {
            form.at(
                    LedgerKeys.KIND,
                    "a ledger over HTTP needs an 'address', such as http://localhost:8091, and no 'file'",
                    "");
        } else if (kind.equals("practice") && (address == null) == (file == null)) {
            form.at(LedgerKeys.KIND, "a practice ledger needs either a 'file' or the 'address' of a database", "");
        }
        if (address != null && address.matches("(?i).*(password|token)=.*|.*://[^/]*:[^/]*@.*")) {
            form.at(
                    LedgerKeys.ADDRESS,
                    "a secret does not belong into settings",
                    "put it into an environment variable, and name that under "
                            + (http ? "'token from'" : "'password from'"));
        }
        String certificate = form.text(LedgerKeys.CERTIFICATE);
        SettingsNode own = http || kind.equals("practice") ? null : form.block(LedgerKeys.WITH);
        return new LedgerSettings(
                name,
                kind,
                file == null ? null : folder.resolve(file).normalize(),
                address,
                form.text(LedgerKeys.COMPANY),
                or(form.text(LedgerKeys.USER_FROM), "MIVREL_LEDGER_USER"),
                http
                        ? or(form.text(LedgerKeys.TOKEN_FROM), TOKEN)
                        : or(form.text(LedgerKeys.PASSWORD_FROM), "MIVREL_LEDGER_PASSWORD"),
                form.isSecond(LedgerKeys.DELIVERED),
                certificate == null ? null : folder.resolve(certificate).normalize(),
                own == null ? Map.of() : own.all(),
                path);
    }

    private static String or(String text, String otherwise) {
        return text == null ? otherwise : text;
    }
}

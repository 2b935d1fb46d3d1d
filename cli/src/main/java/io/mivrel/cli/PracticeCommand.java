package io.mivrel.cli;

import io.mivrel.Ledgers;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.Books;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.files.settings.LedgerSettings;
import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsProblem;
import io.mivrel.posting.Ledger;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.web.Misbehaviour;
import io.mivrel.practice.web.PracticeServer;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.Callable;
import picocli.CommandLine;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** {@code mivrel practice}: the practice ledger as its own people have it in hand. */
@Command(
        name = "practice",
        mixinStandardHelpOptions = true,
        header =
                "A ledger to practise with: opens its books, serves them over HTTP, and does what its people do there.",
        synopsisSubcommandLabel = "COMMAND",
        synopsisHeading = "%n",
        commandListHeading = "%nCommands:%n",
        optionListHeading = "%n",
        subcommands = {
            PracticeCommand.Open.class,
            PracticeCommand.Serve.class,
            PracticeCommand.PeriodOf.class,
            PracticeCommand.AccountOf.class
        },
        footer = {
            "",
            "Examples:",
            "  mivrel practice open ledgers/practice.yaml --books books",
            "  mivrel practice serve ledgers/practice.yaml --port 8091",
            "  mivrel practice period ledgers/practice.yaml 2027-03-01 closed",
            "  mivrel practice account ledgers/practice.yaml 5010 closed"
        })
final class PracticeCommand implements Callable<Integer> {
    @Spec
    private CommandSpec spec;

    @Override
    public Integer call() {
        spec.commandLine().usage(spec.commandLine().getErr());
        return 2;
    }

    private static LedgerSettings settings(String ledger) throws Exception {
        return LedgerSettings.read(ledger, Path.of("").toAbsolutePath());
    }

    private static PracticeLedger existing(String ledger) throws Exception {
        LedgerSettings settings = settings(ledger);
        Ledger opened = Ledgers.open(settings, null);
        if (opened instanceof PracticeLedger practice) {
            return practice;
        }
        opened.close();
        throw new java.io.IOException(
                "the ledger '" + settings.name() + "' is reached over HTTP; do it where its books lie");
    }

    /** Opens books. */
    @Command(
            name = "open",
            mixinStandardHelpOptions = true,
            header =
                    "Opens the books of a practice ledger, with the chart, parties, tax codes and periods of a folder.")
    static final class Open implements Callable<Integer> {
        @Parameters(paramLabel = "LEDGER", description = "the settings of the ledger")
        private String ledger;

        @Option(names = "--books", paramLabel = "FOLDER", required = true, description = "the books, as runs have them")
        private Path books;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws Exception {
            Books read = BooksFolder.read(books);
            if (read.periods().isEmpty()) {
                throw new SettingsException(List.of(new SettingsProblem(
                        books.resolve("periods.csv").toString(),
                        0,
                        0,
                        "there is no period, and a ledger takes entries in open periods only",
                        "write a line for each, such as: 2027-01-01,2027-12-31,open")));
            }
            try (Ledger opened = Ledgers.openOrCreate(settings(ledger), read)) {
                Books there = opened.books();
                spec.commandLine()
                        .getOut()
                        .println(opened.name() + " has books of " + there.company() + " in "
                                + there.currency().getCurrencyCode() + ": "
                                + there.accounts().size() + " accounts, "
                                + there.partyCodes().size() + " customers and suppliers, "
                                + there.periods().size() + " periods");
                return 0;
            }
        }
    }

    /** Serves books. */
    @Command(
            name = "serve",
            mixinStandardHelpOptions = true,
            header = "Gives the books of a practice ledger over HTTP, until it is stopped.",
            description = {
                "",
                "It listens on this machine only, unless --address says otherwise. Callers show the token that is in"
                        + " MIVREL_LEDGER_TOKEN. With --misbehave it fails on purpose, to try what happens."
            })
    static final class Serve implements Callable<Integer> {
        @Parameters(paramLabel = "LEDGER", description = "the settings of the ledger whose books are served")
        private String ledger;

        @Option(names = "--port", paramLabel = "PORT", description = "8091 by default; 0 for any that is free")
        private int port = 8091;

        @Option(
                names = "--address",
                paramLabel = "ADDRESS",
                description = "where to listen, if not on this machine only")
        private String address;

        @Option(
                names = "--keys",
                paramLabel = "FILE",
                description = "key and certificate (PKCS 12), for HTTPS; its password is in MIVREL_KEYS_PASSWORD")
        private Path keys;

        @Option(
                names = "--misbehave",
                paramLabel = "FAULT",
                split = ",",
                description = "slow, limit, lose, cut, half, wrong, restart")
        private List<String> faults = List.of();

        @Option(names = "--seed", paramLabel = "N", description = "of the misbehaviour, to repeat it; printed")
        private Long seed;

        @Spec
        private CommandSpec spec;

        @Override
        public Integer call() throws Exception {
            String token = System.getenv("MIVREL_LEDGER_TOKEN");
            if (token == null || token.isBlank()) {
                throw new java.io.IOException(
                        "set MIVREL_LEDGER_TOKEN to a secret of your own first; callers must show it");
            }
            String password = System.getenv("MIVREL_KEYS_PASSWORD");
            long drawn = seed == null ? System.nanoTime() : seed;
            Misbehaviour misbehaviour = new Misbehaviour(faults(), 30, drawn);
            PracticeServer.Settings served = new PracticeServer.Settings(
                    address, port, token.strip(), keys, password == null ? null : password.toCharArray(), misbehaviour);
            try (PracticeLedger books = existing(ledger);
                    PracticeServer server = PracticeServer.start(books, served)) {
                var out = spec.commandLine().getOut();
                out.println(books.name() + " is served at " + server.address()
                        + (faults.isEmpty() ? "" : ", misbehaving with seed " + drawn) + "; Ctrl-C stops it");
                out.flush();
                Thread.currentThread().join();
                return 0;
            }
        }

        private Set<Misbehaviour.Fault> faults() {
            Set<Misbehaviour.Fault> named = EnumSet.noneOf(Misbehaviour.Fault.class);
            for (String word : faults) {
                try {
                    named.add(Misbehaviour.Fault.valueOf(word.strip().toUpperCase(Locale.ROOT)));
                } catch (IllegalArgumentException e) {
                    throw new CommandLine.ParameterException(
                            spec.commandLine(),
                            "--misbehave takes slow, limit, lose, cut, half, wrong, restart, not '" + word + "'");
                }
            }
            return named;
        }
    }

    /** Opens or closes a period. */
    @Command(name = "period", mixinStandardHelpOptions = true, header = "Opens or closes the period of a date.")
    static final class PeriodOf implements Callable<Integer> {
        @Parameters(index = "0", paramLabel = "LEDGER", description = "the settings of the ledger")
        private String ledger;

        @Parameters(index = "1", paramLabel = "DATE", description = "a date in the period")
        private LocalDate date;

        @Parameters(index = "2", paramLabel = "open|closed")
        private String status;

        @Override
        public Integer call() throws Exception {
            try (PracticeLedger books = existing(ledger)) {
                books.desk().setOpen(date, status.equals("open"));
                return 0;
            }
        }
    }

    /** Opens or closes an account. */
    @Command(name = "account", mixinStandardHelpOptions = true, header = "Opens or closes an account.")
    static final class AccountOf implements Callable<Integer> {
        @Parameters(index = "0", paramLabel = "LEDGER", description = "the settings of the ledger")
        private String ledger;

        @Parameters(index = "1", paramLabel = "CODE", description = "the account")
        private String code;

        @Parameters(index = "2", paramLabel = "open|closed")
        private String status;

        @Override
        public Integer call() throws Exception {
            try (PracticeLedger books = existing(ledger)) {
                books.desk().setStatus(code, status.equals("open") ? AccountStatus.OPEN : AccountStatus.CLOSED);
                return 0;
            }
        }
    }
}

/** A ledger to practise with, in a file or on a server, and over HTTP. Its libraries may be left out where it is not used. */
@SuppressWarnings("requires-automatic")
module io.mivrel.practice {
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires io.mivrel.ledger;
    requires java.sql;
    requires static org.xerial.sqlitejdbc;
    requires static org.postgresql.jdbc;
    requires static flyway.core;
    requires static tools.jackson.databind;
    requires static dev.failsafe.core;
    requires static java.net.http;
    requires static jdk.httpserver;

    exports io.mivrel.practice;
    exports io.mivrel.practice.web;

    provides io.mivrel.posting.LedgerProvider with
            io.mivrel.practice.PracticeProvider,
            io.mivrel.practice.web.WebProvider;
}

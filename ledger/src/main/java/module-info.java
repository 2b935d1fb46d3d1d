/**
 * The register of what was delivered and posted, and the practice ledger. The drivers of their databases, and what only the
 * practice ledger needs, may be left out where neither is used.
 */
@SuppressWarnings("requires-automatic")
module io.mivrel.ledger {
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires java.sql;
    requires static org.xerial.sqlitejdbc;
    requires static org.postgresql.jdbc;
    requires static flyway.core;
    requires static tools.jackson.databind;
    requires static dev.failsafe.core;
    requires static java.net.http;
    requires static jdk.httpserver;

    exports io.mivrel.ledger;
    exports io.mivrel.practice;
    exports io.mivrel.practice.web;
}

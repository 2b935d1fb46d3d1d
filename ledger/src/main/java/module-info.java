/** The register of what was delivered and posted. The drivers of its databases may be left out where it is not used. */
@SuppressWarnings("requires-automatic")
module io.mivrel.ledger {
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires java.sql;
    requires static org.xerial.sqlitejdbc;
    requires static org.postgresql.jdbc;

    exports io.mivrel.ledger;
    exports io.mivrel.database to
            io.mivrel.practice;
}

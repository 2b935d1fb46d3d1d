/** The register of what was delivered. The drivers of its databases may be left out where no register is kept. */
module io.mivrel.ledger {
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires java.sql;
    requires static org.xerial.sqlitejdbc;

    exports io.mivrel.ledger;
}

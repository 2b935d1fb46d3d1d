/** The front door. */
module io.mivrel {
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires transitive io.mivrel.files;
    requires transitive io.mivrel.ledger;
    requires transitive io.mivrel.report;
    requires transitive io.mivrel.survey;

    exports io.mivrel;
    exports io.mivrel.start;
}

/** The computation: from rows to documents to deliveries, without files, screen or database. */
@SuppressWarnings({"requires-automatic", "requires-transitive-automatic"})
module io.mivrel.core {
    requires static transitive org.jspecify;
    requires transitive re2j;

    exports io.mivrel.books;
    exports io.mivrel.checking;
    exports io.mivrel.coding;
    exports io.mivrel.corrections to
            io.mivrel,
            io.mivrel.files,
            io.mivrel.report;
    exports io.mivrel.delivery;
    exports io.mivrel.drafting;
    exports io.mivrel.history;
    exports io.mivrel.intake;
    exports io.mivrel.kinds;
    exports io.mivrel.layout;
    exports io.mivrel.model;
    exports io.mivrel.money;
    exports io.mivrel.posting;
    exports io.mivrel.rows;
    exports io.mivrel.run;
    exports io.mivrel.shape;
    exports io.mivrel.text;

    uses io.mivrel.posting.LedgerProvider;
}

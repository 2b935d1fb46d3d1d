/** The summary, the outcome for machines, and the evidence folder. */
module io.mivrel.report {
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires transitive io.mivrel.survey;
    requires de.siegmar.fastcsv;
    requires tools.jackson.core;
    requires static org.dhatim.fastexcel;

    exports io.mivrel.report;
}

/** Bytes to rows and back, and settings. Readers of workbooks and of XML need libraries that may be left out. */
module io.mivrel.files {
    requires de.siegmar.fastcsv;
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires org.snakeyaml.engine;
    requires java.xml;
    requires static com.ctc.wstx;
    requires static org.codehaus.stax2;
    requires static org.apache.poi.poi;
    requires static org.dhatim.fastexcel;

    exports io.mivrel.files;
    exports io.mivrel.files.settings;
    exports io.mivrel.files.bytes to
            io.mivrel,
            io.mivrel.survey;
    exports io.mivrel.files.forms;
    exports io.mivrel.files.keys to
            io.mivrel,
            io.mivrel.survey;
    exports io.mivrel.files.lines to
            io.mivrel.survey;
    exports io.mivrel.files.workbooks to
            io.mivrel,
            io.mivrel.survey;

    uses io.mivrel.delivery.RowForm;
}

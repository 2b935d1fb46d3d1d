/** Looks at unknown files: what they are, what proves it, what is still to be asked, and the layout that reads them. */
module io.mivrel.survey {
    requires static transitive org.jspecify;
    requires transitive io.mivrel.core;
    requires io.mivrel.files;

    exports io.mivrel.likeness;
    exports io.mivrel.survey;
    exports io.mivrel.survey.templates to
            io.mivrel;
    exports io.mivrel.survey.files to
            io.mivrel;
    exports io.mivrel.survey.settings to
            io.mivrel;
}

package io.mivrel.files.keys;

/** A run sheet: what is taken in, how it is coded, and where it goes. */
public final class RunKeys {
    static final String DAYS = "\\d{4}-\\d{2}-\\d{2} +to +\\d{4}-\\d{2}-\\d{2}";

    public static final Key RUN =
            Key.text("run", "the name of the run; {month} stands for its month").must();
    public static final Key BOOKS = Key.text("books", "the folder of the books").must();
    public static final Key FILES =
            Key.text("files", "a file, or several by a pattern with stars").must();
    public static final Key LAYOUT = Key.texts(
                    "layout", "the file of their layout; of several, each file is read by the one that reads it")
            .must();
    public static final Key INTAKE =
            Key.list("intake", "what is taken in", Block.of(FILES, LAYOUT)).must();
    public static final Key TABLE =
            Key.text("table", "the coding table, a CSV file").must();
    public static final Key UNCODED =
            Key.text("uncoded", "hold, or the code of a suspense account").must();
    public static final Key CODING =
            Key.block("coding", "how lines without an account get one", Block.of(TABLE, UNCODED));
    public static final Key DATES = Key.text(
                    "dates", "a first and a last day, such as 2027-03-01 to 2027-03-31, or month; left out: all days")
            .like("month|" + DAYS);
    public static final Key AS = Key.text("as", "the file of the delivery").must();
    public static final Key TO = Key.text("to", "the folder that it goes to").must();
    public static final Key EARLIER =
            Key.word("earlier", "documents that went out by another delivery before", "leave out", "deliver too");
    public static final Key DELIVER = Key.list("deliver", "what is delivered", Block.of(AS, TO, EARLIER));
    public static final Key WHEN_BLOCKED =
            Key.word("when blocked", "what a blocker stops", "hold documents", "hold everything");

    public static final Block ALL = Block.of(RUN, BOOKS, INTAKE, CODING, DATES, DELIVER, WHEN_BLOCKED);

    private RunKeys() {}
}

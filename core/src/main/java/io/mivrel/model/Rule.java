package io.mivrel.model;

import static io.mivrel.model.Severity.BLOCKER;
import static io.mivrel.model.Severity.CAUTION;
import static io.mivrel.model.Severity.NOTE;

import java.util.Locale;

/**
 * Every rule that Mivrel checks, declared once. The name ({@link #id()}) is permanent: a retired name is never used again.
 * The page {@code docs/findings.md} is generated from this table, and a test fails when a rule has no test.
 */
public enum Rule implements FindingRule {
    FILE_EMPTY(BLOCKER, "The file holds no rows.", "Download it again; the export was probably cut off."),
    FILE_NOT_TEXT(
            BLOCKER,
            "The file is not text in the encoding its layout names: it holds NUL characters.",
            "Export it as CSV; if it is text, name its encoding in the layout (UTF-16LE, UTF-16BE)."),
    FILE_KIND_DIFFERS(
            BLOCKER,
            "The content of the file is of another kind than its layout says; its name does not matter.",
            "Name the right kind in the layout, or take the right file."),
    FILE_ENDING_DIFFERS(
            NOTE,
            "The ending of the file's name belongs to another kind of file than its content; the content was believed.",
            "Nothing to do, unless the wrong file was taken."),
    FILE_DAMAGED(
            BLOCKER,
            "The file breaks the rules of its format, or ends before it should.",
            "Download it again; it was probably cut off or changed on the way."),
    FILE_BEYOND_CAP(
            BLOCKER,
            "A part of the file is larger than Mivrel accepts; an archive can be made to fill the memory.",
            "Divide the file at its source."),
    SHEET_MISSING(
            BLOCKER, "The workbook lacks the sheet that the layout names.", "Name one of the sheets that are there."),
    FORMULA_UNVALUED(
            BLOCKER,
            "A cell of a workbook holds a formula without its value.",
            "Open the workbook in a spreadsheet program and save it, so that the values are kept."),
    ENTRY_UNREADABLE(
            BLOCKER,
            "An entry of a statement lacks what its format requires, or is written otherwise.",
            "Compare it with the statement on paper; ask the bank for a sound file."),
    ENTRY_TWICE(
            BLOCKER,
            "Two entries of a statement have the same bank identifier, date and amount.",
            "Take one out, if the statement on paper has it once."),
    ENTRY_OUTSIDE_STATEMENT(
            BLOCKER,
            "An entry is dated outside the days of the statement that it stands in.",
            "Its date is wrong, or it belongs to another statement: download the file again, or ask the bank."),
    ENTRY_CURRENCY(
            BLOCKER,
            "An entry is in another currency than the statement it stands in.",
            "Ask the bank for a statement in the currency of the account."),
    ENTRY_CORRECTS(
            BLOCKER,
            "The entry says that it replaces or deletes an earlier one, which may have been delivered.",
            "Correct the earlier one by hand."),
    BATCH_DIFFERS(
            BLOCKER,
            "The single amounts of an entry that stands for many do not add up to it.",
            "Ask the bank for the details, or enter it by hand."),
    TEXT_BETWEEN_COLUMNS(
            BLOCKER,
            "In fixed-width text something stands at a place that belongs to no column, so a figure may be cut.",
            "Compare the places of the columns in the layout with the row."),
    LINE_CONTINUES_NOTHING(
            BLOCKER,
            "A line seems to go on from the row above, but no row is open there.",
            "Say under 'leave out' what it is, or compare 'wrapped' in the layout with the file."),
    LINE_CONTINUED_TWICE(
            BLOCKER,
            "A row that goes on in the lines below has two values in one column.",
            "Two rows are probably printed without what begins a row: compare 'wrapped' in the layout with the file."),
    PAGE_HEAD_UNENDED(
            BLOCKER,
            "A heading of a page in a print file does not end as the layout says.",
            "Compare 'page heads' in the layout with the file."),
    TAG_UNKNOWN(
            BLOCKER,
            "The cell that says what a row is holds a tag that the layout does not name.",
            "Name the tag in the layout, also when its rows are not wanted."),
    HEADING_WITHOUT_LINES(
            CAUTION, "A heading is not followed by any line.", "Check whether its lines are missing from the file."),
    LINKED_FILE_MISSING(
            BLOCKER, "A file that the layout links is not there.", "Put it into the folder of the file that needs it."),
    LINK_MISSING(
            BLOCKER,
            "A row names a key that the linked file does not have.",
            "Take the two files from the same day; correct the key."),
    LINK_UNUSED(CAUTION, "A row of a linked file is named by no row.", "Check whether rows are missing from the file."),
    LINK_TWICE(
            BLOCKER,
            "A linked file has two rows with the same key, so it is not known which one is meant.",
            "Name the right key in the layout, or take one of the rows out."),
    STATEMENT_ACCOUNT(
            BLOCKER,
            "The statement is of another bank account than the one in the books.",
            "Take the file with the layout of its own account, or correct the account number in chart.csv."),
    STATEMENT_ACCOUNT_UNCHECKED(
            NOTE,
            "The file says which bank account it is of, but the books do not know its number.",
            "Fill in 'number' for the account in chart.csv, so that a wrong file is noticed."),
    FILE_UNLIKE_ACCOUNT(
            CAUTION,
            "The amounts are as in the file of a card, and the layout names a bank account; or the other way round.",
            "Look whether the layout names the right account, and whether its 'signs' are right."),
    STATEMENT_CURRENCY(
            BLOCKER,
            "The statement is in another currency than the account in the books.",
            "Fill in 'currency' for the account in chart.csv, or take the right file."),
    CONTROL_TOTAL_DIFFERS(
            BLOCKER,
            "The number of entries or a sum that the file states is not what its entries come to.",
            "The file was probably cut off or changed: download it again."),
    STATED_MISSING(
            BLOCKER,
            "A balance, sum or count that the layout expects beside the rows is not stated, so it cannot prove them.",
            "Was the file cut off? Download it again; if such files state it no more, take it out of 'stated' in the layout."),
    SIGNS_NOT_SAID(
            BLOCKER,
            "A file with balances is read into a card or a loan, and the layout does not say whether they are what is owed.",
            "Where charges and what is owed are positive, say 'signs: all reversed' in the layout; where charges have a minus, say"
                    + " 'signs: balance reversed'; else 'signs: as written'."),
    ROW_SUM_DIFFERS(
            BLOCKER,
            "Columns that add up in every other row, such as gross, fee and net, do not in this one.",
            "One of the figures is wrong: compare the row with its source."),
    FILE_OF_ANOTHER(
            BLOCKER,
            "The file says that it is of another account, bank, currency or holder than the layout is made for.",
            "Take the file with the layout of its own account; if the layout reads both, name both under 'whose'."),
    FILE_OWNER_UNKNOWN(
            CAUTION,
            "The file does not say whose it is, where the files before it did.",
            "Look whether it is of the same account; if such files say it no more, take it out of 'whose' in the layout."),
    FILE_HOLDER_SPELLED(
            CAUTION,
            "The holder of the account is written otherwise than before, and the account number is the same.",
            "If the account is the same, name both spellings under 'whose' in the layout."),
    ROWS_NOT_PROVED(
            CAUTION,
            "No balance, stated sum or count proves these rows: a wrong figure among them would not be seen.",
            "Compare them with the statement."),
    STATEMENT_GAP(
            BLOCKER,
            "A statement does not begin with the balance that the one before it ended with.",
            "A statement between the two is missing, or one was changed: download it."),
    LINES_TAKEN_ONCE(
            NOTE,
            "Lines stand in two files of the same account; they were taken once.",
            "Nothing to do. The proof of each file covers all of its lines."),
    FILES_OVERLAP(
            BLOCKER,
            "Two files of one account cover the same days and have no line in common, so each line may be there twice.",
            "Take in one of the two; a text and a statement of the same days cannot be told apart line by line."),
    LINES_TAKEN_ONCE_BY_CONTENT(
            CAUTION,
            "Lines of two files of the same account are equal in date, amount and text, and nothing else tells them apart;"
                    + " they were taken once. Where the files may as well follow on from one another, both are held.",
            "Check whether the files overlap on these days. Of held lines keep both if they are two, else leave one of them"
                    + " out."),
    TITLES_MISSING(
            BLOCKER,
            "The file ends before the row that the layout names as the titles.",
            "Compare the first rows of the file with the layout's 'titles'."),
    COLUMN_MISSING(
            BLOCKER,
            "A column that the layout uses is not among the titles, so nothing can be read from the file.",
            "Correct the column in the layout, or ask the source for the old form."),
    COLUMN_TWICE(
            BLOCKER,
            "Two columns have the title that the layout uses, so it is not known which one is meant.",
            "Name the column by its place instead, such as 'column: 3'."),
    COLUMN_UNEXPECTED(
            CAUTION,
            "The file has a column that the layout neither uses nor names under 'unused'.",
            "The source may have changed its form: look at the column, then use it or list it under 'unused'."),
    BYTES_UNREADABLE(
            BLOCKER,
            "The row has bytes that are not valid in the layout's encoding.",
            "Name the right encoding in the layout, or correct the row."),
    ROW_NOT_TEXT(
            BLOCKER,
            "The row holds a NUL character.",
            "The file was damaged on the way: correct the row or export again."),
    ROW_TOO_LONG(
            BLOCKER,
            "The row is longer than 1,048,576 bytes and was not read.",
            "Check the separator and the line ends; a quote may be missing."),
    QUOTE_UNCLOSED(
            BLOCKER,
            "A cell begins with a quote that is never closed, or is closed in the middle of a text.",
            "Close the quote, or double the quotes that belong to the text. Only this physical line is affected."),
    QUOTE_INSIDE(
            CAUTION,
            "A quote stands inside a cell that does not begin with one; it was read as part of the text.",
            "Check whether the row was cut into cells at the right places."),
    CELLS_MISSING(
            BLOCKER,
            "The row has fewer cells than there are titles.",
            "Check whether the row was broken in two or a separator is missing."),
    CELLS_EXTRA(
            BLOCKER,
            "The row has more cells than there are titles.",
            "A text with the separator in it is probably not quoted."),
    VALUE_MISSING(BLOCKER, "A field that is required is blank.", "Fill it in, or give it a constant in the layout."),
    CODE_INVISIBLE(
            BLOCKER,
            "A number or code holds a character that cannot be seen, so that two that look the same are not one.",
            "Take the character out at the source."),
    CODE_FORMULA(
            CAUTION,
            "A number or code begins with a character that makes a spreadsheet run it as a formula.",
            "Do not open the delivered file in a spreadsheet, or change the code at the source."),
    VALUE_UNKNOWN(
            BLOCKER,
            "A word that the layout should translate is not in its list of values.",
            "Add the word under 'values', or correct the row."),
    DATE_UNREADABLE(BLOCKER, "The text is not a date in the pattern that the layout declares.", "Correct the date."),
    DATE_WEEKDAY(
            BLOCKER,
            "The name of the day does not belong to the date, so one of the two is wrong.",
            "Check day and month: they may be swapped."),
    DATE_YEAR_UNKNOWN(
            BLOCKER,
            "The date has no year, and the period that the file states does not tell which.",
            "Write the date with its year."),
    LAYOUT_NOT_FOR_DATES(
            BLOCKER,
            "The file has dates that its layout is not made for, so its form may have changed.",
            "Survey the file with '--like', then give these dates a layout of their own, or move 'for dates'."),
    DATE_OUT_OF_ORDER(
            BLOCKER,
            "The file is in the order of its dates, and this date does not belong where it stands.",
            "Correct the date; if it is right, give the row its place by date."),
    DATE_SWAPPED(
            CAUTION,
            "A file is in the order of its dates but for a few, and this date stands away from its neighbours; with day and"
                    + " month swapped it fits between them.",
            "Compare the date with its source."),
    DATE_OUTSIDE_PERIODS(
            BLOCKER, "The date lies in no period of the books.", "Correct the date, or add the period to periods.csv."),
    PERIOD_CLOSED(
            BLOCKER,
            "The date lies in a period that is closed to posting.",
            "Open the period, or date the document into an open one."),
    AMOUNT_UNREADABLE(
            BLOCKER,
            "The text is not an amount in the form that the layout declares.",
            "Correct the amount, or declare the decimal and thousands marks in the layout."),
    AMOUNT_TOO_PRECISE(
            BLOCKER,
            "The amount has more decimals than the currency, and Mivrel never rounds an amount it is given.",
            "Correct the amount to the currency's decimals."),
    AMOUNT_MISSING(
            BLOCKER, "The row has no amount on either side.", "Fill in the amount, or take the row out of the file."),
    AMOUNT_SIDE_UNKNOWN(
            BLOCKER,
            "The amount has no sign of its own, and no balance before it tells which way it went.",
            "Write it with its sign; the statement before shows the balance that it began with."),
    AMOUNT_IN_OTHER_CURRENCY(
            BLOCKER,
            "A row names another currency than that of the books (or of its account), and no home amount stands beside it.",
            "Give the home amount as the amount and this one as the foreign amount; or, where the amounts are home money whatever"
                    + " currency is named, say 'allow: amounts are home money' in the layout."),
    AMOUNT_ON_BOTH_SIDES(
            BLOCKER,
            "Two columns that exclude each other are both filled.",
            "Leave the amount on the side where it belongs."),
    AMOUNT_ZERO(NOTE, "The amount is zero.", "Check whether the line is wanted."),
    AMOUNT_NEGATIVE_ON_SIDE(
            NOTE,
            "A negative amount in a debit, credit, in or out column was taken to the other side.",
            "Nothing to do if the source writes reversals so."),
    AMOUNT_TOO_LARGE(
            BLOCKER,
            "The amount is too large to be calculated exactly.",
            "Two figures have probably run together: look at the row."),
    BALANCE_BROKEN(
            BLOCKER,
            "The running balance does not follow from the balance before and the amount: a line is missing or doubled, or"
                    + " an amount or a sign is wrong.",
            "Compare the rows above and below with the statement."),
    BALANCE_CARRIED(
            BLOCKER,
            "A balance that is carried over between the rows is not the one that the rows lead to.",
            "Is a row missing, or read wrongly, since the last balance that agrees? Compare it with the file."),
    TOTAL_WITHIN_DIFFERS(
            BLOCKER,
            "A total that is printed among the rows is not the sum of the rows above it.",
            "Is a row missing or read wrongly above it? Compare the rows with the file."),
    BALANCE_CLOSING(
            BLOCKER,
            "The closing balance that the file states is not the one its lines lead to.",
            "The file was probably cut off: download it again."),
    DATA_END_MISSING(
            CAUTION,
            "The row that ends the data by the layout is not there, so the file may have been cut off between two rows.",
            "Download the file again; if such files have no such row, take 'until' out of the layout."),
    ROW_CUT_OFF(
            BLOCKER,
            "The last row has no line end, and its last figure is shorter than those above: the file was probably cut off in"
                    + " it.",
            "Download the file again."),
    TEXT_MIXED_ENCODING(
            CAUTION,
            "A text looks like UTF-8 that was read as another encoding, so two encodings are mixed in the file.",
            "Compare the text with its source; what it is used for is seldom harmed."),
    ROWS_BELOW_DATA(
            CAUTION,
            "Below the row that ends the data stand rows with dates.",
            "Check whether the layout's 'until' stops too early; these rows were left out."),
    REFERENCE_RETURNS(
            NOTE,
            "Lines with this reference stand apart in the file; they were brought together in one document.",
            "Nothing to do, unless the number was used twice."),
    DOCUMENT_REPEATED(
            BLOCKER,
            "The document seems to be one that the run has already, or that was delivered before: the same number in two"
                    + " files, the same party, date and lines, or the same figures under a number written differently.",
            "Take one of the two out; if both are true, make number or text of one of them differ."),
    LINES_REPEATED(
            BLOCKER,
            "Every line of the document is there twice or more often: it was probably taken in twice under one number.",
            "Take out the rows that came a second time; if both are true, give one a number of its own."),
    DOCUMENT_ALIKE(
            CAUTION,
            "Another document has the same figures under another number, on the same day or some days apart.",
            "Look whether it is one document, entered twice."),
    LINE_ALIKE(
            CAUTION,
            "Two movements of a day are equal in amount and all texts, and no running balance tells whether both are true.",
            "Look whether one movement is in the file twice."),
    DOCUMENT_TOO_LARGE(
            BLOCKER,
            "More than 50,000 lines have the same reference.",
            "The reference is probably taken from the wrong column; else divide the document at its source."),
    HEADING_DIFFERS(
            BLOCKER,
            "Lines of one document disagree about a fact that belongs to the whole document.",
            "Correct the line, or its reference if it belongs to another document."),
    ACCOUNT_UNKNOWN(
            BLOCKER, "The account code is not in the chart.", "Correct the code, or add the account to chart.csv."),
    ACCOUNT_CLOSED(BLOCKER, "The account is closed to posting.", "Use the account that took its place."),
    ACCOUNT_RESERVED(
            BLOCKER,
            "The account is a control account, written by the receiver from its own documents.",
            "Bring in the invoice or bill itself, or use a clearing account."),
    ACCOUNT_UNSUITABLE(
            BLOCKER,
            "The account is of a kind that this line cannot use, such as an invoice line on a bank account.",
            "Use an income or expense account."),
    TAX_CODE_UNKNOWN(BLOCKER, "The tax code is not in the books.", "Correct the code, or add it to tax-codes.csv."),
    PARTY_UNKNOWN(
            BLOCKER,
            "The customer or supplier is not in the books.",
            "Correct the code, or add the party to parties.csv."),
    PARTY_MISSING(
            BLOCKER,
            "A line on the control account of customers or suppliers names none of them, so that the account would no longer be"
                    + " the sum of its parties.",
            "Give the line its customer or supplier, or bring in the document itself; for an old ledger without parties, say"
                    + " 'allow: control lines without party' in the layout."),
    PARTY_UNSUITABLE(
            BLOCKER,
            "A sales document names a supplier, or a purchase document a customer.",
            "Correct the party or the kind of the document."),
    JOURNAL_UNBALANCED(
            BLOCKER,
            "Debits and credits of the journal are not equal.",
            "See the likely cause with the finding, and compare with the voucher."),
    FOREIGN_AMOUNT_DIFFERS(
            BLOCKER,
            "A foreign amount has another sign than the home amount beside it, or another figure in the home currency.",
            "Correct the sign, the amount or the currency."),
    CURRENCY_UNKNOWN(
            BLOCKER,
            "A row names a currency that ISO 4217 does not have, or gives a foreign amount without its currency.",
            "Correct the currency code, such as EUR."),
    NET_DIFFERS(
            BLOCKER,
            "The net amount of a line is not its quantity times its price.",
            "Correct whichever of the three is wrong."),
    TAX_DIFFERS(
            BLOCKER,
            "The tax of a line differs from its tax code's rate by more than one minor unit.",
            "Correct the tax code or the tax."),
    TOTAL_DIFFERS(
            BLOCKER,
            "The total that the document states is not the sum of its lines.",
            "A line is probably missing or doubled: compare with the document."),
    NOTHING_CLEAR(
            CAUTION,
            "Rows were read, and none of them is a document: all were left out.",
            "Compare the wanted dates, the filters and the end of the data in the layout with the file."),
    TWO_ENTRIES(
            BLOCKER,
            "Two parts of a journal stand far apart in the file, and each balances by itself: two entries under one number.",
            "Give one of them a number of its own, or name the columns that tell them apart as 'series' in the layout; where it is"
                    + " one entry all the same, keep it."),
    TRANSFER_BOOKED(
            BLOCKER,
            "A line is coded to another bank or card account of the books, and a line of that account with the opposite amount, within"
                    + " five days, went out or goes out too: probably the other end of one transfer.",
            "Give the books an account of the use 'transfer', which both ends then go through; or leave one end out; where these"
                    + " are two transfers, keep the line."),
    TRANSFER_OPEN(
            CAUTION,
            "One end of a transfer between own accounts goes through the account for transfers, and no line of the other account"
                    + " answers it. Where the statement of that account was delivered without one, the line is held.",
            "Take in the statement of the other account; if it is there, the coding or one of the amounts is wrong."),
    LINE_AMENDED(
            BLOCKER,
            "The day of this line was delivered before, and lines of that day that were delivered are not in this file: the"
                    + " bank has changed the statement, or texts or balances are written otherwise.",
            "Compare the day with what was delivered; enter the difference by hand, and leave these days out."),
    DOCUMENT_SIGN(
            BLOCKER,
            "An invoice, bill or credit comes to less than nil: its sign contradicts its kind, or the way in which the layout"
                    + " says that credits are written.",
            "Correct the kind, or say in the layout how credits are written: 'credits: negative' or 'credits: positive'."),
    LINE_NEGATIVE(
            CAUTION,
            "A line takes from its document, and the document states no total that would prove it.",
            "Compare with the document."),
    DUE_BEFORE_DATE(CAUTION, "The due date lies before the date of the document.", "Check both dates."),
    UNCODED(
            BLOCKER,
            "No entry of the coding table decides the account of this bank line.",
            "Add an entry to the coding table."),
    UNCODED_TO_SUSPENSE(
            CAUTION,
            "No entry of the coding table decides this bank line; it goes to the suspense account.",
            "Add an entry to the coding table, or clear the suspense account by hand."),
    CODING_ENTRY_UNUSED(
            NOTE,
            "An entry of the coding table decided no line; told by a check, not by a run.",
            "Check whether its words are still right."),
    CODE_TOO_LONG(
            BLOCKER,
            "A code or reference is longer than the receiver takes; cutting it could make two the same.",
            "Shorten it in the source."),
    CODE_REFUSED(
            BLOCKER,
            "A code or reference holds a character that the receiver refuses; taking it out could make two the same.",
            "Correct it in the source."),
    TEXT_CUT(CAUTION, "A text was longer than the receiver takes and was cut.", "Shorten it if what is lost matters."),
    TEXT_REFUSED_CHARACTERS(
            CAUTION,
            "A text held characters that the receiver refuses; they were left out.",
            "Nothing to do, unless the text now misleads."),
    TEXT_FORMULA(
            CAUTION,
            "A text begins like a formula and would be run if the file is opened in a spreadsheet.",
            "Change the text, or never open the delivered file in a spreadsheet."),
    TEXT_NOT_ENCODABLE(
            BLOCKER,
            "A text holds a character that the encoding of the delivery cannot write.",
            "Deliver as UTF-8, or change the text."),
    CELL_MISSING(
            BLOCKER,
            "The receiver requires a column, and the document has nothing for it.",
            "Fill it in at the source, or take 'required' off the delivery's column."),
    WORD_UNKNOWN(
            BLOCKER,
            "A column is written in the receiver's words, and there is none for this value.",
            "Add it under 'values' of the delivery's column, or correct the source."),
    CHANGED_SINCE_DELIVERED(
            BLOCKER,
            "A document with this number was delivered before, with other figures.",
            "Post the difference under a number of its own, or withdraw the first one at the receiver."),
    NUMBER_RETURNS(
            CAUTION,
            "A document with this number was delivered before with other figures, dated more than half a year apart; numbers"
                    + " seem to have started again, as they may each year.",
            "Check whether they have; otherwise correct the date."),
    DAYS_DELIVERED_BEFORE(
            BLOCKER,
            "The day of a bank line was delivered before from a file in another form, and no line there has its date and"
                    + " amount, so it may be one of them.",
            "Take the days from one form only, or enter the line by hand."),
    DELIVERED_IN_ANOTHER_FORM(
            CAUTION,
            "Bank lines were left out because lines with their date and amount were delivered before from a file in another"
                    + " form.",
            "Check whether the two files are of the same statement."),
    CODED_OTHERWISE(
            CAUTION,
            "A line that was delivered before is coded otherwise now: the coding table, or what a person chose, has changed since.",
            "What went out stays as it was; correct it at the receiver, or let it go out again with 'mivrel undo'."),
    DELIVERED_OTHERWISE(
            NOTE,
            "Documents went out by another delivery before, and not by this one; they were left out.",
            "Nothing to do, unless this delivery should have them too: then say so where it is named: earlier: deliver too."),
    DELIVERED_BEFORE(
            NOTE,
            "Documents of this run were delivered by an earlier run of the company; they were left out.",
            "Nothing to do."),
    KEPT_BY_DECISION(
            CAUTION,
            "A person has said that something which would be held is right all the same.",
            "Nothing to do; who said it, when and why stands in the evidence."),
    CORRECTION_UNUSED(
            NOTE,
            "A corrected row was handed back, and its original is not in the source any more.",
            "Nothing to do if it was corrected at the source; else look whether the right file was taken."),
    LEDGER_LACKS(
            BLOCKER,
            "The ledger that the document is to be posted to lacks what it needs: an open account or period, a party, a tax"
                    + " code.",
            "Add or open it there, or change the document at the source."),
    LEDGER_LIMIT(
            BLOCKER,
            "The document is larger than the ledger takes: a text or reference is too long, or there are too many lines.",
            "Shorten or divide it at the source."),
    LEDGER_REFUSED(
            BLOCKER,
            "The ledger refused the document when it was posted.",
            "See the reason; correct the held row, or the books there, and post again: only what was refused is sent."),
    LEDGER_DIFFERS(
            BLOCKER,
            "The ledger has the document already, with other content, and was told to add only.",
            "Compare the two. Post with '--mode add-or-replace' to replace the one there, or correct the source."),
    DELIVERED_IN_FILE(
            CAUTION,
            "Documents that are posted to a ledger also went out in import files.",
            "Do not import those files into the same books.");

    private final Severity severity;
    private final String meaning;
    private final String remedy;

    Rule(Severity severity, String meaning, String remedy) {
        this.severity = severity;
        this.meaning = meaning;
        this.remedy = remedy;
    }

    @Override
    public String id() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    @Override
    public Severity severity() {
        return severity;
    }

    @Override
    public String meaning() {
        return meaning;
    }

    @Override
    public String remedy() {
        return remedy;
    }
}

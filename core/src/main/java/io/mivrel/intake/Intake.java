package io.mivrel.intake;

import io.mivrel.books.Account;
import io.mivrel.books.AccountUse;
import io.mivrel.layout.AmountRule;
import io.mivrel.layout.DateWindow;
import io.mivrel.layout.FieldSource;
import io.mivrel.layout.Layout;
import io.mivrel.layout.Signs;
import io.mivrel.model.Field;
import io.mivrel.model.FieldType;
import io.mivrel.model.Finding;
import io.mivrel.model.Kind;
import io.mivrel.model.Origin;
import io.mivrel.model.Overrides;
import io.mivrel.model.RecordBlock;
import io.mivrel.model.Rule;
import io.mivrel.model.Severity;
import io.mivrel.model.SourceFile;
import io.mivrel.model.SourceRecord;
import io.mivrel.money.Money;
import io.mivrel.rows.FileKind;
import io.mivrel.rows.LeftOut;
import io.mivrel.rows.Row;
import io.mivrel.rows.RowFault;
import io.mivrel.rows.RowSource;
import io.mivrel.rows.UnreadableFileException;
import io.mivrel.text.AmountFormat;
import io.mivrel.text.Hash64;
import io.mivrel.text.LongSet;
import java.io.IOException;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.NavigableMap;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;

/**
 * Reads one file: binds its layout to the titles, then makes each row a record, with its findings, or leaves it out by
 * cause. Every row is counted, so that rows = records + left out + unreadable. For one thread.
 */
public final class Intake {
    /** With fewer rows, amounts of one sign say nothing about the account. */
    private static final long ROWS_FOR_DOUBT = 10;

    private final Layout layout;
    private final SourceFile file;
    private final Kind kind;
    private final RowSource source;
    private final AmountFormat numbers;
    private long wantedFrom = Long.MIN_VALUE;
    private long wantedTo = Long.MAX_VALUE;
    private boolean holdAll;
    private List<DateOrder.Odd> oddDates = List.of();
    private final NavigableMap<Long, BalanceFault> culprits = new TreeMap<>();
    private final DateOrder order;
    private final Field[] dimensions;
    private final LongSet identifiers = new LongSet();
    private final AmountRule rule;
    private final RowProblems problems;
    private Overrides overrides = Overrides.NONE;
    private final IntakeTally tally;
    private @Nullable RunningBalance balance;
    /** {@code null} when the balances tell the lines apart, or the format does. */
    private final @Nullable EqualLines equalLines;

    private final StatementFollower statements;
    private final Field dateField;
    private final AmountResolver amounts;
    private final boolean statementsRead;
    private final StatedFigures stated;
    private final OwnerCheck owner;
    private boolean hasBooks;
    private @Nullable Account account;
    private final TotalsWithin totals;
    /** A column of currencies that the layout does not use; -1 for none. */
    private int currencyLeft = -1;

    /** Both {@code null} until the titles are known. */
    private CellReader @Nullable [] readers;

    private @Nullable RowScreen screen;
    private List<String> titlesAbove = List.of();
    private boolean unreadable;
    private boolean below;
    private long datesBelow;
    private long firstRowBelow;

    /**
     * Reads all dates, and compares nothing with the books.
     *
     * @param layout how the file is laid out
     * @param file what its records have in common: its name, its account, its currency
     * @param source its rows; closed by the caller
     */
    public Intake(Layout layout, SourceFile file, RowSource source) {
        this.layout = layout;
        this.file = file;
        this.source = source;
        this.kind = layout.gives();
        this.numbers = layout.numbers().withDecimals(Money.decimals(file.currency()));
        this.rule = new AmountRule(kind);
        this.problems = new RowProblems(file.name());
        this.tally = new IntakeTally(file.name(), file.currency());
        boolean balances = kind.balance() != null && layout.fields().containsKey(kind.balance());
        this.statements = new StatementFollower(file.name(), file.currency());
        this.dateField = kind.date();
        this.dimensions =
                kind.dimensions().stream().filter(layout.fields()::containsKey).toArray(Field[]::new);
        this.order = new DateOrder(layout.format().order());
        this.amounts = new AmountResolver(layout, rule, file.currency(), problems);
        this.stated = new StatedFigures(layout.stated(), numbers, file);
        this.statementsRead = layout.format().kind().isStatement();
        this.balance = kind.isOfAccount() && !statementsRead
                ? new RunningBalance(layout, file, numbers, stated, problems)
                : null;
        this.owner = new OwnerCheck(layout, file);
        this.totals = new TotalsWithin(file.currency(), numbers);
        this.equalLines = !kind.isOfAccount() || balances || statementsRead
                ? null
                : new EqualLines(
                        dateField, rule.amount(), List.copyOf(layout.fields().keySet()));
    }

    /**
     * Compares what statements say of their account and currency with the books.
     *
     * @param known the account of the layout; {@code null} when the books do not know it
     */
    public Intake against(@Nullable Account known) {
        statements.compareWith(known);
        account = known;
        hasBooks = true;
        return this;
    }

    /** Asks of each finding whether a person has overridden it. */
    public Intake overrides(Overrides said) {
        // Where the balance gives the amounts their sign, a broken one leaves that in doubt.
        overrides = layout.signs() != Signs.BY_BALANCE
                ? said
                : finding -> finding.rule() == Rule.BALANCE_BROKEN ? finding : said.judge(finding);
        problems.overrides(overrides);
        return this;
    }

    /** Leaves out rows with other dates. */
    public Intake dates(DateWindow wanted) {
        wantedFrom = wanted.from().toEpochDay();
        wantedTo = wanted.to().toEpochDay();
        return this;
    }

    /** Holds each record, because an earlier pass found a blocker for the file as a whole. */
    public Intake holdAll() {
        holdAll = true;
        return this;
    }

    /** Holds the rows that an earlier pass found to be wrong when it had read others behind them. */
    public Intake holdFoundLate(IntakeTally earlier) {
        oddDates = earlier.oddDates();
        earlier.culprits.forEach(culprit -> culprits.put(culprit.first(), culprit));
        return this;
    }

    /** A new block for {@link #fill}. */
    public IntakeBlock newBlock() {
        return new IntakeBlock(new RecordBlock(kind.table(), file, IntakeBlock.SIZE));
    }

    /** What was counted so far; final once {@link #fill} answered false. */
    public IntakeTally tally() {
        return tally;
    }

    /** Adds records and findings to a block until it is full; answers false when the file has ended. */
    public boolean fill(IntakeBlock block) throws IOException {
        try {
            return fillUp(block);
        } catch (UnreadableFileException e) {
            unreadable = true;
            note(block, e.rule(), e.row(), "", String.valueOf(e.getMessage()), e.suggestion());
            return false;
        }
    }

    private boolean fillUp(IntakeBlock block) throws IOException {
        while (!block.records().isFull()) {
            Row row = source.next();
            if (row == null) {
                finish(block);
                return false;
            }
            if (row.hasRemarks()) {
                if (row.ended() != null) {
                    statements.end(row.ended()).forEach(finding -> note(block, finding));
                    continue;
                }
                if (row.fault() == RowFault.NOT_TEXT) {
                    unreadable = true;
                    note(block, RowFault.NOT_TEXT.rule(), 0, "", RowFault.NOT_TEXT.reason(), "export it as CSV text");
                    return false;
                }
                tally.again += row.isAgain() ? 1 : 0;
            }
            tally.rows++;
            take(row, block);
        }
        return true;
    }

    private void take(Row row, IntakeBlock block) {
        if (readers != null && !row.hasRemarks()) {
            data(row, block);
        } else if (unreadable) {
            tally.unreadable++;
        } else if (row.aside() != null) {
            tally.leaveOut(row.aside());
            beside(row);
        } else if (readers == null && source.titles() == null && layout.format().titlesRow() > 0) {
            aboveData(row, block);
        } else {
            // A broken row does not tell how many columns there are.
            if (readers == null && row.fault() == null) {
                List<String> known = source.titles();
                if (row.number() < layout.format().dataRow() && !TitleBinding.isHandedBack(known)) {
                    beside(row);
                    tally.leaveOut(LeftOut.ABOVE_TITLES);
                    return;
                }
                int width = known == null ? row.size() : known.size();
                bind(new TitleBinding(layout, known, file.name(), row.number(), width), block);
                if (unreadable) {
                    tally.unreadable++;
                    return;
                }
            }
            data(row, block);
        }
    }

    private void beside(Row row) {
        stated.beside(row);
        owner.beside(row);
    }

    private void aboveData(Row row, IntakeBlock block) {
        int titlesRow = layout.format().titlesRow();
        if (row.number() <= titlesRow - layout.format().titleRows()) {
            beside(row);
            tally.leaveOut(LeftOut.ABOVE_TITLES);
        } else if (row.number() < titlesRow && row.fault() == null) {
            titlesAbove = row.titlesBelow(titlesAbove);
            tally.leaveOut(LeftOut.TITLES);
        } else if (row.number() > titlesRow || row.fault() != null || row.isBlank()) {
            unreadable = true;
            tally.unreadable++;
            String why = row.number() == titlesRow && row.fault() == null
                    ? "row " + titlesRow + " is blank"
                    : "row " + titlesRow + " could not be read";
            note(block, Rule.TITLES_MISSING, row.number(), "", why, "compare the layout's 'titles' with the file");
        } else {
            List<String> found = row.titlesBelow(titlesAbove);
            bind(new TitleBinding(layout, found, file.name(), row.number(), found.size()), block);
            if (unreadable) {
                tally.unreadable++;
            } else {
                tally.leaveOut(LeftOut.TITLES);
            }
        }
    }

    private RowScreen screen() {
        return Objects.requireNonNull(screen);
    }

    private void bind(TitleBinding binding, IntakeBlock block) {
        block.findings().addAll(binding.findings);
        if (!binding.fits()) {
            unreadable = true;
            return;
        }
        if (binding.isHandedBack()) {
            // Rows that were held and corrected are no whole statement, so their balances prove nothing.
            balance = null;
            tally.handedBack = true;
        }
        currencyLeft = binding.currencyLeft;
        List<CellReader> compiled = new ArrayList<>();
        for (Map.Entry<Field, FieldSource> entry : layout.fields().entrySet()) {
            Field field = entry.getKey();
            FieldSource from = entry.getValue();
            int[] places = binding.places.get(field);
            boolean isoToo = layout.format().kind() == FileKind.WORKBOOK;
            compiled.add(CellReader.of(
                    field, from, places, String.join(" + ", from.columns()), numbers, isoToo, layout.terms()));
            if (balance != null && places != null && places.length > 0) {
                balance.standsIn(field, places[0]);
            }
            boolean summed = field == rule.amount() || field == kind.plusSide() || field == kind.minusSide();
            if (summed && !layout.stated().totals().isEmpty() && places != null && places.length == 1) {
                totals.follow(field, places[0]);
            }
        }
        // An amount in a currency of its own is read once that is known.
        compiled.sort(Comparator.comparing(reader -> reader.field.currency() != null));
        readers = compiled.toArray(CellReader[]::new);
        screen = new RowScreen(layout, binding, numbers, problems);
    }

    private void data(Row row, IntakeBlock block) {
        if (below) {
            belowData(row, block);
            return;
        }
        problems.begin(row.number());
        boolean mayState = row.fault() == null || row.fault() == RowFault.CELLS_MISSING;
        if (mayState && screen().isStated(row)) {
            tally.leaveOut(LeftOut.BY_LAYOUT);
            beside(row);
            compareWithin(row, block);
            return;
        }
        if (row.hasRemarks() && row.fault() != null) {
            faulty(row, row.fault(), block);
            return;
        }
        RowScreen screen = screen();
        if (screen.mayBeBlank(row) && row.isBlank()) {
            tally.leaveOut(LeftOut.BLANK);
            return;
        }
        if (screen.endsData(row)) {
            below = true;
            firstRowBelow = row.number();
            belowData(row, block);
            if (balance != null) {
                balance.readClosing(row);
            }
            return;
        }
        if (screen.isFilteredOut(row)) {
            tally.leaveOut(LeftOut.BY_LAYOUT);
            compareWithin(row, block);
            return;
        }
        if (!screen.fitsWidth(row)) {
            emitUnread(row, block);
            return;
        }
        LeftOut aside = screen.aside(row);
        if (aside != null) {
            tally.leaveOut(aside);
            return;
        }
        screen.look(row);
        read(row, block);
    }

    private void faulty(Row row, RowFault fault, IntakeBlock block) {
        problems.add(
                fault.rule(),
                "",
                row.faultValue(),
                "the row " + fault.reason(),
                fault.rule().remedy());
        statements.entry(SourceRecord.ABSENT, SourceRecord.ABSENT, row.number());
        if (fault.rule() == Rule.LINK_MISSING) {
            readWithoutLink(row, block);
        } else {
            emitUnread(row, block);
        }
    }

    // Its own cells say which document it belongs to, which is held as one; what the link would add is not missed
    // again.
    private void readWithoutLink(Row row, IntakeBlock block) {
        RecordBlock record = block.records();
        record.begin(row.number());
        List<Finding> known = problems.known();
        for (CellReader reader : Objects.requireNonNull(readers)) {
            reader.read(row, record, problems);
        }
        amounts.resolve(record);
        problems.only(known);
        emit(block);
    }

    private void read(Row row, IntakeBlock block) {
        RecordBlock record = block.records();
        record.begin(row.number());
        for (CellReader reader : Objects.requireNonNull(readers)) {
            reader.read(row, record, problems);
        }
        totals.add(record);
        amounts.resolve(record);
        if (currencyLeft >= 0 && currencyLeft < row.size()) {
            amounts.checkLeft(record, row.trimmed(currencyLeft), currencyLeft + 1);
        }
        if (layout.signs() == Signs.BY_BALANCE && balance != null) {
            balance.sign(record);
        }
        BalanceFault culprit = culprits.isEmpty() ? null : culprit(row.number());
        // A row that is there twice is no part of what the file states.
        boolean isOneTooMany = culprit != null && culprit.rule() == Rule.BALANCE_CLOSING;
        if (!isOneTooMany) {
            stated.add(record.number(rule.amount()));
        }
        if (layout.credits().turned()) {
            turnCredit(record);
        }
        if (statementsRead) {
            followStatement(record, row.number());
        }
        if (equalLines != null) {
            equalLines.look(record, row.number(), problems);
        }
        if (balance != null) {
            balance.look(record);
        }
        if (culprit != null) {
            problems.add(culprit.rule(), culprit.field(), culprit.value(), culprit.reason(), culprit.suggestion());
        }
        boolean outside = isOutside(record.number(dateField), row.number());
        if (!isOneTooMany) {
            cover(record, row.number(), !outside && !holdAll && !problems.isBlocked());
        }
        if (outside) {
            tally.leaveOut(LeftOut.OUTSIDE_DATES);
        } else {
            emit(block);
        }
    }

    private @Nullable BalanceFault culprit(long row) {
        Map.Entry<Long, BalanceFault> before = culprits.floorEntry(row);
        return before == null || row > before.getValue().last() ? null : before.getValue();
    }

    private void followStatement(RecordBlock record, long row) {
        long amount = record.number(rule.amount());
        statements.entry(
                amount == SourceRecord.ABSENT || layout.signs() == Signs.AS_WRITTEN ? amount : -amount,
                record.number(dateField),
                row);
        identifier(record);
    }

    // Follows the days; true for a row of a day that the run does not want, unless its date is in doubt.
    private boolean isOutside(long day, long row) {
        if (day != SourceRecord.ABSENT) {
            order.next(row, day);
            tally.coveredFrom = Math.min(tally.coveredFrom, day);
            tally.coveredTo = Math.max(tally.coveredTo, day);
        }
        boolean odd = !oddDates.isEmpty() && isOdd(row);
        return !odd && day != SourceRecord.ABSENT && (day < wantedFrom || day > wantedTo);
    }

    // A row that is held or left out all the same needs no proof.
    private void cover(RecordBlock record, long row, boolean counts) {
        if (balance != null) {
            balance.follow(record, row, counts);
        } else if (statementsRead) {
            statements.sound(row, record.number(rule.amount()), counts);
        } else if (counts && kind.isOfAccount()) {
            tally.unproved = tally.unproved.and(row, record.number(rule.amount()));
        }
    }

    // A bank gives each entry an identifier of its own; with the same date and amount, the entry is there twice.
    private void identifier(RecordBlock record) {
        Field field = kind.bankIdentifier();
        String id = field == null ? null : record.text(field);
        if (id == null) {
            return;
        }
        long hash = Hash64.add(Hash64.add(record.number(dateField), record.number(rule.amount())), id);
        if (!identifiers.add(hash)) {
            problems.add(
                    Rule.ENTRY_TWICE,
                    Objects.requireNonNull(field).name(),
                    id,
                    "an entry before it in this file has the same identifier, date and amount",
                    "is the entry there twice? Take one out");
        }
    }

    private boolean isOdd(long row) {
        for (DateOrder.Odd odd : oddDates) {
            if (odd.covers(row)) {
                problems.add(Rule.DATE_OUT_OF_ORDER, dateField.name(), odd.date(), odd.reason(), odd.suggestion());
                return true;
            }
        }
        return false;
    }

    // What it moved the balance by is not known, so the row behind it cannot be judged and is not to be blamed.
    private void emitUnread(Row row, IntakeBlock block) {
        if (balance != null) {
            balance.unread(row.number());
        }
        stated.add(SourceRecord.ABSENT);
        totals.unread();
        block.records().begin(row.number());
        emit(block);
    }

    private void emit(IntakeBlock block) {
        RecordBlock record = block.records();
        tally.records++;
        for (Field dimension : dimensions) {
            tally.count(dimension, record);
        }
        long day = record.number(dateField);
        if (day != SourceRecord.ABSENT) {
            tally.firstDay = Math.min(tally.firstDay, day);
            tally.lastDay = Math.max(tally.lastDay, day);
        }
        long amount = record.number(rule.amount());
        if (amount != SourceRecord.ABSENT) {
            long signed = kind.signedAmount(record, record.size());
            tally.totals.add(signed, record.currency());
            tally.comesIn += signed > 0 ? 1 : 0;
        }
        record.end(!holdAll && !problems.isBlocked());
        problems.moveTo(block.findings());
    }

    // A balance carried over, or a total of the rows above, is no row of its own but must agree with them.
    private void compareWithin(Row row, IntakeBlock block) {
        long carried = stated.carried(row);
        if (carried != SourceRecord.ABSENT && balance != null) {
            String differs = balance.carried(carried);
            if (differs != null) {
                String value = Money.show(carried, file.currency());
                note(block, Rule.BALANCE_CARRIED, row.number(), value, differs, Rule.BALANCE_CARRIED.remedy());
            }
        }
        if (stated.isTotal(row)) {
            String differs = totals.compare(row);
            if (differs != null) {
                String rule = Rule.TOTAL_WITHIN_DIFFERS.remedy();
                note(block, Rule.TOTAL_WITHIN_DIFFERS, row.number(), "", differs, rule);
            }
        }
    }

    private void belowData(Row row, IntakeBlock block) {
        beside(row);
        compareWithin(row, block);
        tally.leaveOut(LeftOut.BELOW_DATA);
        if (screen().hasDate(row)) {
            datesBelow++;
        }
    }

    private void turnCredit(RecordBlock record) {
        boolean turned = false;
        for (Field field : kind.creditFigures(record)) {
            if (field.type() == FieldType.AMOUNT && record.number(field) != SourceRecord.ABSENT) {
                record.put(field, -record.number(field));
            }
            BigDecimal decimal = field.type() == FieldType.DECIMAL ? record.decimal(field) : null;
            if (decimal != null && decimal.signum() < 0 && !turned) {
                record.put(field, decimal.negate());
                turned = true;
            }
        }
    }

    private void finish(IntakeBlock block) {
        source.remarks().forEach(finding -> note(block, finding.ofFile(file.name())));
        statements.finish().forEach(finding -> note(block, finding));
        // Other lists than those of an account need not be in order; what would be left out must be beyond doubt.
        tally.oddDates(order.finish(wantedFrom, wantedTo, !kind.isOfAccount()));
        if (!kind.isOfAccount()) {
            order.swapped()
                    .forEach(odd ->
                            note(block, Rule.DATE_SWAPPED, odd.first(), odd.date(), odd.reason(), odd.suggestion()));
        }
        tally.proof = statements.proof().orElse(null);
        tally.spans.addAll(statements.spans());
        if (tally.rows == 0 && tally.spans.isEmpty()) {
            note(block, Rule.FILE_EMPTY, 0, "", "holds nothing", "download it again");
        } else if (readers == null
                && !unreadable
                && source.titles() == null
                && layout.format().titlesRow() > 0) {
            note(
                    block,
                    Rule.TITLES_MISSING,
                    0,
                    "",
                    "ends before row " + layout.format().titlesRow() + ", where the layout expects the titles",
                    "compare the layout's 'titles' with the file");
        }
        boolean ended = tally.leftOut.containsKey(LeftOut.BELOW_DATA);
        if (!ended && readers != null && !layout.format().until().isEmpty() && !tally.handedBack) {
            note(
                    block,
                    Rule.DATA_END_MISSING,
                    0,
                    layout.format().until(),
                    "the file ends without the row that begins so",
                    "is it cut off? Download it again");
        }
        if (datesBelow > 0) {
            note(
                    block,
                    Rule.ROWS_BELOW_DATA,
                    firstRowBelow,
                    layout.format().until(),
                    datesBelow + (datesBelow == 1 ? " row with a date stands" : " rows with dates stand")
                            + " below this row and " + (datesBelow == 1 ? "was" : "were") + " left out",
                    "does 'until' stop too early?");
        }
        compareWithTerms(block);
        compareWithFile(block);
        tellUnproved(block);
        Field total = kind.statedTotal();
        boolean stated = total != null && layout.fields().containsKey(total);
        tally.withoutTotals = tally.records > 0 && !kind.isJournal() && !kind.isOfAccount() && !stated;
    }

    // What the file says of itself as a whole: whose it is, its balances, its sums and counts.
    private void compareWithFile(IntakeBlock block) {
        boolean whole = tally.records > 0 && readers != null && !tally.handedBack;
        if (whole) {
            owner.compare(hasBooks, finding -> note(block, finding));
        }
        if (balance != null) {
            balance.finish(tally, firstRowBelow, equalLines).forEach(finding -> note(block, finding));
        }
        if (whole) {
            boolean proved = balance != null && balance.provesAll();
            stated.compare(proved, finding -> note(block, finding), tally.agreed);
            askForSigns(block);
            doubtAccount(block);
        }
        if (statementsRead) {
            tally.unproved = statements.unproved();
        }
        tally.unproved = totals.withoutTotals(tally.unproved);
        if (totals.agreed()) {
            tally.agreed.addAll(layout.stated().totals());
        }
    }

    private void tellUnproved(IntakeBlock block) {
        Unproved left = tally.unproved;
        if (left.rows() == 0 || tally.failed) {
            return;
        }
        note(
                block,
                Rule.ROWS_NOT_PROVED,
                left.rows() == 1 ? left.firstRow() : 0,
                "",
                left.rows() + " of " + tally.records + (tally.records == 1 ? " row" : " rows") + ", in "
                        + Money.show(left.in(), file.currency()) + ", out " + Money.show(left.out(), file.currency())
                        + (left.rows() == 1
                                ? ", is not proved by anything"
                                : ", are not proved by anything, row " + left.firstRow() + " first"),
                Rule.ROWS_NOT_PROVED.remedy());
    }

    // The balance of what is owed may be written as positive, and nothing in the file tells.
    private void askForSigns(IntakeBlock block) {
        Account owing = account;
        boolean balances = kind.balance() != null && layout.fields().containsKey(kind.balance());
        boolean doubtful = !layout.signsSaid()
                || layout.signs() == Signs.REVERSED && tally.proof != null && tally.proof.closing() > 0;
        if (owing == null || !owing.isOwed() || !doubtful || !balances || statementsRead) {
            return;
        }
        note(
                block,
                Rule.SIGNS_NOT_SAID,
                0,
                "",
                "the account " + owing.label()
                        + " is one that is owed, and the layout does not say whether the file's balances are what is owed",
                Rule.SIGNS_NOT_SAID.remedy());
    }

    // A card's file without balances has charges and hardly anything else; a bank account's has both sides.
    private void doubtAccount(IntakeBlock block) {
        Account of = account;
        long read = tally.totals.count();
        if (of == null || !of.holdsMoney() || read < ROWS_FOR_DOUBT) {
            return;
        }
        boolean balances = tally.proof != null || !tally.spans.isEmpty();
        String unlike = null;
        if (!of.isOwed() && !balances && (tally.comesIn == 0 || tally.comesIn == read)) {
            unlike = "all " + read + " amounts " + (tally.comesIn == 0 ? "go out" : "come in")
                    + " and no balance stands beside them, as in the file of a card, but " + of.label()
                    + " is a bank account";
        } else if (of.use() == AccountUse.CARD && tally.comesIn * 3 > read) {
            unlike = tally.comesIn + " of " + read + " amounts come in, as in the file of a bank account, but "
                    + of.label() + " is a card";
        }
        if (unlike != null) {
            note(block, Rule.FILE_UNLIKE_ACCOUNT, 0, "", unlike, Rule.FILE_UNLIKE_ACCOUNT.remedy());
        }
    }

    private void compareWithTerms(IntakeBlock block) {
        DateWindow days = layout.terms().days();
        boolean early = tally.firstDay < days.from().toEpochDay();
        boolean late = tally.lastDay > days.to().toEpochDay();
        if (tally.firstDay <= tally.lastDay && (early || late)) {
            long day = early ? tally.firstDay : tally.lastDay;
            note(
                    block,
                    Rule.LAYOUT_NOT_FOR_DATES,
                    0,
                    LocalDate.ofEpochDay(day).toString(),
                    "the layout '" + layout.name() + "' is for dates from " + days.from() + " to " + days.to(),
                    Rule.LAYOUT_NOT_FOR_DATES.remedy());
        }
    }

    /** A finding about the file as a whole; a blocker among these holds the file. */
    private void note(IntakeBlock block, Rule rule, long row, String value, String reason, String suggestion) {
        note(block, new Finding(rule, Origin.of(file.name(), row), "", value, reason, suggestion));
    }

    private void note(IntakeBlock block, Finding found) {
        Finding finding = overrides.judge(found);
        tally.failed |= finding.severity() == Severity.BLOCKER;
        block.findings().add(finding);
    }
}

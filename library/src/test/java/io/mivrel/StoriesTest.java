package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.books.AccountStatus;
import io.mivrel.files.settings.BooksFolder;
import io.mivrel.posting.Answer.Result;
import io.mivrel.posting.Balance;
import io.mivrel.posting.PostMode;
import io.mivrel.posting.Proof;
import io.mivrel.practice.PracticeLedger;
import io.mivrel.practice.PracticePlace;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/**
 * Whole stories with a real ledger: posted, refused, corrected, replaced, taken back and proved, in currencies of 0, 2 and 3
 * decimals. What must stand on each account is added up here from the rows that were made, by decimal arithmetic.
 */
public class StoriesTest {
    private static final List<String> COSTS = List.of("5010", "5020", "6200");

    private Workshop shop;
    private PracticeLedger ledger;
    private final Map<String, BigDecimal> expected = new TreeMap<>();

    @DataProvider
    public Object[][] currencies() {
        return new Object[][] {{"JPY", 0}, {"GBP", 2}, {"KWD", 3}};
    }

    private void expect(String account, BigDecimal amount) {
        expected.merge(account, amount, BigDecimal::add);
    }

    private void requireBalances() throws Exception {
        Map<String, BigDecimal> there = new TreeMap<>();
        for (Balance balance : ledger.balances(LocalDate.MAX)) {
            there.put(
                    balance.account(),
                    BigDecimal.valueOf(
                            balance.all().minor(), balance.all().currency().getDefaultFractionDigits()));
        }
        List<String> accounts = new ArrayList<>(there.keySet());
        accounts.addAll(expected.keySet());
        for (String account : accounts) {
            assertThat(there.getOrDefault(account, BigDecimal.ZERO))
                    .as(account)
                    .isEqualByComparingTo(expected.getOrDefault(account, BigDecimal.ZERO));
        }
    }

    private void open(String currency) throws Exception {
        shop = new Workshop()
                .replace("books/books.yaml", "GBP", currency)
                .replace(
                        "books/chart.csv",
                        "1300,Customers",
                        "1250,Reserve account,asset,bank,,\n1260,Transfers,asset,transfer,,\n1300,Customers")
                .replace(
                        "coding.csv",
                        "tin,out,tin",
                        "there,out,to reserve,,,1250,,,\nback,in,from current,,,1200,,,\ntin,out,tin");
        expected.clear();
        ledger = PracticeLedger.openOrCreate(
                "practice",
                PracticePlace.file(shop.folder.resolve("practice.db")),
                BooksFolder.read(shop.folder.resolve("books")));
    }

    private static BigDecimal amount(Random random, int decimals) {
        return BigDecimal.valueOf(1 + random.nextInt(9_999_999), decimals);
    }

    @Test(dataProvider = "currencies")
    public void journalsAreRefusedCorrectedReplacedAndTakenBack(String currency, int decimals) throws Exception {
        open(currency);
        try (PracticeLedger closing = ledger) {
            Random random = new Random(decimals);
            List<BigDecimal> amounts = new ArrayList<>();
            StringBuilder rows = new StringBuilder();
            for (int i = 0; i < 30; i++) {
                BigDecimal amount = amount(random, decimals);
                String cost = COSTS.get(i % COSTS.size());
                amounts.add(amount);
                rows.append("V" + i + ",05/03/2027," + cost + ",voucher," + amount.toPlainString() + ",,,\n");
                rows.append("V" + i + ",05/03/2027,2900,voucher,," + amount.toPlainString() + ",,\n");
            }
            shop.journal(rows.toString());
            // An account is closed in the ledger alone, so its vouchers are held; all others are posted.
            ledger.desk().setStatus("6200", AccountStatus.CLOSED);
            PostOutcome refused = shop.open("journal").postTo(ledger).post();
            for (int i = 0; i < 30; i++) {
                if (i % COSTS.size() < 2) {
                    expect(COSTS.get(i % COSTS.size()), amounts.get(i));
                    expect("2900", amounts.get(i).negate());
                }
            }
            assertThat(refused.posting().count(Result.ADDED)).isEqualTo(20);
            assertThat(refused.status()).isEqualTo(1);
            requireBalances();
            // It is opened again, and only the rest is sent.
            ledger.desk().setStatus("6200", AccountStatus.OPEN);
            PostOutcome rest =
                    shop.open("journal").postTo(ledger).called("the rest").post();
            for (int i = 2; i < 30; i += 3) {
                expect("6200", amounts.get(i));
                expect("2900", amounts.get(i).negate());
            }
            assertThat(rest.posting().count(Result.ADDED)).isEqualTo(10);
            requireBalances();
            // One voucher was wrong, and is replaced.
            BigDecimal right = amounts.get(4).add(BigDecimal.valueOf(7, decimals));
            shop.put(
                    "journal.csv",
                    shop.read("journal.csv")
                            .replaceAll(
                                    "(?m)^(V4,.*,)"
                                            + amounts.get(4).toPlainString().replace(".", "\\.") + "(,+)$",
                                    "$1" + right.toPlainString() + "$2"));
            PostOutcome replaced = shop.open("journal")
                    .postTo(ledger)
                    .mode(PostMode.ADD_OR_REPLACE)
                    .called("corrected")
                    .post();
            assertThat(replaced.posting().count(Result.REPLACED)).isEqualTo(1);
            expect("5020", right.subtract(amounts.get(4)));
            expect("2900", amounts.get(4).subtract(right));
            requireBalances();
            assertThat(shop.open("journal").postTo(ledger).prove(null))
                    .hasSize(3)
                    .allMatch(Proof::holds);
            // Batch by batch everything comes out again.
            for (String batch : List.of("corrected", "the rest")) {
                assertThat(shop.open("journal")
                                .postTo(ledger)
                                .withdraw(batch, List.of())
                                .proof()
                                .holds())
                        .isTrue();
            }
            expected.clear();
            for (int i = 0; i < 30; i++) {
                if (i % 3 < 2 && i != 4) {
                    expect(COSTS.get(i % 3), amounts.get(i));
                    expect("2900", amounts.get(i).negate());
                }
            }
            requireBalances();
            shop.open("journal").postTo(ledger).withdraw(null, List.of());
            expected.clear();
            requireBalances();
        }
    }

    @Test(dataProvider = "currencies")
    public void bothStatementsOfATransferAreBookedOnce(String currency, int decimals) throws Exception {
        open(currency);
        try (PracticeLedger closing = ledger) {
            Random random = new Random(10 + decimals);
            BigDecimal current = BigDecimal.ZERO.setScale(decimals);
            BigDecimal reserve = BigDecimal.ZERO.setScale(decimals);
            StringBuilder here = new StringBuilder();
            StringBuilder there = new StringBuilder(Workshop.BANK_TITLES);
            for (int day = 1; day <= 20; day++) {
                BigDecimal sale = amount(random, decimals);
                BigDecimal moved = amount(random, decimals);
                current = current.add(sale);
                String date = LocalDate.of(2027, 3, day)
                        .format(java.time.format.DateTimeFormatter.ofPattern(
                                "EEE dd/MM/uuuu", java.util.Locale.ENGLISH));
                here.append(date + ",shop " + day + "," + sale.toPlainString() + ",," + current.toPlainString() + "\n");
                current = current.subtract(moved);
                here.append(date + ",to reserve " + day + ",," + moved.toPlainString() + "," + current.toPlainString()
                        + "\n");
                reserve = reserve.add(moved);
                there.append(date + ",from current " + day + "," + moved.toPlainString() + ",,"
                        + reserve.toPlainString() + "\n");
                expect("4000", sale.negate());
            }
            // The chart's default is no tax here, so that each line has two sides.
            shop.replace("coding.csv", "4000,STD", "4000,");
            shop.bank(here.toString() + ",Total,,,\n");
            shop.put("other-layout.yaml", shop.read("bank-layout.yaml").replace("account: 1200", "account: 1250"));
            shop.put("other.csv", there + ",Total,,,\n");
            shop.put(
                    "other.yaml",
                    shop.read("bank.yaml")
                            .replace("run: bank", "run: other")
                            .replace("bank.csv", "other.csv")
                            .replace("bank-layout", "other-layout"));
            expect("1200", current);
            expect("1260", reserve);
            Proof first = shop.open("bank").postTo(ledger).post().proof();
            requireBalances();
            assertThat(first.holds()).isTrue();
            // Money is on its way until the other statement comes.
            assertThat(first.agrees()).isFalse();
            Proof second = shop.open("other").postTo(ledger).post().proof();
            expected.remove("1260");
            expect("1250", reserve);
            requireBalances();
            assertThat(second.agrees()).isTrue();
        }
    }

    // Without an account for transfers, and with nothing that went out in a file: the ledger is asked.
    @Test
    public void theOtherEndOfATransferThatWasOnlyPostedIsHeld() throws Exception {
        open("GBP");
        try (PracticeLedger closing = ledger) {
            shop.replace("books/chart.csv", "1260,Transfers,asset,transfer", "1260,Transfers,asset,clearing");
            shop.replace("coding.csv", "4000,STD", "4000,");
            shop.bank("Tue 02/03/2027,to reserve,,500.00,100.00\nWed 03/03/2027,shop,7.00,,107.00\n,Total,,,\n");
            shop.put("other-layout.yaml", shop.read("bank-layout.yaml").replace("account: 1200", "account: 1250"));
            shop.put(
                    "other.csv",
                    Workshop.BANK_TITLES + "Thu 04/03/2027,from current,500.00,,700.00\n"
                            + "Fri 05/03/2027,shop,3.00,,703.00\n,Total,,,\n");
            shop.put(
                    "other.yaml",
                    shop.read("bank.yaml")
                            .replace("run: bank", "run: other")
                            .replace("bank.csv", "other.csv")
                            .replace("bank-layout", "other-layout"));
            assertThat(shop.open("bank").postTo(ledger).post().posting().posted())
                    .isEqualTo(2);
            PostOutcome other = shop.open("other").postTo(ledger).post();
            assertThat(other.posting().posted()).isEqualTo(1);
            assertThat(other.report().findings().worstFirst().toString())
                    .contains("transfer-booked", "entry 1 of the ledger");
            expect("1200", new BigDecimal("-493.00"));
            expect("1250", new BigDecimal("503.00"));
            expect("4000", new BigDecimal("-10.00"));
            requireBalances();
            // Its own entry is not its counterpart.
            PostOutcome again = shop.open("bank").postTo(ledger).post();
            assertThat(again.posting().postedBefore()).isEqualTo(2);
            assertThat(again.status()).isZero();
        }
    }
}

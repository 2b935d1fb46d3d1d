package io.mivrel.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import io.mivrel.Sources;
import io.mivrel.books.AccountStatus;
import io.mivrel.books.AccountType;
import io.mivrel.books.AccountUse;
import io.mivrel.books.Books;
import io.mivrel.books.TaxCode;
import io.mivrel.coding.CodingEntry;
import io.mivrel.coding.Direction;
import io.mivrel.kinds.BankLines;
import io.mivrel.model.Posting.Part;
import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.testng.annotations.Test;

/** An amount that goes to several accounts adds up again to the last penny. */
public class SplitTest {
    private static Posting posting(String account, Part part) {
        return Posting.whole(account, null, null).of(part);
    }

    @Test
    public void thePartsAlwaysAddUp() {
        Random random = new Random(3);
        for (int round = 0; round < 10_000; round++) {
            List<Posting> postings = List.of(
                    posting("1", Part.perCent(BigDecimal.valueOf(random.nextInt(5000), 2))),
                    posting("2", Part.fixed(random.nextInt(1000))),
                    posting("3", Part.REST));
            long amount = random.nextInt(200_000) - 100_000;
            assertThat(Arrays.stream(Split.amounts(amount, postings)).sum()).isEqualTo(amount);
        }
        List<Posting> thirds = List.of(
                posting("1", Part.perCent(new BigDecimal("33.34"))),
                posting("2", Part.perCent(new BigDecimal("33.33"))),
                posting("3", Part.perCent(new BigDecimal("33.33"))));
        assertThat(Split.amounts(-100, thirds)).containsExactly(-33, -33, -34);
    }

    @Test
    public void partsThatDoNotComeToTheWholeAreRefused() {
        CodingEntry entry = CodingEntry.words("rent", Direction.OUT, "5", "rent");
        assertThatThrownBy(() -> entry.postingTo(posting("1", Part.perCent(BigDecimal.TEN))))
                .hasMessageContaining("'rent'")
                .hasMessageContaining("do not come to the whole");
        assertThatThrownBy(() -> entry.postingTo(posting("1", Part.REST), posting("2", Part.REST)))
                .hasMessageContaining("two postings take the rest");
        assertThatThrownBy(entry::postingTo).hasMessageContaining("no posting");
    }

    @Test
    public void aSplitBankLineBalancesWithItsTax() {
        Books books = Books.named("x", Sources.GBP)
                .account("2200", "Tax", AccountType.LIABILITY, AccountUse.TAX, AccountStatus.OPEN)
                .taxCode(new TaxCode("STD", "Standard", BigDecimal.valueOf(20), "2200"))
                .build();
        RecordBlock block =
                new RecordBlock(BankLines.TABLE, Sources.file("bank.csv").ofAccount("1200"), 1);
        block.begin(5);
        block.put(BankLines.DATE, 20_000);
        block.put(BankLines.AMOUNT, -100_01);
        block.end(true);
        Coding coding = new Coding(
                "van",
                null,
                List.of(
                        Posting.whole("7100", "STD", null).of(Part.perCent(BigDecimal.valueOf(60))),
                        posting("3000", Part.REST)));
        Document line =
                BankLines.KIND.drafter(DraftingContext.of(books)).draft(block.range(0, 1), coding, finding -> {});
        assertThat(line.lines()).extracting(Line::account).containsExactly("7100", "3000");
        assertThat(line.lines()).extracting(Line::minor).containsExactly(-60_01L, -40_00L);
        Document journal = line.journal();
        assertThat(journal.lines()).extracting(Line::account).containsExactly("1200", "7100", "2200", "3000");
        assertThat(journal.lines()).extracting(Line::minor).containsExactly(-100_01L, 50_01L, 10_00L, 40_00L);
        assertThat(journal.difference()).isZero();
    }
}

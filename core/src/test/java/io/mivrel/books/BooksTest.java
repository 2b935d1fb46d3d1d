package io.mivrel.books;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.money.Money;
import io.mivrel.text.Nearest;
import java.time.LocalDate;
import java.util.Currency;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** The books answer by code, by use and by date, and know what was probably meant. */
public class BooksTest {
    private static final Books BOOKS = Books.named("Larkmoor Bell Foundry", Currency.getInstance("GBP"))
            .account("1200", "Current account", AccountType.ASSET, AccountUse.BANK, AccountStatus.OPEN)
            .account("5010", "Tin", AccountType.EXPENSE)
            .period(Period.closed(LocalDate.of(2027, 1, 1), LocalDate.of(2027, 1, 31)))
            .period(Period.open(LocalDate.of(2027, 2, 1), LocalDate.of(2027, 2, 28)))
            .build();

    @Test
    public void answersByCodeUseAndDate() {
        assertThat(BOOKS.account("5010").label()).isEqualTo("5010 Tin");
        assertThat(BOOKS.account("9999")).isNull();
        assertThat(BOOKS.accountFor(AccountUse.BANK)).map(Account::code).contains("1200");
        assertThat(BOOKS.accountFor(AccountUse.PAYABLES)).isEmpty();
        assertThat(BOOKS.period(LocalDate.of(2027, 1, 31))).map(Period::isOpen).contains(false);
        assertThat(BOOKS.period(LocalDate.of(2027, 2, 1))).map(Period::isOpen).contains(true);
        assertThat(BOOKS.period(LocalDate.of(2027, 3, 1))).isEmpty();
        assertThat(Money.decimals(BOOKS.currency())).isEqualTo(2);
        assertThat(Money.decimals(Currency.getInstance("JPY"))).isZero();
        assertThat(Money.decimals(Currency.getInstance("BHD"))).isEqualTo(3);
    }

    @DataProvider
    public Object[][] mistyped() {
        return new Object[][] {
            {"5200", "5020"},
            {"501O", "5010"},
            {"50100", "5010"},
            {"05010", "5010"},
            {"BOOKD", "Booked"},
            {"zzzz", null},
        };
    }

    @Test(dataProvider = "mistyped")
    public void findsWhatWasMeant(String typed, String meant) {
        assertThat(Nearest.one(typed, List.of("1200", "2200", "5010", "5020", "6200", "Booked")))
                .isEqualTo(meant);
    }

    @Test
    public void theNearestComeFirst() {
        assertThat(Nearest.to("5011", List.of("5010", "5012", "6011", "7777", "5111"), 3))
                .containsExactly("5010", "5012", "5111");
    }
}

package io.mivrel.text;

import static org.assertj.core.api.Assertions.assertThat;
import static org.quicktheories.QuickTheory.qt;
import static org.quicktheories.generators.SourceDSL.longs;

import io.mivrel.Sources;
import io.mivrel.money.Money;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.util.Currency;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Amounts are read to the last minor unit or refused; nothing between. */
public class AmountFormatTest {
    private static final AmountFormat ENGLISH = new AmountFormat(2, '.', ',', true, true, "£");
    private static final AmountFormat GERMAN = AmountFormat.marked(2, ',', '.');
    private static final AmountFormat SWISS = AmountFormat.marked(2, '.', '\u2019');
    private static final AmountFormat FRENCH = AmountFormat.marked(2, ',', '\u202f');
    private static final AmountFormat FOUR = AmountFormat.marked(4, '.', ',');
    private static final AmountFormat YEN = AmountFormat.marked(0, '.', ',');

    private static long parse(AmountFormat format, String text) {
        byte[] chars = ("xx" + text + "yy").getBytes(StandardCharsets.UTF_8);
        return format.parse(chars, 2, chars.length - 2);
    }

    @DataProvider
    public Object[][] readable() {
        return new Object[][] {
            {ENGLISH, "1,234,567.89", 123_456_789L},
            {ENGLISH, "0.01", 1L},
            {ENGLISH, ".5", 50L},
            {ENGLISH, "12", 1200L},
            {ENGLISH, "12.3", 1230L},
            {ENGLISH, "12.3400", 1234L},
            {ENGLISH, "-12.34", -1234L},
            {ENGLISH, "(1,012.34)", -101_234L},
            {ENGLISH, "12.34-", -1234L},
            {ENGLISH, "£12.34", 1234L},
            {ENGLISH, "-£12.34", -1234L},
            {ENGLISH, "£-12.34", -1234L},
            {ENGLISH, "\u00a0 12.34 ", 1234L},
            {GERMAN, "1.234,56", 123_456L},
            {SWISS, "1\u2019234\u2019567.05", 123_456_705L},
            {FRENCH, "-1\u202f234,5", -123_450L},
            {YEN, "1,234", 1234L},
            {ENGLISH, "12,34,567.00", 123_456_700L},
            {ENGLISH, "1,23,45,678.90", 1_234_567_890L},
            {ENGLISH, "-1,23,456", -12_345_600L},
            {ENGLISH, "+12.34", 1234L},
            {ENGLISH, "12.34+", 1234L},
            {ENGLISH, "\u221212.34", -1234L},
            {ENGLISH, "- 12.34", -1234L},
            {ENGLISH, "12.34 \u2212", -1234L},
            {ENGLISH, "£ \u22121,234.50", -123_450L},
            {ENGLISH, "-£ 12.34", -1234L},
            {YEN, "1,234.00", 1234L},
        };
    }

    @Test(dataProvider = "readable")
    public void readsExactly(AmountFormat format, String text, long minor) {
        assertThat(parse(format, text)).isEqualTo(minor);
    }

    @DataProvider
    public Object[][] refused() {
        return new Object[][] {
            {ENGLISH, "", AmountFormat.BLANK},
            {ENGLISH, "  ", AmountFormat.BLANK},
            {ENGLISH, "1,5", AmountFormat.UNREADABLE},
            {ENGLISH, "1.234,56", AmountFormat.UNREADABLE},
            {ENGLISH, "123,45,678.00", AmountFormat.UNREADABLE},
            {ENGLISH, "1,23,456,789.00", AmountFormat.UNREADABLE},
            {ENGLISH, "1,234,56,789.00", AmountFormat.UNREADABLE},
            {ENGLISH, "12,34.00", AmountFormat.UNREADABLE},
            {ENGLISH, "--1.00", AmountFormat.UNREADABLE},
            {ENGLISH, "+-1.00", AmountFormat.UNREADABLE},
            {ENGLISH, "+", AmountFormat.UNREADABLE},
            {ENGLISH, ",123", AmountFormat.UNREADABLE},
            {ENGLISH, "1,234,", AmountFormat.UNREADABLE},
            {ENGLISH, "12.", AmountFormat.UNREADABLE},
            {FOUR, "1000000000000000", AmountFormat.TOO_LARGE},
            {FOUR, "999999999999999.9999", AmountFormat.TOO_LARGE},
            {ENGLISH, "9999999999999999.99", AmountFormat.TOO_LARGE},
            {SWISS, "1\u201923.00", AmountFormat.UNREADABLE},
            {ENGLISH, "12.3x", AmountFormat.UNREADABLE},
            {ENGLISH, "12.345x", AmountFormat.UNREADABLE},
            {ENGLISH, "(12.34", AmountFormat.UNREADABLE},
            {ENGLISH, "--5", AmountFormat.UNREADABLE},
            {ENGLISH, "-", AmountFormat.UNREADABLE},
            {ENGLISH, "1O4.50", AmountFormat.UNREADABLE},
            {ENGLISH, "1 234.00", AmountFormat.UNREADABLE},
            {ENGLISH, "1e5", AmountFormat.UNREADABLE},
            {ENGLISH, "\u0661\u0662", AmountFormat.UNREADABLE},
            {ENGLISH, "12.345", AmountFormat.TOO_PRECISE},
            {YEN, "12.5", AmountFormat.TOO_PRECISE},
            {ENGLISH, "99999999999999999", AmountFormat.TOO_LARGE},
            {ENGLISH, "10000000000000.01", AmountFormat.TOO_LARGE},
            {GERMAN, "(5,00)", AmountFormat.UNREADABLE},
            {GERMAN, "5,00-", AmountFormat.UNREADABLE},
        };
    }

    @Test(dataProvider = "refused")
    public void refusesWholeCells(AmountFormat format, String text, long why) {
        assertThat(parse(format, text)).isEqualTo(why);
        assertThat(AmountFormat.isAmount(why)).isFalse();
    }

    @Test
    public void theFastWayAnswersAsTheSlowOne() {
        Random random = new Random(3);
        AmountFormat[] formats = {
            ENGLISH,
            GERMAN,
            SWISS,
            FRENCH,
            AmountFormat.plain(2),
            new AmountFormat(2, '.', ' ', false, true, ""),
            new AmountFormat(2, '.', ',', false, true, "", "", "CR")
        };
        int amounts = 0;
        for (int round = 0; round < 200_000; round++) {
            AmountFormat format = formats[random.nextInt(formats.length)];
            CellBuffer out = new CellBuffer();
            out.append("before the cell ");
            int start = out.length() - random.nextInt(17);
            out.cut(start);
            out.append(" ".repeat(random.nextInt(3)));
            format.append(random.nextLong() >> 20 + random.nextInt(43), out);
            out.append(new String[] {"", " ", "-", "- ", " -", "CR"}[Math.max(0, random.nextInt(12) - 6)]);
            int end = out.length();
            // One in two is spoiled somewhere.
            if (random.nextBoolean()) {
                out.bytes()[start + random.nextInt(end - start)] =
                        (byte) "0123456789.,-+()' x\u00a0".charAt(random.nextInt(20));
            }
            long expected = format.parseSlowly(out.bytes(), start, end);
            amounts += AmountFormat.isAmount(expected) ? 1 : 0;
            assertThat(format.parse(out.bytes(), start, end)).as(out.toString()).isEqualTo(expected);
        }
        assertThat(amounts).isBetween(50_000, 190_000);
    }

    @Test
    public void twoDecimalsAreWrittenAsThePlatformWritesThem() {
        Random random = new Random(9);
        for (int round = 0; round < 100_000; round++) {
            long edge = (long) Math.pow(10, random.nextInt(18)) - random.nextInt(2);
            long minor = round % 2 == 0 ? edge : random.nextLong() >> random.nextInt(63);
            CellBuffer out = new CellBuffer().append("before");
            AmountFormat.plain(2).append(minor, out);
            assertThat(out.toString())
                    .isEqualTo("before" + BigDecimal.valueOf(minor, 2).toPlainString());
        }
    }

    @Test
    public void whatIsWrittenReadsBack() {
        qt().forAll(longs().between(-AmountFormat.LARGEST, AmountFormat.LARGEST))
                .checkAssert(minor -> {
                    for (AmountFormat format :
                            new AmountFormat[] {ENGLISH, GERMAN, SWISS, FRENCH, FOUR, AmountFormat.plain(0)}) {
                        CellBuffer out = new CellBuffer();
                        format.append(minor, out);
                        assertThat(format.parse(out.bytes(), 0, out.length())).isEqualTo(minor);
                    }
                });
    }

    @Test
    public void suggestsWhatWasProbablyMeant() {
        assertThat(ENGLISH.suggestion("1O4.50")).contains("104.50");
        assertThat(ENGLISH.suggestion("1.234,56")).contains("decimal mark ','");
        assertThat(GERMAN.suggestion("(5,00)")).contains("brackets");
        assertThat(GERMAN.suggestion("5,00-")).contains("trailing minus");
    }

    @Test
    public void peopleSeeThousands() {
        assertThat(Money.show(-123_456_789L, Sources.GBP)).isEqualTo("-1,234,567.89");
        assertThat(Money.show(5, Sources.GBP)).isEqualTo("0.05");
        assertThat(Money.show(1234, Currency.getInstance("JPY"))).isEqualTo("1,234");
        assertThat(Money.show(Long.MIN_VALUE, Sources.GBP)).isEqualTo("-92,233,720,368,547,758.08");
    }
}

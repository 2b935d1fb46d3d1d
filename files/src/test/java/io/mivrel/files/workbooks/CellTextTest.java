package io.mivrel.files.workbooks;

import static org.assertj.core.api.Assertions.assertThat;

import java.math.BigDecimal;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Numbers and days as workbooks keep them, written out exactly. */
public class CellTextTest {
    @DataProvider
    public static Object[][] numbers() {
        return new Object[][] {
            {"12", "12"},
            {"12.50", "12.5"},
            {"-12.5", "-12.5"},
            {"0", "0"},
            {"-0", "0"},
            {"0.0", "0"},
            {"0.30000000000000004", "0.3"},
            {"1974.3400000000001", "1974.34"},
            {"2543.8599999999997", "2543.86"},
            {"1E3", "1000"},
            {"1.5e-3", "0.0015"},
            {"123456789012345", "123456789012345"},
            {"1234567890.125", "1234567890.125"},
            {"1e999999999", "1e999999999"},
            {"abc", "abc"},
            {"1,5", "1,5"},
            {"", ""},
            {"9".repeat(50), "9".repeat(50)},
        };
    }

    @Test(dataProvider = "numbers")
    public void whatABinaryFractionLeavesOverIsTakenAway(String raw, String expected) {
        assertThat(CellText.number(raw)).isEqualTo(expected);
    }

    @Test
    public void everyAmountSurvivesABinaryFraction() {
        Random random = new Random(9);
        for (int i = 0; i < 100_000; i++) {
            long minor = random.nextLong(-1_000_000_000_000L, 1_000_000_000_000L);
            BigDecimal exact = BigDecimal.valueOf(minor, 2);
            String written = Double.toString(exact.doubleValue());
            assertThat(new BigDecimal(CellText.number(written))).isEqualByComparingTo(exact);
        }
    }

    @DataProvider
    public static Object[][] formats() {
        return new Object[][] {
            {"mm-dd-yy", true},
            {"dd/mm/yyyy", true},
            {"[$-409]d\\-mmm\\-yy;@", true},
            {"yyyy\"-\"mm", true},
            {"General", false},
            {"0.00", false},
            {"#,##0.00 \"dry\"", false},
            {"[Red]0.00", false},
            {"h:mm", false},
            {"@", false},
            {"", false},
        };
    }

    @Test(dataProvider = "formats")
    public void aFormatWithADayOrAYearIsADate(String format, boolean date) {
        assertThat(CellText.isDate(format)).isEqualTo(date);
    }

    @Test
    public void serialNumbersBecomeDays() {
        assertThat(CellText.date("46388", false)).isEqualTo("2027-01-01");
        assertThat(CellText.date("46388.75", false)).isEqualTo("2027-01-01");
        assertThat(CellText.date("44926", true)).isEqualTo("2027-01-01");
        assertThat(CellText.date("61", false)).isEqualTo("1900-03-01");
        assertThat(CellText.date("59", false)).isEqualTo("1900-02-28");
        assertThat(CellText.date("60", false)).as("never was").isEqualTo("60");
        assertThat(CellText.date("-5", false)).isEqualTo("-5");
        assertThat(CellText.date("99999999", false)).isEqualTo("99999999");
        assertThat(CellText.whole("123", 2)).isEqualTo(-1);
        assertThat(CellText.whole("12", 2)).isEqualTo(12);
    }
}

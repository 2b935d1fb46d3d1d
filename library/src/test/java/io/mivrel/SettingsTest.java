package io.mivrel;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import io.mivrel.files.settings.SettingsException;
import io.mivrel.files.settings.SettingsProblem;
import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** All mistakes of all settings files come together, each with its place and the nearest allowed word. */
public class SettingsTest {
    private static List<String> problems(Workshop workshop, String kind) {
        SettingsException wrong = catchThrowableOfType(SettingsException.class, () -> workshop.open(kind));
        assertThat(wrong).as("settings should be refused").isNotNull();
        return wrong.problems().stream()
                .map(SettingsProblem::toString)
                .map(p -> p.replace(workshop.folder + "/", ""))
                .toList();
    }

    @Test
    public void mistakesOfAllFilesComeTogether() {
        Workshop workshop = new Workshop()
                .bank("")
                .replace("bank.yaml", "run:", "rnu:")
                .replace("bank-layout.yaml", "narrative:", "narative:")
                .replace("bank-layout.yaml", "dd/MM/uuuu", "dd/MM/uu")
                .replace("journals.yaml", "field: amount", "field: ammount")
                .replace("books/chart.csv", "5010,Tin,expense", "5010,Tin,expanse")
                .replace("coding.csv", "tin,out,tin,,,5010", "tin,outt,tin,,,5011");
        List<String> problems = problems(workshop, "bank");
        assertThat(problems)
                .anySatisfy(p -> assertThat(p).startsWith("bank.yaml:1:1: ").contains("was 'run' meant?"));
        assertThat(problems)
                .anySatisfy(
                        p -> assertThat(p).startsWith("bank-layout.yaml:7:3: ").contains("was 'narrative' meant?"));
        assertThat(problems)
                .anySatisfy(p -> assertThat(p).startsWith("bank-layout.yaml:6:").contains("century from"));
        assertThat(problems)
                .anySatisfy(p -> assertThat(p).startsWith("journals.yaml:9:").contains("was 'amount' meant?"));
        assertThat(problems)
                .anySatisfy(
                        p -> assertThat(p).startsWith("books/chart.csv:9:3: ").contains("'expense'"));
    }

    @Test
    public void theCodingTableIsCheckedAgainstTheBooks() {
        Workshop workshop = new Workshop().bank("").replace("coding.csv", "tin,out,tin,,,5010", "tin,outt,tin,,,5011");
        assertThat(problems(workshop, "bank"))
                .anySatisfy(p -> assertThat(p).startsWith("coding.csv:3:2: ").contains("was 'out' meant?"))
                .anySatisfy(p -> assertThat(p).startsWith("coding.csv:3:6: ").contains("was '5010' meant?"));
    }

    @DataProvider
    public Object[][] mistakes() {
        return new Object[][] {
            {"bank.yaml", "books: books", "books: boks", "no such folder of books"},
            {"bank.yaml", "layout: bank-layout", "layout: blank-layout", "blank-layout.yaml: there is no such file"},
            {"bank.yaml", "files: bank.csv", "files: \"inbox/*.csv\"", "no file matches"},
            {"bank.yaml", "uncoded: hold", "uncoded: 2901", "was '2900' meant?"},
            {"bank.yaml", "run: bank", "run: [", "is not YAML"},
            {"bank.yaml", "run: bank", "run: bank\nrun: again", "stands twice"},
            {"bank.yaml", "run: bank", "run: bank\ndates: March", "a first and a last day"},
            {"bank.yaml", "coding:", "when blocked: stop\ncoding:", "hold documents, hold everything"},
            {"bank.yaml", "coding: {table: coding.csv, uncoded: hold}", "", "'coding' in a run sheet"},
            {"bank-layout.yaml", "account: 1200", "account: 5010", "not set up as a bank or card account"},
            {"bank-layout.yaml", "gives: bank lines", "gives: bank line", "was 'bank lines' meant?"},
            {"bank-layout.yaml", "  money in:  {column: In}\n", "", "an amount is required"},
            {"bank-layout.yaml", "encoding: UTF-8", "encoding: UTF-9", "was 'UTF-8' meant?"},
            {"bank-layout.yaml", "until: Total", "titles: 4", "row"},
            {"bank-layout.yaml", "{column: Text}", "{}", "needs either 'column' or 'constant'"},
            {"bank-layout.yaml", "gives:", "numbers: {decimal: \",\", thousands: \",\"}\ngives:", "must differ"},
            {"journals.yaml", "{field: amount}", "{field: narrative}", "no column carries the amount"},
            {"journals.yaml", "takes: journals", "takes: invoices", "is not known"},
            {"journals.yaml", "-{part}.csv\"", ".csv\", rows at most: 5", "needs {part}"},
            {"journals.yaml", "name: \"journals", "name: \"../journals", "plain file name"},
            {"journals.yaml", "  Amount:", "  Łink: {constant: x}\n  Amount:", "cannot write the column"},
            {"books/books.yaml", "GBP", "XQQ", "ISO 4217"},
            {"books/chart.csv", "5020,Copper", "5010,Copper", "stands twice"},
            {"books/chart.csv", "code,name,type", "code,name,tpye", "was 'type' meant?"},
            {"books/tax-codes.csv", "20,2200", "20,", "needs the 'account'"},
            {"books/periods.csv", "2027-01-01", "2026-12-15", "follow one another"},
            {"coding.csv", "shop,in,shop", "shop,in,shop||", "phrases"},
        };
    }

    @Test(dataProvider = "mistakes")
    public void eachMistakeIsNamed(String file, String what, String by, String says) {
        Workshop workshop = new Workshop().bank("").replace(file, what, by);
        assertThat(String.join("\n", problems(workshop, "bank"))).contains(says);
    }

    @Test
    public void aMissingRunSheetIsOneProblem() {
        assertThat(problems(new Workshop(), "gone")).containsExactly("gone.yaml: there is no such file");
    }
}

package io.mivrel.run;

import static org.assertj.core.api.Assertions.assertThat;

import io.mivrel.model.Journal;
import io.mivrel.model.JournalLines;
import io.mivrel.model.RecordBlock;
import java.util.HashSet;
import java.util.Set;
import org.testng.annotations.Test;

/** A document is the same from run to run whichever way it went through the stages. */
public class FingerprintTest {
    private static Journal journal(String reference, String account, long amount) {
        RecordBlock batch = new RecordBlock(JournalLines.TABLE, "f", "", 2);
        for (int i = 0; i < 2; i++) {
            batch.begin(i + 1);
            batch.put(JournalLines.REFERENCE, reference);
            batch.put(JournalLines.DATE, 20_000L);
            batch.put(JournalLines.ACCOUNT, i == 0 ? account : "1200");
            batch.put(JournalLines.AMOUNT, i == 0 ? amount : -amount);
            batch.end(true);
        }
        return Journal.asRead(batch.range(0, 2));
    }

    @Test
    public void isTheSameByColumnAndByLine() {
        for (String account : new String[] {"5010", "Glockengießerei 5010", "5"}) {
            Journal asRead = journal("V-1", account, 12_34);
            Journal own = new Journal(asRead.reference(), asRead.date(), asRead.lines(), asRead.records());
            assertThat(Fingerprint.of(own)).isEqualTo(Fingerprint.of(asRead));
        }
    }

    @Test
    public void tellsEveryFigureApart() {
        Set<Fingerprint> seen = new HashSet<>();
        int documents = 0;
        for (String reference : new String[] {"V-1", "V-2"}) {
            for (String account : new String[] {"5010", "5020"}) {
                for (long amount : new long[] {12_34, -12_34, 12_35}) {
                    Fingerprint fingerprint = Fingerprint.of(journal(reference, account, amount));
                    assertThat(fingerprint.isCounted()).isFalse();
                    assertThat(fingerprint.identity())
                            .isEqualTo(
                                    Fingerprint.of(journal(reference, "9", 1)).identity());
                    seen.add(fingerprint);
                    documents++;
                }
            }
        }
        assertThat(seen).hasSize(documents);
    }
}

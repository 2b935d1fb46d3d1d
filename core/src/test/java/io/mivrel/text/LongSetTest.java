package io.mivrel.text;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.Random;
import java.util.Set;
import org.testng.annotations.Test;

/** A hash is new once, however many there are and wherever they fall. */
public class LongSetTest {
    @Test
    public void isAsTheSetOfThePlatform() {
        LongSet hashes = new LongSet();
        Set<Long> expected = new HashSet<>();
        Random random = new Random(4);
        for (int i = 0; i < 400_000; i++) {
            long hash = Hash64.add(7, random.nextInt(150_000));
            assertThat(hashes.add(hash)).isEqualTo(expected.add(hash));
        }
    }

    @Test
    public void hashesThatFallIntoOnePlaceAreToldApart() {
        LongSet hashes = new LongSet();
        for (long high = 0; high < 300; high++) {
            assertThat(hashes.add(high << 32)).isTrue();
        }
        for (long high = 0; high < 300; high++) {
            assertThat(hashes.add(high << 32)).isFalse();
        }
        assertThat(hashes.add(-1)).isTrue();
        assertThat(hashes.add(-1)).isFalse();
    }
}

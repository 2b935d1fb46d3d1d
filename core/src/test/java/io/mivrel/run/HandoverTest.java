package io.mivrel.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What one thread gives comes to the other whole and in its order, however few or many things there are. */
public class HandoverTest {
    private static Thread giver(Handover<Integer> handover, int things, AtomicInteger given) {
        Thread giver = new Thread(() -> {
            try {
                for (int i = 1; i < things; i++) {
                    handover.put(i);
                    given.incrementAndGet();
                }
                handover.putLast(things);
                given.incrementAndGet();
            } catch (InterruptedException stopped) {
                // Nobody takes any more.
            }
        });
        giver.start();
        return giver;
    }

    @DataProvider
    public Object[][] sizes() {
        return new Object[][] {{1}, {2}, {7}, {8}, {9}, {24}, {25}, {1000}, {100_000}};
    }

    @Test(dataProvider = "sizes", timeOut = 60_000)
    public void everythingComesInItsOrder(int things) throws Exception {
        Handover<Integer> handover = new Handover<>();
        Thread giver = giver(handover, things, new AtomicInteger());
        List<Integer> taken = new ArrayList<>();
        while (taken.size() < things) {
            taken.add(handover.take());
        }
        giver.join();
        assertThat(taken).isEqualTo(IntStream.rangeClosed(1, things).boxed().toList());
    }

    @Test(timeOut = 60_000)
    public void theGiverWaitsForRoomAndCanBeStopped() throws Exception {
        Handover<Integer> handover = new Handover<>();
        AtomicInteger given = new AtomicInteger();
        Thread giver = giver(handover, 1000, given);
        while (giver.getState() != Thread.State.WAITING) {
            Thread.sleep(1);
        }
        assertThat(given.get()).isEqualTo(24);
        assertThat(handover.take()).isEqualTo(1);
        giver.interrupt();
        giver.join(10_000);
        assertThat(giver.isAlive()).isFalse();
        assertThat(given.get()).isLessThan(1000);
    }

    @Test(timeOut = 60_000)
    public void theTakerWaitsAndCanBeStopped() throws Exception {
        Handover<Integer> handover = new Handover<>();
        handover.put(1);
        List<Integer> taken = new ArrayList<>();
        Thread taker = new Thread(() -> {
            try {
                taken.add(handover.take());
            } catch (InterruptedException stopped) {
                // As wanted.
            }
        });
        taker.start();
        while (taker.getState() != Thread.State.WAITING) {
            Thread.sleep(1);
        }
        taker.interrupt();
        taker.join(10_000);
        assertThat(taker.isAlive()).isFalse();
        assertThat(taken).isEmpty();
    }
}

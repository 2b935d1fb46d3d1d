package io.mivrel.run;

import java.util.ArrayDeque;
import java.util.concurrent.locks.Condition;
import java.util.concurrent.locks.ReentrantLock;

/**
 * A bounded queue from one thread to another that hands over in batches, since waking a thread for each thing costs as much
 * as what it then does.
 */
final class Handover<T> {
    /** So many may wait before the giver does, and as many more may be with the taker. */
    private static final int MOST = 24;
    /** So many are passed at once, but for the last ones. */
    private static final int TOGETHER = 8;

    private final ReentrantLock lock = new ReentrantLock();
    private final Condition someWait = lock.newCondition();
    private final Condition hasRoom = lock.newCondition();
    private ArrayDeque<T> waiting = new ArrayDeque<>(MOST);
    private boolean ended;
    /** The taker's own. */
    private ArrayDeque<T> taken = new ArrayDeque<>(MOST);

    /** Gives something; waits for room. */
    void put(T thing) throws InterruptedException {
        put(thing, false);
    }

    /** Gives what is taken without waiting for more: the last thing of all. */
    void putLast(T thing) throws InterruptedException {
        put(thing, true);
    }

    private void put(T thing, boolean last) throws InterruptedException {
        lock.lockInterruptibly();
        try {
            while (waiting.size() >= MOST) {
                hasRoom.await();
            }
            waiting.add(thing);
            ended |= last;
            if (isReady()) {
                someWait.signal();
            }
        } finally {
            lock.unlock();
        }
    }

    /** Takes the next thing; waits for it. */
    T take() throws InterruptedException {
        if (taken.isEmpty()) {
            lock.lockInterruptibly();
            try {
                while (!isReady()) {
                    someWait.await();
                }
                ArrayDeque<T> empty = taken;
                taken = waiting;
                waiting = empty;
                hasRoom.signal();
            } finally {
                lock.unlock();
            }
        }
        return taken.remove();
    }

    private boolean isReady() {
        return waiting.size() >= TOGETHER || ended && !waiting.isEmpty();
    }
}

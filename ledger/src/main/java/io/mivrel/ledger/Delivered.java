package io.mivrel.ledger;

import io.mivrel.run.DocumentHistory.Verdict;

/**
 * The fingerprints that earlier runs delivered, loaded for one run: open addressing over three arrays, 20 bytes a
 * document at three quarters full.
 */
final class Delivered {
    private long[] identities = new long[1024];
    private long[] contents = new long[1024];
    private int[] counts = new int[1024];
    private int[] left = new int[1024];
    private int size;

    void add(long identity, long content) {
        if (size * 4L > identities.length * 3L) {
            grow();
        }
        int slot = find(identity, content);
        if (counts[slot] == 0) {
            identities[slot] = identity;
            contents[slot] = content;
            size++;
        }
        counts[slot]++;
        left[slot] = counts[slot];
    }

    Verdict judge(long identity, long content) {
        int slot = find(identity, content);
        if (counts[slot] > 0) {
            if (identity != content) {
                return Verdict.DELIVERED;
            }
            // Without a name, as many are known as were delivered.
            return left[slot]-- > 0 ? Verdict.DELIVERED : Verdict.NEW;
        }
        return identity != content && knowsName(identity) ? Verdict.CHANGED : Verdict.NEW;
    }

    void startOver() {
        left = counts.clone();
    }

    // The place of the pair, or the free one where it would stand; all of one identity lie in one run of slots.
    private int find(long identity, long content) {
        int mask = identities.length - 1;
        int slot = start(identity, mask);
        while (counts[slot] > 0 && (identities[slot] != identity || contents[slot] != content)) {
            slot = slot + 1 & mask;
        }
        return slot;
    }

    private boolean knowsName(long identity) {
        int mask = identities.length - 1;
        for (int slot = start(identity, mask); counts[slot] > 0; slot = slot + 1 & mask) {
            if (identities[slot] == identity) {
                return true;
            }
        }
        return false;
    }

    private static int start(long identity, int mask) {
        return (int) (identity ^ identity >>> 32) & mask;
    }

    private void grow() {
        long[] oldIdentities = identities;
        long[] oldContents = contents;
        int[] oldCounts = counts;
        int length = oldIdentities.length * 2;
        identities = new long[length];
        contents = new long[length];
        counts = new int[length];
        left = new int[length];
        for (int i = 0; i < oldCounts.length; i++) {
            if (oldCounts[i] > 0) {
                int slot = find(oldIdentities[i], oldContents[i]);
                identities[slot] = oldIdentities[i];
                contents[slot] = oldContents[i];
                counts[slot] = oldCounts[i];
                left[slot] = oldCounts[i];
            }
        }
    }
}

package io.mivrel.start;

/** An answer that cannot be; its message says why, and what can. */
public final class WrongAnswerException extends Exception {
    private static final long serialVersionUID = 1L;

    WrongAnswerException(String message) {
        super(message);
    }
}

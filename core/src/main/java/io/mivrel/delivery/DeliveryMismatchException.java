package io.mivrel.delivery;

/** What was read back is not what was meant; nothing was published. */
public final class DeliveryMismatchException extends RuntimeException {
    private static final long serialVersionUID = 1L;

    public DeliveryMismatchException(String message) {
        super(message);
    }
}

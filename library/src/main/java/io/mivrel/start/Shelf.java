package io.mivrel.start;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Optional;

/** The deliveries that ship, each named for its shape; to be copied into a company's folder and changed there. */
public final class Shelf {
    private static final List<Shape> SHAPES = List.of(
            shape("bank-one-amount", "bank transactions"),
            shape("bank-in-and-out", "bank transactions"),
            shape("bank-decimal-comma", "bank transactions"),
            shape("journals-one-amount", "journals"),
            shape("journals-two-sides", "journals"),
            shape("journals-decimal-comma", "journals"),
            shape("invoices-rows", "invoices"),
            shape("invoices-two-files", "invoices"));

    private Shelf() {}

    /**
     * One delivery.
     *
     * @param name its file's name without the ending
     * @param takes the documents that it delivers
     * @param about its shape in a sentence
     * @param text its settings
     */
    public record Shape(String name, String takes, String about, String text) {}

    /** All of them. */
    public static List<Shape> shapes() {
        return SHAPES;
    }

    /** The one of a name. */
    public static Optional<Shape> shape(String name) {
        return SHAPES.stream().filter(s -> s.name().equals(name)).findFirst();
    }

    private static Shape shape(String name, String takes) {
        String text = resource("deliveries/" + name + ".yaml");
        String about = text.lines().findFirst().orElse("").replaceFirst("^# *", "");
        return new Shape(name, takes, about, text);
    }

    /** A text that ships beside the classes of this package. */
    static String resource(String name) {
        try (InputStream in = Shelf.class.getResourceAsStream(name)) {
            if (in == null) {
                throw new IllegalStateException("the program lacks its own file " + name);
            }
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

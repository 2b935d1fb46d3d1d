package io.mivrel;

import io.mivrel.delivery.Delivery;
import io.mivrel.delivery.DeliveryFormat;
import io.mivrel.delivery.Sheet;
import io.mivrel.files.MemoryOutlet;
import io.mivrel.run.DeliveryTarget;
import java.io.IOException;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The first rows of a file that a run would deliver.
 *
 * @param delivery the name of the delivery
 * @param sheet the name of the sheet; empty when it is the only one
 * @param lines the lines as they stand in the file; of a workbook its rows, with bars between cells
 * @param rows the same rows as cells
 */
public record DeliverySample(String delivery, String sheet, List<String> lines, List<List<String>> rows) {
    public DeliverySample {
        lines = List.copyOf(lines);
        rows = List.copyOf(rows);
    }

    /** Where the files of one delivery go for a sample. */
    static final class Outlets {
        private final Delivery delivery;
        private final String run;
        private final LocalDate day;
        private final Map<Sheet, MemoryOutlet> outlets = new LinkedHashMap<>();

        Outlets(Delivery delivery, String run, LocalDate day) {
            this.delivery = delivery;
            this.run = run;
            this.day = day;
        }

        // Of documents in several currencies those of the main one are enough.
        DeliveryTarget target() {
            return new DeliveryTarget(
                    delivery,
                    (sheet, other) -> {
                        MemoryOutlet outlet = new MemoryOutlet(
                                sheet, (text, part) -> DeliveryFormat.filled(text, run, day.toString(), part));
                        // A run that starts over asks for new ones.
                        if (other == null) {
                            outlets.put(sheet, outlet);
                        }
                        return outlet;
                    },
                    DeliveryTarget.Earlier.DELIVERED_TOO);
        }

        List<DeliverySample> samples(int rows) throws IOException {
            List<DeliverySample> samples = new ArrayList<>();
            for (Map.Entry<Sheet, MemoryOutlet> one : outlets.entrySet()) {
                if (!one.getValue().parts().isEmpty()) {
                    Sheet sheet = one.getKey();
                    int all = rows + sheet.rowsAbove();
                    samples.add(new DeliverySample(
                            delivery.name(),
                            sheet.name(),
                            one.getValue().lines(1, all),
                            one.getValue().rows(1).stream().limit(all).toList()));
                }
            }
            return samples;
        }
    }
}

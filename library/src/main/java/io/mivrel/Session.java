package io.mivrel;

import io.mivrel.delivery.DeliveredFile;
import io.mivrel.files.Digests;
import io.mivrel.ledger.Register;
import io.mivrel.model.Finding;
import io.mivrel.model.Origin;
import io.mivrel.model.Rule;
import io.mivrel.report.EvidenceFolder;
import io.mivrel.report.EvidenceFolder.Vouched;
import io.mivrel.report.SummaryText;
import io.mivrel.run.HeldRows;
import io.mivrel.run.Input;
import io.mivrel.run.Run;
import io.mivrel.run.RunReport;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** One execution: what was delivered before, the run, its evidence, and what to remember of it. */
final class Session {
    private final Mivrel run;
    private final Map<String, String> digests = new LinkedHashMap<>();
    private final List<Finding> before = new ArrayList<>();

    Session(Mivrel run) {
        this.run = run;
    }

    Outcome check() throws IOException {
        RunReport report = Run.execute(run.plan(false, run.inputs()), run.progress());
        return new Outcome(report, null, List.of());
    }

    Outcome run() throws IOException {
        if (run.home() == null) {
            RunReport report = Run.execute(run.plan(true, run.inputs()), run.progress());
            return new Outcome(report, null, List.of());
        }
        try (Register register = Register.open(run.home().resolve(".mivrel").resolve("register.db"))) {
            List<Input> inputs = inputs(register);
            RunReport report = Run.execute(run.plan(true, inputs), run.progress());
            before.forEach(report.findings()::add);
            run.progress().at("evidence", report.rowsRead());
            EvidenceFolder folder =
                    EvidenceFolder.create(run.home().resolve("evidence"), run.slug() + "-" + run.today());
            List<Path> held = folder.writeHeld(report, inputs);
            Outcome outcome = new Outcome(report, folder.folder(), held);
            folder.write(
                    report,
                    outcome.summary(SummaryText.Style.PLAIN),
                    outcome.json(),
                    vouched(report),
                    run.settings());
            remember(register, report, inputs);
            register.commit();
            return outcome;
        }
    }

    private List<Input> inputs(Register register) throws IOException {
        List<Input> inputs = new ArrayList<>();
        List<Input> plain = run.inputs();
        for (int i = 0; i < plain.size(); i++) {
            Input input = plain.get(i);
            Path path = run.sources().get(i).path();
            inputs.add(new Input(input.name(), input.layout(), input.opener(), heldBefore(register, input, path)));
        }
        return inputs;
    }

    // The rows that still count of a file delivered before; null for a new file.
    private BitSet heldBefore(Register register, Input input, Path path) throws IOException {
        if (!Files.isRegularFile(path) || !register.mayKnow(run.name(), Files.size(path))) {
            return null;
        }
        Optional<Register.Known> known = register.known(run.name(), digest(input.name(), path));
        if (known.isEmpty()) {
            return null;
        }
        before.add(new Finding(
                Rule.DELIVERED_BEFORE,
                Origin.of(input.name(), 0),
                "",
                "",
                "was delivered by this run sheet at " + known.get().deliveredAt() + "; only its "
                        + known.get().rowsLeft().cardinality() + " rows not delivered then count now",
                ""));
        return known.get().rowsLeft();
    }

    private String digest(String name, Path path) throws IOException {
        String known = digests.get(name);
        if (known == null) {
            known = Digests.sha256(path);
            digests.put(name, known);
        }
        return known;
    }

    private List<Vouched> vouched(RunReport report) throws IOException {
        List<Vouched> files = new ArrayList<>();
        for (Mivrel.Source source : run.sources()) {
            files.add(new Vouched(
                    "input", source.shown(), Files.size(source.path()), digest(source.shown(), source.path())));
        }
        for (DeliveredFile delivered : report.deliveries()) {
            for (String name : delivered.files()) {
                Path path = Path.of(name);
                files.add(new Vouched("output", name, Files.size(path), Digests.sha256(path)));
            }
        }
        for (Path setting : run.settings()) {
            files.add(new Vouched("settings", setting.toString(), Files.size(setting), Digests.sha256(setting)));
        }
        return files;
    }

    // A pilot, or a run that delivered nothing, leaves the files as new as they were.
    private void remember(Register register, RunReport report, List<Input> inputs) throws IOException {
        if (report.beyondPilot().rows() > 0 || report.clear().rows() == 0 || report.deliveries().isEmpty()) {
            return;
        }
        for (int i = 0; i < inputs.size(); i++) {
            String name = inputs.get(i).name();
            Path path = run.sources().get(i).path();
            if (report.files().get(i).failed()) {
                continue;
            }
            HeldRows held = report.heldRows().get(name);
            BitSet rows = new BitSet();
            rows.or(report.files().get(i).outsideDates());
            if (held != null) {
                rows.or(held.rows());
            }
            register.remember(run.name(), digest(name, path), Files.size(path), name, rows, run.clock().instant());
        }
    }
}

package io.mivrel.bench;

import io.mivrel.text.AmountFormat;
import io.mivrel.text.CellBuffer;
import io.mivrel.text.DatePattern;
import io.mivrel.text.SpanMap;
import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.ResolverStyle;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The cell parsers beside what the platform offers for the same cell. Run with {@code bench/jmh}. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.NANOSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 3, time = 1)
@Fork(1)
public class CellBenchmark {
    private static final DateTimeFormatter PLATFORM =
            DateTimeFormatter.ofPattern("dd/MM/uuuu").withResolverStyle(ResolverStyle.STRICT);

    private final byte[] date = "28/02/2027".getBytes(StandardCharsets.UTF_8);
    private final byte[] amount = "1,234,567.89".getBytes(StandardCharsets.UTF_8);
    private final byte[] code = "4010".getBytes(StandardCharsets.UTF_8);
    private final DatePattern pattern = DatePattern.of("dd/MM/uuuu");
    private final AmountFormat format = AmountFormat.marked(2, '.', ',').withBrackets();
    private final SpanMap<String> codes = new SpanMap<>(Map.of("4010", "Bells", "4020", "Frames", "5010", "Tin"));
    private final CellBuffer buffer = new CellBuffer();

    @Benchmark
    public long dateFromSpan() {
        return pattern.parse(date, 0, date.length);
    }

    @Benchmark
    public LocalDate dateByPlatform() {
        return LocalDate.parse(new String(date, StandardCharsets.UTF_8), PLATFORM);
    }

    @Benchmark
    public long amountFromSpan() {
        return format.parse(amount, 0, amount.length);
    }

    @Benchmark
    public BigDecimal amountByPlatform() {
        return new BigDecimal(new String(amount, StandardCharsets.UTF_8).replace(",", ""));
    }

    @Benchmark
    public String codeFoundBySpan() {
        return codes.get(code, 0, code.length);
    }

    @Benchmark
    public int amountToCell() {
        buffer.clear();
        format.append(-123_456_789L, buffer);
        return buffer.length();
    }
}

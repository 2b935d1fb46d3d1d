package io.mivrel.rows;

import io.mivrel.model.Finding;
import java.io.IOException;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/** Rows made of those of another source: what is noticed there, and closing, goes on to it. */
public abstract class RowsOver implements RowSource {
    protected final RowSource inner;

    protected RowsOver(RowSource inner) {
        this.inner = Objects.requireNonNull(inner);
    }

    @Override
    public @Nullable List<String> titles() {
        return inner.titles();
    }

    @Override
    public List<Finding> remarks() {
        return inner.remarks();
    }

    @Override
    public void close() throws IOException {
        inner.close();
    }
}

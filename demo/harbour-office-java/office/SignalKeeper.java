package office;

/** Is told of every signal that goes up. */
public interface SignalKeeper extends AutoCloseable {
    void raised(String signal);

    @Override
    void close();
}

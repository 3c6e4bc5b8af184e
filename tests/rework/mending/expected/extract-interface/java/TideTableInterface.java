package office;

import java.io.IOException;
import java.util.List;
import java.util.Map;

public interface TideTableInterface {
    int height(int day) throws IOException;
    void raise(final int by);
    <T extends Number> List<T> all(Map<String, T> named);
}

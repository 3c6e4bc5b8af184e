import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

class TideFile {
    private final String path;
    TideFile(String path) { this.path = path; }
    String read() throws IOException { return Files.readString(Path.of(path)); }
}

class Desk {
    private final String port;
    private final TideFile tides;

    /** A desk of a port. */
    Desk(String port) {
        this(port, new TideFile(port + ".txt"));
    }

    Desk(String port, TideFile tides) {
        this.port = port;
        this.tides = tides;
    }

    int height() throws IOException { return tides.read().length(); }
}

class Office {
    public static void main(String[] args) throws IOException {
        Files.writeString(Path.of("north.txt"), "four");
        System.out.println(new Desk("north").height());
    }
}

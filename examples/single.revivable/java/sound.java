// Whoever reads it back is handed the one that is there.
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.io.Serializable;

final class BerthBook implements Serializable {
    private static final long serialVersionUID = 1;
    private static final BerthBook BOOK = new BerthBook();

    private int moored;

    private BerthBook() {
    }

    synchronized void moor(int ships) {
        moored += ships;
    }

    static BerthBook book() {
        return BOOK;
    }

    private Object readResolve() {
        return BOOK;
    }
}

class Main {
    public static void main(String[] arguments) throws IOException, ClassNotFoundException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        new ObjectOutputStream(bytes).writeObject(BerthBook.book());
        Object read = new ObjectInputStream(new ByteArrayInputStream(bytes.toByteArray())).readObject();
        boolean same = read == BerthBook.book();
        System.out.println(same ? "one book" : "two books");
        System.exit(same ? 0 : 1);
    }
}

package harbour.desk;

import harbour.office.BerthBook;
import harbour.office.Waiting;

public class Arrivals {
  private final BerthBook book = BerthBook.getInstance();

  public void arrive(String ship) {
    BerthBook.getInstance().assign(ship, 4);  // finding: coupling.hidden-dependency
    book.assign(ship, 5);
  }

  public void depart(String ship) {
    BerthBook mine = BerthBook.getInstance();
    mine.assign(ship, 0);
    new Thread(() -> arrive(ship)).start();
    if (mine.changes() > 3) {
      Waiting.SHIPS.clear();  // finding: coupling.hidden-dependency
    }
  }
}

package harbour.desk

import harbour.office.BerthBook
import harbour.office.TicketOffice
import harbour.office.TideTable
import harbour.office.crane

class Arrivals(private val port: String) {
    fun arrive(ship: String): Int {
        BerthBook.getInstance().assign(ship, 4)  // finding: coupling.hidden-dependency
        val book = BerthBook.getInstance()
        crane.lift()  // finding: coupling.hidden-dependency
        return book.count() + TicketOffice.draw() + TideTable.get().rise() + crane.loads  // finding: coupling.hidden-dependency
    }
}

import Foundation

// Nothing before it is opened.
final class RadarPlot {  // entity: singleton RadarPlot lazy none
    private static var plot: RadarPlot?
    private var echoes = 0

    private init() {}

    static func open() {
        plot = RadarPlot()
    }

    static func get() -> RadarPlot? {
        return plot  // finding: single.may-return-nothing
    }

}

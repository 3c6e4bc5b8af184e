import java.io.File

class TideFile(private val path: String) {
    fun read(): String = File(path).readText()
}

class Desk(private val port: String, tides: TideFile? = null) {
    private val tides = tides ?: TideFile("$port.txt")

    fun height(): Int = tides.read().length
}

class Board(tides: TideFile? = null) {
    private val tides: TideFile = tides ?: TideFile("board.txt")
    private var rows = 1

    fun width(): Int = tides.read().length + rows
}

fun main() {
    File("quay.txt").writeText("low")
    File("board.txt").writeText("high")
    println(Desk("quay").height() + Board().width())
}

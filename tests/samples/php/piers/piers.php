<?php
// Piers, cranes and boats of the harbour: further forms, and near misses beside them.
require_once __DIR__ . '/ledgers/fees.php';

// There is only one, and the class sees to it.
class Anchor  // near: single.meant-single single.subclassable  // entity: singleton Anchor lazy single-threaded
{
    private static ?Anchor $anchorage = null;
    private int $chain = 0;

    private function __construct() {  // near: single.open-constructor
        if (Anchor::$anchorage !== null) {
            throw new RuntimeException('the anchor is there');
        }
    }

    public static function anchor(): Anchor {
        if (Anchor::$anchorage === null) {
            Anchor::$anchorage = new Anchor();  // near: single.second-creation
        }
        return Anchor::$anchorage !== null;  // near: single.may-return-nothing
    }

    private function __clone()  // near: single.cloneable
    {
    }

    public function lower(): void {
        $this->chain = 1;
    }
}

class Boatswain
{
    private Anchor $own;
    private array $notes = [];  // near: coupling.fixed-collaborator

    public function __construct(Anchor $anchor) {  // near: coupling.hidden-dependency coupling.fixed-collaborator
        $this->own = $anchor;
    }

    public function moor(): void {
        $this->own->lower();  // near: coupling.hidden-dependency
    }
}

// One is handed out, and a helper makes another.
class Capstan  // entity: singleton Capstan lazy single-threaded  // finding: single.cloneable single.open-constructor
{
    private static ?Capstan $one = null;
    private int $turns = 0;

    public static function capstan(): Capstan {
        if (Capstan::$one === null) {
            Capstan::$one = new Capstan();
        }
        return Capstan::$one;
    }

    public function turn(): void {
        $this->turns = 1;
    }
}

function spareCapstan(): Capstan {
    return new Capstan();  // finding: single.second-creation
}

// Put in another's place by whoever asks for it.
class Flare  // entity: singleton Flare lazy single-threaded  // finding: single.open-constructor
{
    private int $lit = 0;

    public function light(): void {
        $this->lit = 1;
    }
}

class Rocket extends Flare
{
}

$flareNow = null;

function flare(): Flare {
    global $flareNow;
    if ($flareNow === null) {
        $flareNow = new Flare();
    }
    return $flareNow;
}

function useRockets(): void {
    global $flareNow;
    $flareNow = new Rocket();  // finding: single.replaceable
}

class Tackle
{
    private int $blocks = 2;

    public function pull(): void {  // near: coupling.cycle
        $this->blocks = 3;
    }

}

class Davit
{
    private int $boats = 0;

    public function __construct() {  // near: init.cycle init.reentrant init.reads-environment
        $this->boats = 0;
    }

    public function lower(): void {
        global $tackle;
        $tackle->pull();  // near: coupling.cycle
        $this->boats = 1;
    }
}

$tackle = new Tackle();  // near: init.cycle init.reentrant init.may-throw init.eager-heavy  // entity: shared-instance $tackle eager language
$davit = new Davit();  // near: init.may-throw  // entity: shared-instance $davit eager language

// Reads the environment while it is made; near misses: asked later, or handed in.
class Flags
{
    private string $home = '';

    public function __construct() {
        $this->home = (string) getenv('HARBOUR');  // finding: init.reads-environment
    }

    public function rename(string $name): void {
        $this->home = $name;
    }
}

$flags = new Flags();  // entity: shared-instance $flags eager language

class Pennants
{
    private string $home = '';

    public function __construct(string $home) {
        $this->home = $home;
    }

    public function reload(): void {
        $this->home = (string) getenv('HARBOUR');  // near: init.reads-environment
    }
}

$pennants = new Pennants('pier');  // entity: shared-instance $pennants eager language

// Reads a file while the program is loaded.
class Almanac
{
    private array $rows;

    public function __construct() {
        $this->rows = file('almanac');
    }

    public function drop(): void {
        array_pop($this->rows);
    }
}

$almanac = new Almanac();  // finding: init.eager-heavy  // harmless: $almanac

// Throws where it stands.
class Scale
{
    private int $tons = 0;

    public function __construct() {
        $this->tons = file_exists('scale') ? 1 : 0;
        if ($this->tons === 0) {
            throw new RuntimeException('no scale');
        }
    }

    public function load(): void {
        $this->tons = 2;
    }
}

$scale = new Scale();  // entity: shared-instance $scale eager language  // near: init.may-throw

// Works only after it was set up; near misses: it sees to it itself.
class Gauge
{
    public function read(): int {
        return 3;
    }
}

class Locks
{
    private ?Gauge $gauge = null;
    private int $level = 0;

    public function setUp(Gauge $gauge): void {
        $this->gauge = $gauge;
    }

    public function fill(): void {
        $this->level = $this->gauge->read();
    }
}

class Basin
{
    private ?Gauge $gauge = null;
    private int $level = 0;

    public function setUp(Gauge $gauge): void {
        $this->gauge = $gauge;
    }

    public function fill(): void {  // near: init.needs-setup
        if ($this->gauge === null) {
            throw new RuntimeException('no gauge');
        }
        $this->level = $this->gauge->read();
    }

    public function empty(): void {  // near: init.needs-setup
        $this->level = $this->gauge?->read() ?? 0;
    }
}

$locks = new Locks();  // entity: shared-instance $locks eager language
$basin = new Basin();  // entity: shared-instance $basin eager language

function flood(bool $deep): void {
    global $locks, $basin;
    $locks->fill();  // finding: init.needs-setup
    if ($deep) {
        $locks->setUp(new Gauge());
    }
    $basin->setUp(new Gauge());
    $basin->fill();
    $basin->empty();
}

// Opens what nothing closes; near misses: closed in the same function, or at the end.
class Soundings
{
    private $file = null;
    private int $read = 0;

    public function open(string $name): void {
        $this->file = fopen($name, 'r');  // finding: lifetime.never-released
    }

}

class Tides
{
    private $file = null;

    public function open(string $name): void {
        $this->file = fopen($name, 'r');  // near: lifetime.never-released
    }

    public function close(): void {
        fclose($this->file);
    }
}

$soundings = new Soundings();  // entity: shared-instance $soundings eager language
$surges = new Tides();

// Keeps the caller's object; near misses: only what it says, or for a while.
class Porter
{
    private ?Caller $caller = null;
    private string $last = '';
    private array $seen = [];

    public function keep(Caller $caller): void {
        $this->caller = $caller;
    }

    public function note(Caller $caller): void {
        $this->last = $caller->ship;
    }

    public function write(Caller $caller): void {
        $this->seen[] = $caller->ship;  // near: lifetime.grows-forever
        if (count($this->seen) > 9) {
            array_shift($this->seen);
        }
    }
}

$porter = new Porter();  // entity: shared-instance $porter eager language

class Caller
{
    public string $ship = '';

    public function __construct(string $ship) {
        $this->ship = $ship;
    }

    public function enter(): void {
        global $porter;
        $porter->keep($this);  // finding: lifetime.captured-short-lived
    }

    public function passBy(): void {
        global $porter;
        $porter->note($this);  // near: lifetime.captured-short-lived
        $porter->write($this);  // near: lifetime.captured-short-lived
    }
}

function receive(string $ship): void {
    $caller = new Caller($ship);
    $caller->enter();
    $caller->passBy();
}

// One reached through another; near misses: a part of the object, and the other one asked directly.
class Buoys
{
    private int $lit = 0;

    public function light(): void {
        $this->lit = 1;
    }
}

$buoys = new Buoys();  // entity: shared-instance $buoys eager language

class Pilot
{
    public function dark(): void {
        global $buoys;
        $buoys->light();  // near: coupling.chained-access
    }
}

// Reached from six places; near miss: two.
class Gong
{
    private int $struck = 0;

    public function strike(): void {
        $this->struck = 1;
    }
}

$gong = new Gong();  // entity: shared-instance $gong eager language
$whistle = new Gong();  // near: coupling.wide-reach  // entity: shared-instance $whistle eager language

class Pier1
{
    public function fog(): void {
        global $gong, $whistle;
        $gong->strike();
        $whistle->strike();
    }
}

// Begins the day for all; near miss: what is handed in is no reach.
class Morning
{
    public function begin(): void {  // finding: coupling.crowded-startup
        global $gong, $whistle, $buoys, $soundings, $davit, $flags, $pennants;
        $gong->strike();
        $whistle->strike();
        $buoys->light();
        $soundings->open('morning');
        $davit->lower();
        $flags->rename('morning');
        $pennants->reload();
    }

}

// Only the first one's name counts; near miss: it counts each time.
class Plate  // entity: singleton Plate lazy single-threaded  // finding: single.cloneable
{
    private static ?Plate $one = null;
    private string $name = '';

    public function __construct(string $name, int $size) {  // finding: single.open-constructor
        $this->name = $name + $size;
    }

    public static function plate(string $name, int $size): Plate {  // finding: init.arguments-ignored
        if (Plate::$one === null) {
            Plate::$one = new Plate($name, $size);
        }
        return Plate::$one;
    }

    public function rename(string $name): void {
        $this->name = $name;
    }
}

class Sign  // entity: singleton Sign lazy single-threaded  // finding: single.cloneable
{
    private static ?Sign $one = null;
    private string $name = '';

    public function __construct(string $name) {  // finding: single.open-constructor
        $this->name = $name;
    }

    public static function sign(string $name): Sign {  // near: init.arguments-ignored
        if (Sign::$one === null) {
            Sign::$one = new Sign($name);
        }
        Sign::$one->rename($name);
        return Sign::$one;
    }

    public function rename(string $name): void {
        $this->name = $name;
    }
}

// One slot for a family; near miss: one for each of it.
class Raft  // entity: singleton Raft lazy single-threaded  // finding: single.cloneable single.open-constructor
{
    protected static ?Raft $one = null;
    private int $logs = 4;

    public static function raft(): Raft {
        if (Raft::$one === null) {
            Raft::$one = new static();  // finding: single.slot-shared-by-subclasses
        }
        return Raft::$one;
    }

    public function sink(): void {
        $this->logs = 0;
    }
}

class WideRaft extends Raft
{
    public function load(): void {
        $this->sink();
    }
}

class Punt  // entity: singleton Punt lazy single-threaded  // finding: single.cloneable single.open-constructor
{
    protected static ?Punt $one = null;
    private int $poles = 1;

    public static function punt(): Punt {
        if (Punt::$one === null) {
            Punt::$one = new Punt();  // near: single.slot-shared-by-subclasses
        }
        return Punt::$one;
    }

    public function push(): void {
        $this->poles = 0;
    }
}

class Ferry  // entity: singleton Ferry lazy single-threaded  // finding: single.cloneable
{
    private static ?Ferry $one = null;
    private int $trips = 0;

    private function __construct() {  // near: single.subclassable
        $this->trips = 1;
    }

    public static function ferry(): Ferry {
        if (Ferry::$one === null) {
            Ferry::$one = new Ferry();  // near: single.slot-shared-by-subclasses
        }
        return Ferry::$one;
    }

    public function cross(): void {
        $this->trips = 2;
    }
}

function open(): void {  // finding: coupling.crowded-startup
    global $almanac, $scale, $fees;
    spareCapstan()->turn();
    Capstan::capstan()->turn();
    flare()->light();
    useRockets();
    Plate::plate('a', 1)->rename('b');
    Plate::plate('c', 2);
    Sign::sign('a');
    WideRaft::raft()->sink();
    Raft::raft()->sink();
    Punt::punt()->push();
    Ferry::ferry()->cross();
    (new Boatswain(Anchor::anchor()))->moor();
    receive('Heron');
    (new Morning())->begin();
    $almanac->drop();
    $scale->load();
    $fees->enter(2);
    flood(true);
}

// Open to subclasses; near misses: only the class itself makes one.
class Warden  // entity: singleton Warden lazy single-threaded
{
    private static ?Warden $one = null;
    private int $rounds = 0;

    protected function __construct()  // finding: single.subclassable
    {
    }

    private function __clone()  // near: single.cloneable
    {
    }

    public static function warden(): Warden
    {
        return self::$one ??= new Warden();
    }

    public function walk(): void
    {
        $this->rounds = 1;
    }
}

// Asks for another when it dies; near misses: it says farewell itself, or was given the other.
final class Tower  // entity: singleton Tower lazy single-threaded
{
    private static ?Tower $one = null;
    private int $lit = 0;

    private function __construct()
    {
    }

    private function __clone()
    {
    }

    public static function tower(): Tower
    {
        return self::$one ??= new Tower();
    }

    public function light(): void
    {
        $this->lit = 1;
    }

    public function __destruct()
    {
        Warden::warden()->walk();  // finding: lifetime.exit-order  // near: coupling.hidden-dependency
    }
}

final class Hut  // entity: singleton Hut lazy single-threaded
{
    private static ?Hut $one = null;
    private int $open = 0;

    private function __construct()
    {
    }

    private function __clone()
    {
    }

    public static function hut(): Hut
    {
        return self::$one ??= new Hut();
    }

    public function enter(): void
    {
        $this->open = 1;
    }

    public function leave(): void
    {
        Warden::warden()->walk();  // near: lifetime.exit-order
    }

    public function __destruct()
    {
        $this->open = 0;  // near: lifetime.exit-order
    }
}

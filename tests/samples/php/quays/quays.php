<?php
// Quays, mast and gauges of the harbour: what the other folders do not show in PHP.
namespace Quays;

use Quays\Ledgers\HarbourDues;

// One is handed out, another is made beside it.
final class Beacon  // entity: singleton Beacon lazy single-threaded
{
    private static ?Beacon $one = null;
    private int $flashes = 0;

    public function __construct()  // finding: single.open-constructor
    {
        $this->flashes = 0;
    }

    public static function get(): Beacon
    {
        if (self::$one === null) {
            self::$one = new Beacon();
        }
        return self::$one;
    }

    public function flash(): void
    {
        $this->flashes = 1;
    }

    private function __clone()
    {
    }
}

class Pier
{
    public function light(): void
    {
        $second = new Beacon();  // finding: single.second-creation
        $second->flash();
    }
}

// Near miss: nobody else can make one.
final class Lantern  // entity: singleton Lantern lazy single-threaded
{
    private static ?Lantern $one = null;
    private int $lit = 0;

    private function __construct()  // near: single.open-constructor
    {
        $this->lit = 0;
    }

    public static function get(): Lantern
    {
        if (self::$one === null) {
            self::$one = new Lantern();
        }
        return self::$one;
    }

    public function light(): void
    {
        $this->lit = 1;
    }

    private function __clone()
    {
    }
}

// Another takes its place.
final class Foghorn  // entity: singleton Foghorn lazy single-threaded
{
    private static ?Foghorn $horn = null;
    private int $blown = 0;

    private function __construct()
    {
    }

    public static function get(): Foghorn
    {
        if (self::$horn === null) {
            self::$horn = new Foghorn();
        }
        return self::$horn;
    }

    public static function replace(Foghorn $other): void
    {
        self::$horn = $other;  // finding: single.replaceable
    }

    public function blow(): void
    {
        $this->blown = 1;
    }

    private function __clone()
    {
    }
}

function keepTheHorn(Foghorn $horn): void
{
    Foghorn::replace($horn);
}

// Only the first caller's name counts; near miss: kept by name.
final class Plate
{
    private static ?Plate $plate = null;  // entity: shared-instance plate lazy single-threaded
    private static array $plates = [];  // entity: registry plates eager language

    private function __construct(private string $name)
    {
    }

    public static function get(string $name): Plate  // finding: init.arguments-ignored
    {
        if (self::$plate === null) {
            self::$plate = new Plate($name);
        }
        return self::$plate;
    }

    public static function of(string $name): Plate  // near: init.arguments-ignored
    {
        if (!isset(self::$plates[$name])) {
            self::$plates[$name] = new Plate($name);
        }
        return self::$plates[$name];
    }

    public function rename(string $name): void
    {
        $this->name = $name;
    }

    private function __clone()
    {
    }
}

// Works only after a call, and is used before it; near miss: it tests.
class Chart
{
    public function depth(): int
    {
        return 4;
    }
}

final class Plotter  // entity: singleton Plotter lazy single-threaded
{
    private static ?Plotter $plotter = null;
    private ?Chart $chart = null;
    private int $uses = 0;

    private function __construct()
    {
    }

    public static function get(): Plotter
    {
        if (self::$plotter === null) {
            self::$plotter = new Plotter();
        }
        return self::$plotter;
    }

    public function load(Chart $loaded): void
    {
        $this->chart = $loaded;
    }

    public function depth(): int
    {
        $this->uses = 1;
        return $this->chart->depth();
    }

    private function __clone()
    {
    }
}

final class Surveyor  // entity: singleton Surveyor lazy single-threaded
{
    private static ?Surveyor $surveyor = null;
    private ?Chart $chart = null;

    private function __construct()
    {
    }

    public static function get(): Surveyor
    {
        if (self::$surveyor === null) {
            self::$surveyor = new Surveyor();
        }
        return self::$surveyor;
    }

    public function load(Chart $loaded): void
    {
        $this->chart = $loaded;
    }

    public function depth(): int
    {
        return $this->chart === null ? 0 : $this->chart->depth();
    }

    private function __clone()
    {
    }
}

function plotTheDay(Chart $chart): int
{
    $depth = Plotter::get()->depth();  // finding: init.needs-setup
    $depth += Surveyor::get()->depth();  // near: init.needs-setup
    Plotter::get()->load($chart);
    Surveyor::get()->load($chart);
    return $depth;
}

// The failure is dropped; near miss: it is told.
final class Barograph  // entity: singleton Barograph lazy single-threaded
{
    private static ?Barograph $barograph = null;
    private array $rows = [];

    private function __construct()
    {
        try {
            $this->rows = file('pressure');
        } catch (\Exception $failure) {  // finding: init.failure-swallowed
        }
    }

    public static function get(): Barograph
    {
        if (self::$barograph === null) {
            self::$barograph = new Barograph();
        }
        return self::$barograph;
    }

    public function drop(): void
    {
        $this->rows = [];
    }

    private function __clone()
    {
    }
}

final class Thermograph  // entity: singleton Thermograph lazy single-threaded
{
    private static ?Thermograph $thermograph = null;
    private array $rows = [];

    private function __construct()
    {
        try {
            $this->rows = file('degrees');
        } catch (\Exception $failure) {  // near: init.failure-swallowed
            throw new \RuntimeException('no degrees');
        }
    }

    public static function get(): Thermograph
    {
        if (self::$thermograph === null) {
            self::$thermograph = new Thermograph();  // finding: init.may-throw
        }
        return self::$thermograph;
    }

    public function drop(): void
    {
        $this->rows = [];
    }

    private function __clone()
    {
    }
}

// Who is listed is told of each signal.
interface Keeper
{
    public function heard(int $signal): void;
}

final class SignalMast  // entity: singleton SignalMast lazy single-threaded
{
    private static ?SignalMast $mast = null;
    private array $keepers = [];

    private function __construct()
    {
    }

    public static function get(): SignalMast
    {
        if (self::$mast === null) {
            self::$mast = new SignalMast();
        }
        return self::$mast;
    }

    public function attach(Keeper $keeper): void
    {
        $this->keepers[] = $keeper;
    }

    public function detach(Keeper $keeper): void
    {
        $at = array_search($keeper, $this->keepers);
        unset($this->keepers[$at]);
    }

    public function raise(int $signal): void
    {
        foreach ($this->keepers as $keeper) {
            $keeper->heard($signal);
        }
    }

    private function __clone()
    {
    }
}

class Lookout implements Keeper
{
    private int $last = 0;

    public function __construct()
    {
        SignalMast::get()->attach($this);  // finding: lifetime.dangling-subscriber coupling.hidden-dependency
    }

    public function heard(int $signal): void
    {
        $this->last = $signal;
    }

    public function close(): void
    {
        $this->last = 0;
    }
}

// Near miss: taken out at its end.
class Bosun implements Keeper
{
    private int $last = 0;

    public function __construct()
    {
        SignalMast::get()->attach($this);  // near: lifetime.dangling-subscriber
    }

    public function heard(int $signal): void
    {
        $this->last = $signal;
    }

    public function close(): void
    {
        SignalMast::get()->detach($this);
    }
}

// Registered by its constructor and again by a method.
class Steward implements Keeper
{
    private int $last = 0;

    public function __construct()
    {
        SignalMast::get()->attach($this);
    }

    public function wake(): void
    {
        SignalMast::get()->attach($this);  // finding: lifetime.duplicate-subscription
    }

    public function heard(int $signal): void
    {
        $this->last = $signal;
    }

    public function close(): void
    {
        SignalMast::get()->detach($this);
    }
}

// Opens what nothing closes; near miss: closed at its end.
final class EchoLog  // entity: singleton EchoLog lazy single-threaded
{
    private static ?EchoLog $log = null;
    private $file = null;

    private function __construct()
    {
    }

    public static function get(): EchoLog
    {
        if (self::$log === null) {
            self::$log = new EchoLog();
        }
        return self::$log;
    }

    public function begin(): void
    {
        $this->file = fopen('echoes', 'r');  // finding: lifetime.never-released
    }

    public function next(): string
    {
        return fgets($this->file);
    }

    private function __clone()
    {
    }
}

final class WaveLog  // entity: singleton WaveLog lazy single-threaded
{
    private static ?WaveLog $log = null;
    private $file = null;

    private function __construct()
    {
    }

    public static function get(): WaveLog
    {
        if (self::$log === null) {
            self::$log = new WaveLog();
        }
        return self::$log;
    }

    public function begin(): void
    {
        $this->file = fopen('waves', 'r');  // near: lifetime.never-released
    }

    public function close(): void
    {
        fclose($this->file);
    }

    private function __clone()
    {
    }
}

// Keeps what is made for one visit.
final class Gate  // entity: singleton Gate lazy single-threaded
{
    private static ?Gate $gate = null;
    private ?Visit $visit = null;
    private string $last = '';

    private function __construct()
    {
    }

    public static function get(): Gate
    {
        if (self::$gate === null) {
            self::$gate = new Gate();
        }
        return self::$gate;
    }

    public function begin(Visit $visit): void
    {
        $this->visit = $visit;
    }

    public function note(string $ship): void
    {
        $this->last = $ship;
    }

    private function __clone()
    {
    }
}

class Visit
{
    public function __construct(private string $ship)
    {
    }

    public function enter(): void
    {
        Gate::get()->begin($this);  // finding: lifetime.captured-short-lived coupling.hidden-dependency
        Gate::get()->note($this->ship);  // near: lifetime.captured-short-lived
    }
}

function greet(string $ship): void
{
    $visit = new Visit($ship);
    $visit->enter();
}

// Used after its end; near miss: opened again.
final class Gauge  // entity: singleton Gauge lazy single-threaded
{
    private static ?Gauge $gauge = null;
    private int $level = 0;
    private bool $open = true;

    private function __construct()
    {
    }

    public static function get(): Gauge
    {
        if (self::$gauge === null) {
            self::$gauge = new Gauge();
        }
        return self::$gauge;
    }

    public function close(): void
    {
        $this->open = false;
    }

    public function open(): void
    {
        $this->open = true;
    }

    public function measure(): int
    {
        $this->level = $this->level + 1;
        return $this->level;
    }

    private function __clone()
    {
    }
}

function endOfDay(): int
{
    Gauge::get()->close();
    return Gauge::get()->measure();  // finding: lifetime.used-after-teardown
}

function newDay(): int
{
    Gauge::get()->close();
    Gauge::get()->open();
    return Gauge::get()->measure();  // near: lifetime.used-after-teardown
}

// Makes its own helper that reads files; near miss: it is handed in.
class ChartStore
{
    public function depth(string $place): int
    {
        return count(file($place));
    }
}

class Navigator
{
    private ChartStore $store;

    public function __construct()
    {
        $this->store = new ChartStore();  // finding: coupling.fixed-collaborator
    }

    public function depth(): int
    {
        return $this->store->depth('roads');
    }
}

class Mate
{
    public function __construct(private ChartStore $store)  // near: coupling.fixed-collaborator
    {
    }

    public function depth(): int
    {
        return $this->store->depth('bay');
    }
}

// Passed through three functions that do nothing with it; near miss: looks at it on the way.
class Permit
{
    public function valid(): bool
    {
        return true;
    }
}

function check(Permit $permit): bool
{
    return $permit->valid();
}

function atGate(Permit $permit): bool
{
    return check($permit);
}

function atQuay(Permit $permit): bool
{
    return atGate($permit);
}

function atPier(Permit $permit): bool  // finding: coupling.long-handoff
{
    return atQuay($permit);
}

function atLock(Permit $permit): bool  // near: coupling.long-handoff
{
    return $permit->valid() && atGate($permit);
}

// One object reached through another.
final class Buoyage  // entity: singleton Buoyage lazy single-threaded
{
    private static ?Buoyage $buoyage = null;
    private int $laid = 0;

    private function __construct()
    {
    }

    public static function get(): Buoyage
    {
        if (self::$buoyage === null) {
            self::$buoyage = new Buoyage();
        }
        return self::$buoyage;
    }

    public function lay(): void
    {
        $this->laid = 1;
    }

    private function __clone()
    {
    }
}

final class Fairway  // entity: singleton Fairway lazy single-threaded
{
    private static ?Fairway $fairway = null;
    private int $depth = 0;

    private function __construct()
    {
    }

    public static function get(): Fairway
    {
        if (self::$fairway === null) {
            self::$fairway = new Fairway();
        }
        return self::$fairway;
    }

    public function marks(): Buoyage
    {
        return Buoyage::get();
    }

    public function dredge(): void
    {
        $this->depth = 1;
    }

    private function __clone()
    {
    }
}

class Tender
{
    public function work(): void
    {
        Fairway::get()->marks()->lay();  // finding: coupling.chained-access coupling.hidden-dependency
        Fairway::get()->dredge();  // near: coupling.chained-access
    }
}

// Tells the log at the end of the request; near miss: keeps to itself.
final class EndBook  // entity: singleton EndBook lazy single-threaded
{
    private static ?EndBook $book = null;
    private array $lines = [];

    private function __construct()
    {
    }

    public static function get(): EndBook
    {
        if (self::$book === null) {
            self::$book = new EndBook();
        }
        return self::$book;
    }

    public function write(string $line): void
    {
        $this->lines[] = $line;
    }

    private function __clone()
    {
    }
}

final class Watch  // entity: singleton Watch lazy single-threaded
{
    private static ?Watch $watch = null;
    private int $hours = 0;

    private function __construct()
    {
    }

    public static function get(): Watch
    {
        if (self::$watch === null) {
            self::$watch = new Watch();
        }
        return self::$watch;
    }

    public function pass(): void
    {
        $this->hours = 1;
    }

    public function __destruct()
    {
        EndBook::get()->write('the watch is over');  // finding: lifetime.exit-order
    }

    private function __clone()
    {
    }
}

// Reached from everywhere; near miss: four classes.
final class Siren  // entity: singleton Siren lazy single-threaded // finding: coupling.wide-reach
{
    private static ?Siren $siren = null;
    private int $sounded = 0;

    private function __construct()
    {
    }

    public static function get(): Siren
    {
        if (self::$siren === null) {
            self::$siren = new Siren();
        }
        return self::$siren;
    }

    public function sound(): void
    {
        $this->sounded = 1;
    }

    private function __clone()
    {
    }
}

final class Bell  // near: coupling.wide-reach  // entity: singleton Bell lazy single-threaded
{
    private static ?Bell $bell = null;
    private int $rung = 0;

    private function __construct()
    {
    }

    public static function get(): Bell
    {
        if (self::$bell === null) {
            self::$bell = new Bell();
        }
        return self::$bell;
    }

    public function ring(): void
    {
        $this->rung = 1;
    }

    private function __clone()
    {
    }
}

class NorthQuay
{
    public function fog(): void
    {
        Siren::get()->sound();  // finding: coupling.hidden-dependency
        Bell::get()->ring();  // finding: coupling.hidden-dependency
    }
}

class SouthQuay
{
    public function fog(): void
    {
        Siren::get()->sound();
        Bell::get()->ring();
    }
}

class EastQuay
{
    public function fog(): void
    {
        Siren::get()->sound();
        Bell::get()->ring();
    }
}

class WestQuay
{
    public function fog(): void
    {
        Siren::get()->sound();
    }
}

class InnerQuay
{
    public function fog(): void
    {
        Siren::get()->sound();
    }
}

// Starts them all; near miss: only five.
class Opening
{
    public function open(): void  // finding: coupling.crowded-startup
    {
        Beacon::get()->flash();  // finding: coupling.hidden-dependency
        Siren::get()->sound();
        Bell::get()->ring();
        WaveLog::get()->begin();  // finding: coupling.hidden-dependency
        EchoLog::get()->begin();  // finding: coupling.hidden-dependency
        Watch::get()->pass();  // finding: coupling.hidden-dependency
    }

    public function half(): void  // near: coupling.crowded-startup
    {
        Siren::get()->sound();
        Lantern::get()->light();  // finding: coupling.hidden-dependency
        Barograph::get()->drop();  // finding: coupling.hidden-dependency
        Thermograph::get()->drop();  // finding: coupling.hidden-dependency
        Foghorn::get()->blow();  // finding: coupling.hidden-dependency
    }
}

class Shed
{
    public static function open(): void
    {
        Plate::get('north')->rename('N');
        Plate::get('south')->rename('S');
        Plate::of('east')->rename('E');  // finding: coupling.hidden-dependency
    }
}

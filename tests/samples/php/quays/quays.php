<?php
// Quays, mast and gauges of the harbour: what the other folders do not show in PHP.
namespace Quays;

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

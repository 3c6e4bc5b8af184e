<?php
// Starts, lists and ties of a harbour on duty.
namespace Duty;

// Each needs the other while it is made.
final class Light  // entity: singleton Light lazy single-threaded
{
    private static ?Light $light = null;
    private int $height = 0;

    private function __construct()
    {
        $this->height = Mole::get()->length() / 2;  // finding: coupling.cycle coupling.hidden-dependency
    }

    private function __clone()
    {
    }

    public static function get(): Light
    {
        if (self::$light === null) {
            self::$light = new Light();  // finding: init.cycle
        }
        return self::$light;
    }

    public function height(): int
    {
        return $this->height++;
    }
}

final class Mole  // entity: singleton Mole lazy single-threaded
{
    private static ?Mole $mole = null;
    private int $length = 0;

    private function __construct()
    {
        $this->length = Light::get()->height() * 2;  // finding: coupling.cycle coupling.hidden-dependency
    }

    private function __clone()
    {
    }

    public static function get(): Mole
    {
        if (self::$mole === null) {
            self::$mole = new Mole();
        }
        return self::$mole;
    }

    public function length(): int
    {
        return $this->length++;
    }
}

// Asks for itself.
final class DutyBook  // entity: singleton DutyBook lazy single-threaded
{
    private static ?DutyBook $book = null;
    private int $entries = 0;

    private function __construct()
    {
        $this->begin();
    }

    private function __clone()
    {
    }

    public static function get(): DutyBook
    {
        if (self::$book === null) {
            self::$book = new DutyBook();
        }
        return self::$book;
    }

    private function begin(): void
    {
        DutyBook::get()->enter();  // finding: init.reentrant
    }

    public function enter(): void
    {
        $this->entries++;
    }
}

// Reads the environment; throws while it is made.
final class NamePlate  // entity: singleton NamePlate lazy single-threaded
{
    private static ?NamePlate $plate = null;
    private string $name;

    private function __construct()
    {
        $this->name = getenv('HARBOUR');  // finding: init.reads-environment
        if ($this->name === '') {
            throw new \RuntimeException('no name');
        }
    }

    private function __clone()
    {
    }

    public static function get(): NamePlate
    {
        if (self::$plate === null) {
            self::$plate = new NamePlate();  // finding: init.may-throw
        }
        return self::$plate;
    }

    public function rename(string $name): void
    {
        $this->name = $name;
    }
}

// Who is listed is told of each signal. Near miss: an array is walked as it was.
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

    private function __clone()
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

    public function detach(int $number): void
    {
        unset($this->keepers[$number]);
    }

    public function raise(int $signal): void
    {
        foreach ($this->keepers as $keeper) {
            $keeper->heard($signal);
        }
    }
}

// Circles: knows who uses it.
final class Plan  // entity: singleton Plan lazy single-threaded
{
    private static ?Plan $plan = null;
    private int $berths = 0;

    private function __construct()
    {
    }

    private function __clone()
    {
    }

    public static function get(): Plan
    {
        if (self::$plan === null) {
            self::$plan = new Plan();
        }
        return self::$plan;
    }

    public function change(Berther $berther): void
    {
        $this->berths++;
        $berther->stop();  // finding: coupling.cycle
    }

    public function berths(): int
    {
        return $this->berths;
    }
}

class Berther
{
    private int $free = 0;

    public function arrive(): void
    {
        $this->free = Plan::get()->berths();  // finding: coupling.hidden-dependency
    }

    public function stop(): void
    {
        $this->free = 0;
    }
}

// Nothing to hand in.
final class Dues  // entity: static-holder Dues eager language // finding: coupling.static-only-api
{
    private static int $total = 0;

    public static function add(int $coins): void
    {
        self::$total = self::$total + $coins;
    }

    public static function total(): int
    {
        return self::$total;
    }
}

class Tollhouse
{
    public function pay(): void
    {
        Dues::add(3);  // finding: coupling.hidden-dependency
    }
}

class Treasurer
{
    public function count(): int
    {
        return Dues::total();
    }
}

// There is only one office in the harbour.
class Office  // finding: single.meant-single
{
    private int $opened = 0;

    public function open(): void
    {
        $this->opened++;
    }
}

function day(): void
{
    $first = new Office();
    $second = new Office();
    $first->open();
    $second->open();
}

<?php
// Starts, lists and ties of a harbour on duty.
namespace Duty;

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

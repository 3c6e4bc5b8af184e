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

<?php

namespace Office\Doors;

// The shift that is on, set by who begins it.
class Shift
{
    public static ?Shift $current = null;  // entity: shared-instance current lazy single-threaded
    public string $name = 'none';

    public static function begin(string $name): void
    {
        self::$current = new Shift();
        self::$current->name = $name;
    }
}

// One slot for a class and all its subclasses.
class Register  // entity: singleton Register lazy single-threaded // finding: single.cloneable
{
    private static ?Register $register = null;
    protected array $rows = [];

    protected function __construct()
    {
    }

    public static function get(): static
    {
        if (self::$register === null) {
            self::$register = new static();  // finding: single.slot-shared-by-subclasses
        }
        return self::$register;
    }

    public function add(string $row): void
    {
        $this->rows[] = $row;
    }
}

final class ShipRegister extends Register
{
}

final class BoatRegister extends Register
{
}

// Kept between calls.
function nextNumber(): int
{
    static $number = 0;  // entity: function-static number lazy language
    $number++;
    return $number;
}

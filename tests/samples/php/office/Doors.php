<?php

namespace Office\Doors;

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

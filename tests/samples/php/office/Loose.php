<?php

namespace Office\Loose;

use Office\Doors\BoatRegister;
use Office\Doors\Shift;
use Office\Doors\ShipRegister;

class Gate
{
    public function open(): void
    {
        ShipRegister::get()->add('north');  // finding: coupling.hidden-dependency
        BoatRegister::get()->add('south');
        Shift::begin('day');
    }
}

// Near misses.
final class Limits
{
    public const NORTH = 2;  // harmless: NORTH
    private const NAMES = ['north', 'south'];  // harmless: NAMES

    public static function names(): array
    {
        return self::NAMES;
    }
}

<?php

namespace Office\Loose;

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

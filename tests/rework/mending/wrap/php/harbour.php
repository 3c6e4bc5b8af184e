<?php

final class Tides
{
    private static $first = 4;

    public static function height(int $day): int
    {
        return self::$first + $day;
    }

    public static function raise(int $by = 1): void
    {
        self::$first += $by;
    }

    public static function forget(): void
    {
        self::$first = 0;
    }
}

final class Pilot
{
    private $name;

    public function __construct(string $name)
    {
        $this->name = $name;
    }

    public function mayEnter(int $draught, int $day): bool
    {
        Tides::raise();
        return Tides::height($day) > $draught && $this->name !== '';
    }
}

var_dump((new Pilot('first'))->mayEnter(3, 1));

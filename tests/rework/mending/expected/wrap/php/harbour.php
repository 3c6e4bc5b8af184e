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

class TidesWrapper
{
    public function height(int $day): int
    {
        return Tides::height($day);
    }

    public function raise(int $by = 1): void
    {
        Tides::raise($by);
    }
}

final class Pilot
{
    private TidesWrapper $tidesWrapper;
    private $name;

    public function __construct(string $name, ?TidesWrapper $tidesWrapper = null)
    {
        $this->tidesWrapper = $tidesWrapper ?? throw new \InvalidArgumentException('tidesWrapper is missing');
        $this->name = $name;
    }

    public function mayEnter(int $draught, int $day): bool
    {
        $this->tidesWrapper->raise();
        return $this->tidesWrapper->height($day) > $draught && $this->name !== '';
    }
}

var_dump((new Pilot('first', tidesWrapper: new TidesWrapper()))->mayEnter(3, 1));

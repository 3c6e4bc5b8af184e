<?php
final class TideTable
{
    private static ?TideTable $table = null;
    private array $levels = [3, 5, 4];

    private function __construct()
    {
    }

    public static function get(): TideTable
    {
        if (self::$table === null) {
            self::$table = new TideTable();
        }
        return self::$table;
    }

    public function raise(int $by): void
    {
        $this->levels[0] += $by;
    }

    public function level(int $hour): int
    {
        return $this->levels[$hour % 3];
    }

    private function __clone()
    {
    }
}

function mayEnter(int $draught, int $hour): bool
{
    return TideTable::get()->level($hour) > $draught;
}

final class Sluice
{
    public static function open(): void
    {
        TideTable::get()->raise(1);
        TideTable::get()->raise(1);
    }
}

Sluice::open();
echo mayEnter(3, 0) ? "in\n" : "out\n";

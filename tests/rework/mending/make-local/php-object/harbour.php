<?php

final class TideTable
{
    private static $table = null;

    private $first = 4;

    private function __construct()
    {
    }

    /** The one that there is. */
    public static function get(): self
    {
        if (self::$table === null) {
            self::$table = new self();
        }
        return self::$table;
    }

    public function height(int $day): int
    {
        return $this->first + $day;
    }

    public function raise(int $by): void
    {
        $this->first += $by;
    }
}

final class Desk
{
    private $entered = 0;

    public function enter(int $day): int
    {
        $this->entered++;
        TideTable::get()->raise(1);
        return TideTable::get()->height($day) + $this->entered;
    }
}

function main(): void
{
    $desk = new Desk();
    echo $desk->enter(1) + $desk->enter(2), "\n";
}

main();

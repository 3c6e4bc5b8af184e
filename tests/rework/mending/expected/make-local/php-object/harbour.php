<?php

final class TideTable
{
    private $first = 4;

    public function __construct()
    {
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
    private $tideTable;
    private $entered = 0;

    public function __construct()
    {
        $this->tideTable = new TideTable();
    }

    public function enter(int $day): int
    {
        $this->entered++;
        $this->tideTable->raise(1);
        return $this->tideTable->height($day) + $this->entered;
    }
}

function main(): void
{
    $desk = new Desk();
    echo $desk->enter(1) + $desk->enter(2), "\n";
}

main();

<?php

final class Desk
{
    private $open = 1;
    private static $served = 2;

    public function serve(int $ships): void
    {
        self::$served += $ships * $this->open;
    }

    public function all(): int
    {
        return Desk::$served;
    }
}

function main(): void
{
    $desk = new Desk();
    $desk->serve(3);
    echo $desk->all(), "\n";
}

main();

<?php

final class Desk
{
    private $open = 1;
    private $served = 2;

    public function serve(int $ships): void
    {
        $this->served += $ships * $this->open;
    }

    public function all(): int
    {
        return $this->served;
    }
}

function main(): void
{
    $desk = new Desk();
    $desk->serve(3);
    echo $desk->all(), "\n";
}

main();

<?php
// Reads a file for each request, whether it is needed or not.
class TideFile
{
    private array $rows;

    public function __construct()
    {
        $this->rows = file('tides');
    }

    public function drop(): void
    {
        $this->rows = [];
    }
}

$tides = new TideFile();  // entity: shared-instance $tides eager language // finding: start.eager-heavy

function dropTides(): void
{
    global $tides;
    $tides->drop();
}

// Made for each request, and used by nobody; near miss: a function uses it.
class Spare
{
    private int $parts = 0;

    public function take(): void
    {
        $this->parts = $this->parts - 1;
    }
}

$GLOBALS['spare'] = new Spare();  // entity: shared-instance $spare lazy language

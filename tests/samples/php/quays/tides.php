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

$tides = new TideFile();  // entity: shared-instance $tides eager language // finding: init.eager-heavy

function dropTides(): void
{
    global $tides;
    $tides->drop();
}

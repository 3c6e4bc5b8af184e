<?php
require_once __DIR__ . '/../ledgers/fees.php';

// A layer that may reach none, through the module.
class Board
{
    private int $shown = 0;

    public function show(): void {
        global $fees;
        $this->shown = $fees->total;  // finding: coupling.layer-breach
    }
}

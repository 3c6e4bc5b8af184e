<?php
namespace Quays\Halls;

use Quays\Ledgers\HarbourDues;

// A layer that may reach none.
class Hall
{
    public function show(): int
    {
        return HarbourDues::get()->total();  // finding: coupling.layer-breach
    }
}

<?php
namespace Quays\Desks;

use Quays\Ledgers\HarbourDues;

// Near miss: a layer that may.
class Desk
{
    public function pay(int $coins): void
    {
        HarbourDues::get()->enter($coins);  // near: coupling.layer-breach  // finding: coupling.hidden-dependency
    }
}

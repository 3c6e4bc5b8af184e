<?php
namespace Quays\Tests;

use Quays\Ledgers\HarbourDues;

// Leaves behind what it entered.
class DuesTest
{
    public function testAddsUp(): void
    {
        HarbourDues::get()->enter(3);  // finding: coupling.test-leak
        HarbourDues::get()->enter(4);
    }
}

<?php
namespace Quays\Tests;

use Quays\Ledgers\HarbourDues;

// Near miss: puts it back.
class TidyTest
{
    public function testAddsUpAndClears(): void
    {
        HarbourDues::get()->enter(3);  // near: coupling.test-leak
        HarbourDues::get()->clear();
    }
}

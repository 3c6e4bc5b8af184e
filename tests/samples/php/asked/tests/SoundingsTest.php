<?php
namespace Asked\Tests;

use Asked\Soundings;
use Asked\StandIn;
use PHPUnit\Framework\TestCase;

class SoundingsTest extends TestCase
{
    protected function tearDown(): void
    {
        StandIn::withHosts([]);
    }

    public function testDeep()
    {
        $this->assertTrue(Soundings::isDeep('four')); // near: coupling.test-leak
        $this->assertFalse(Soundings::isDeep('one'));
    }

    public function testShallow()
    {
        $this->assertFalse(Soundings::isDeep('one'));
    }

    public function testHosts()
    {
        StandIn::withHosts(['gate' => 1]); // near: coupling.test-leak
        $this->assertTrue(StandIn::has('gate'));
        StandIn::withHosts(['lock' => 1]);
        $this->assertFalse(StandIn::has('gate'));
    }
}

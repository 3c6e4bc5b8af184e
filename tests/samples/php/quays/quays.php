<?php

use Quays\Ledgers\HarbourDues;

// Quays, mast and gauges of the harbour: what the other folders do not show in PHP.
namespace Quays;

// Keeps what is made for one visit.
final class Gate  // entity: singleton Gate lazy single-threaded
{
    private static ?Gate $gate = null;
    private ?Visit $visit = null;
    private string $last = '';

    private function __construct()
    {
    }

    public static function get(): Gate
    {
        if (self::$gate === null) {
            self::$gate = new Gate();
        }
        return self::$gate;
    }

    public function begin(Visit $visit): void
    {
        $this->visit = $visit;
    }

    public function note(string $ship): void
    {
        $this->last = $ship;
    }

    private function __clone()
    {
    }
}

class Visit
{
    public function __construct(private string $ship)
    {
    }

    public function enter(): void
    {
        Gate::get()->begin($this);  // near: coupling.hidden-dependency
        Gate::get()->note($this->ship);  // near: lifetime.captured-short-lived
    }
}

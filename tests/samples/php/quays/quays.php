<?php
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
        Gate::get()->begin($this);  // finding: lifetime.captured-short-lived coupling.hidden-dependency
        Gate::get()->note($this->ship);  // near: lifetime.captured-short-lived
    }
}

function greet(string $ship): void
{
    $visit = new Visit($ship);
    $visit->enter();
}

final class Bell  // near: coupling.wide-reach  // entity: singleton Bell lazy single-threaded
{
    private static ?Bell $bell = null;
    private int $rung = 0;

    private function __construct()
    {
    }

    public static function get(): Bell
    {
        if (self::$bell === null) {
            self::$bell = new Bell();
        }
        return self::$bell;
    }

    public function ring(): void
    {
        $this->rung = 1;
    }

    private function __clone()
    {
    }
}

<?php
// Classes without a name: what is done inside of them counts.
namespace Duty;

final class Foghorn  // entity: singleton Foghorn lazy single-threaded
{
    private static ?Foghorn $horn = null;
    private int $blown = 0;

    private function __construct()
    {
    }

    private function __clone()
    {
    }

    public static function horn(): Foghorn
    {
        return self::$horn ??= new self();
    }

    public function blow(): void
    {
        $this->blown = 1;
    }
}

final class FogPatrol
{
    public function round(): object
    {
        return new class {
            public function run(): void
            {
                Foghorn::horn()->blow();  // near: coupling.hidden-dependency
            }
        };
    }
}

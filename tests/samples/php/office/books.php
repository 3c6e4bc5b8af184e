<?php
namespace Harbour\Office;

final class BerthBook  // entity: singleton BerthBook lazy single-threaded // finding: single.cloneable
{
    private static ?BerthBook $instance = null;
    private array $berths = [];

    private function __construct() {}

    public static function getInstance(): self
    {
        if (self::$instance === null) {
            self::$instance = new self();
        }
        return self::$instance;
    }

    public function assign(string $ship, int $berth): void
    {
        $this->berths[$ship] = $berth;
    }

    public function count(): int
    {
        return count($this->berths);
    }
}

class Settings  // entity: static-holder Settings eager language
{
    private static $values = [];
    const LIMIT = 12;  // harmless: LIMIT

    public static function set($name, $value)
    {
        self::$values[$name] = $value;
    }

    public static function get($name)
    {
        return isset(self::$values[$name]) ? self::$values[$name] : self::LIMIT;
    }
}

class Crane
{
    private $loads = 0;

    public static function getInstance()
    {
        return new static();
    }

    public function lift()
    {
        $this->loads++;
    }
}

class Yard
{
    private static $cranes = [];  // entity: registry cranes eager language

    public static function crane($name)
    {
        if (!isset(self::$cranes[$name])) {
            self::$cranes[$name] = new Crane();
        }
        return self::$cranes[$name];
    }
}

function draw()
{
    static $next = 1;  // entity: function-static next lazy language
    return $next++;
}

// One slot for a family of classes.
abstract class Desk  // entity: singleton Desk lazy single-threaded
{
    private static $desk = null;
    private $papers = 0;

    protected function __construct() {}

    private function __clone() {}

    public static function get()
    {
        if (self::$desk === null) {
            self::$desk = new static();  // finding: single.slot-shared-by-subclasses
        }
        return self::$desk;
    }

    public function file()
    {
        $this->papers++;
    }
}

class CustomsDesk extends Desk
{
}

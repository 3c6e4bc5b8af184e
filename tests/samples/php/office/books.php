<?php
namespace Harbour\Office;

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
    static $next = 1;  // entity: function-static next eager language
    return $next++;
}

<?php
// What a function makes once and is the same each time; near miss: what depends on who asks.
final class Weigher
{
    private static $round;  // harmless: round
    private static $bound;  // harmless: bound
    private static $last;   // entity: static-field last lazy single-threaded

    public function weigh($tons)
    {
        self::$round ?? self::$round = static function ($one) {
            return round($one, 2);
        };
        self::$bound ?? self::$bound = \Closure::bind(static function ($one) {
            return floor($one);
        }, null, Weigher::class);
        self::$last ?? self::$last = function ($one) use ($tons) {
            return $one + $tons;
        };
        return (self::$round)((self::$bound)((self::$last)($tons)));
    }
}

global $tide;  // harmless: $tide
$tide = new Weigher();
$tide->weigh(3);

// Numbers that are made once and only asked; near miss: one that is told to change.
final class Number
{
    private $value;

    public function __construct($value)
    {
        $this->value = $value;
    }

    public function plus(Number $other)
    {
        return new Number($this->value + $other->value);
    }

    public function grow()
    {
        $this->value = $this->value + 1;
    }
}

function next_number(Number $number)
{
    static $one;   // harmless: one
    static $last;  // entity: function-static last lazy single-threaded
    if (!isset($one)) {
        $one = new Number(1);
    }
    if (!isset($last)) {
        $last = new Number(1);
    }
    $last->grow();
    return $number->plus($one);
}

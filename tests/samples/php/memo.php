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

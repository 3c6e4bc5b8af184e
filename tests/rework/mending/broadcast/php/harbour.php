<?php

final class Tides
{
    private static $shared = null;
    private $started = 0;

    private function __construct()
    {
    }

    public static function get(): self
    {
        if (self::$shared === null) {
            self::$shared = new self();
        }
        return self::$shared;
    }

    public function start(string $day): void
    {
        $this->started++;
        echo "tides ", $this->started, $day, "\n";
    }
}

final class Berths
{
    private static $shared = null;
    private $started = 0;

    private function __construct()
    {
    }

    public static function get(): self
    {
        if (self::$shared === null) {
            self::$shared = new self();
        }
        return self::$shared;
    }

    public function start(string $day): void
    {
        $this->started++;
        echo "berths ", $this->started, $day, "\n";
    }
}

final class Pilots
{
    private static $shared = null;
    private $started = 0;

    private function __construct()
    {
    }

    public static function get(): self
    {
        if (self::$shared === null) {
            self::$shared = new self();
        }
        return self::$shared;
    }

    public function start(string $day): void
    {
        $this->started++;
        echo "pilots ", $this->started, $day, "\n";
    }
}

/** Opens the harbour. */
function open(string $day): void
{
    Tides::get()->start($day);
    Berths::get()->start($day);
    Pilots::get()->start("");
}

open("Monday");

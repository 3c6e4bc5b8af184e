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

/** Tells those who listen, in the order in which they came, that the program starts. */
final class StartUp
{
    private $listeners = [];

    public function add(callable $listener)
    {
        $this->listeners[] = $listener;
    }

    public function announce()
    {
        foreach ($this->listeners as $listener) {
            $listener();
        }
    }
}

/** Opens the harbour. */
function open(string $day): void
{
    $startUp = new StartUp();
    $startUp->add(fn () => Tides::get()->start($day));
    $startUp->add(fn () => Berths::get()->start($day));
    $startUp->add(fn () => Pilots::get()->start(""));
    $startUp->announce();
}

open("Monday");

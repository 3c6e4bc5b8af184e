<?php

namespace Office;

// Open to subclasses.
class Harbourmaster  // entity: singleton Harbourmaster lazy single-threaded
{
    private static ?Harbourmaster $master = null;
    private string $name = 'none';

    protected function __construct()  // finding: single.subclassable
    {
    }

    private function __clone()
    {
    }

    public static function get(): Harbourmaster
    {
        if (self::$master === null) {
            self::$master = new Harbourmaster();
        }
        return self::$master;
    }

    public function rename(string $to): void
    {
        $this->name = $to;
    }
}

// Nothing before it is opened.
final class RadarPlot  // entity: singleton RadarPlot lazy single-threaded
{
    private static ?RadarPlot $plot = null;
    private int $echoes = 0;

    private function __construct()
    {
    }

    private function __clone()
    {
    }

    public static function open(): void
    {
        self::$plot = new RadarPlot();
    }

    public static function get(): ?RadarPlot
    {
        return self::$plot;  // finding: single.may-return-nothing
    }

    public function echoOne(): void
    {
        $this->echoes++;
    }
}

class Crane
{
    public int $lifts = 0;
}

function park(): void
{
    $GLOBALS['mainCrane'] = new Crane();  // entity: global-variable $mainCrane lazy single-threaded
}

function lift(): void
{
    $GLOBALS['mainCrane']->lifts++;
}

// Near miss.
class Receipt
{
    const LIMIT = 12;  // harmless: LIMIT

    public static function getInstance(): Receipt
    {
        return new Receipt();
    }
}

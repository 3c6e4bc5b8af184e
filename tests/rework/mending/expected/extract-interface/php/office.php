<?php

namespace Office;

interface TideTableInterface
{
    public function height(int $day): int;
    public function raise(int $by = 1): void;
}

/** The water's height, day by day. */
final class TideTable implements TideTableInterface
{
    private $first = 4;

    public function height(int $day): int
    {
        return $this->first + $day;
    }

    function raise(int $by = 1): void
    {
        $this->first += $by;
    }

    public function forget(): void
    {
        $this->first = 0;
    }
}

class Pilot
{
    public function __construct(private TideTableInterface $tides)
    {
    }

    public function mayEnter(int $draught, int $day): bool
    {
        $this->tides->raise();
        return $this->tides->height($day) > $draught;
    }
}

function deepEnough(?TideTableInterface $tides, int $draught): bool
{
    return $tides !== null && $tides->height(0) > $draught;
}

$tides = new TideTable();
var_dump((new Pilot($tides))->mayEnter(3, 1) && deepEnough($tides, 4));

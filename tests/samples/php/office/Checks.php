<?php

namespace Office;

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

class TideFile
{
    private $lines;

    public function __construct(string $path)
    {
        $this->lines = fopen($path, 'r');
    }

    public function next(): string
    {
        return fgets($this->lines);
    }
}

class TideDesk
{
    private string $path = 'tides';

    public function high(): string
    {
        $file = new TideFile('/harbour/tides');  // finding: coupling.fixed-collaborator
        return $file->next();
    }

    // Near miss: who makes the desk says which file.
    public function low(): string
    {
        $file = new TideFile($this->path);  // near: coupling.fixed-collaborator
        return $file->next();
    }
}

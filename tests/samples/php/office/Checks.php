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

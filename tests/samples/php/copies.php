<?php
// A local that has got the list has a copy of its own.
$intervals = [0 => 'never', 1 => 'each tide'];  // harmless: $intervals

function intervalsOf(string $desk): array
{
    global $intervals;
    $own = $intervals;
    $own[0] .= ' (' . $desk . ')';
    return $own;
}

<?php
// A local that has got the list has a copy of its own.
function label(string $text): string
{
    return strtolower($text);
}

$intervals = [0 => label('Never'), 1 => label('Each tide')];  // harmless: $intervals

class Feeds
{
    public function edit(string $desk): void
    {
        global $intervals;
        $own = $intervals;
        $own[0] .= sprintf(' (%s)', $intervals[1] . $desk);
        echo implode(',', $own);
    }
}

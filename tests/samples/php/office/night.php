<?php
// The globals of a file with a namespace: their names belong to none, what they are made of does.
namespace Office\Night;

final class Logbook
{
    private array $lines = [];

    public function note(string $line): void
    {
        $this->lines[] = $line;
    }

    public function pages(): int
    {
        return intdiv(count($this->lines), 40) + 1;
    }
}

$logbook = new Logbook();  // entity: shared-instance $logbook eager language
$watches = 0;  // entity: global-variable $watches eager language

function begin(string $officer): void
{
    global $logbook, $watches;
    $logbook->note($officer);
    ++$watches;
}

final class Relief
{
    public function hand(string $from, string $to): void
    {
        global $logbook;
        $logbook->note($from . ' hands over to ' . $to . ' on page ' . $logbook->pages());  // finding: coupling.hidden-dependency
    }
}

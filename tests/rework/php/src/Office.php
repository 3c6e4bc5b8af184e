<?php
namespace Harbour;

use Harbour\Tides\TideTable;

class Pilot
{
    private string $name;
    private int $draught;

    public function __construct(string $name, int $draught = 1)
    {
        $this->name = $name;
        $this->draught = $draught;
    }

    public function advice(int $hour): string
    {
        $deep = TideTable::table()->height($hour) > $this->draught;
        return $this->name . ($deep ? ' sails at ' : ' waits at ') . $hour;
    }
}

class Ferry
{
    public function departure(): int
    {
        $hour = 0;
        while (TideTable::table()->height($hour) < 6) {
            $hour++;
        }
        return $hour;
    }
}

class Office
{
    /** @var Pilot[] */
    private array $pilots = [];

    public function hire(string $name, int $draught): void
    {
        $this->pilots[] = new Pilot($name, $draught);
    }

    public function hireSmall(string $name): void
    {
        $this->pilots[] = new Pilot($name);
    }

    public function day(): string
    {
        $lines = array_map(fn (Pilot $pilot) => $pilot->advice(4), $this->pilots);
        $lines[] = 'ferry at ' . (new Ferry())->departure();
        return implode("\n", $lines);
    }
}

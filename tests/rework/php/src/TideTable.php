<?php
namespace Harbour\Tides;

/** The tides of the day. */
final class TideTable
{
    private static ?TideTable $table = null;
    private int $asked = 0;

    private function __construct()
    {
    }

    private function __clone()
    {
    }

    public static function table(): TideTable
    {
        if (self::$table === null) {
            self::$table = new self();
        }
        return self::$table;
    }

    public function height(int $hour): int
    {
        $this->asked++;
        return 3 + $hour % 6;
    }

    public function asked(): int
    {
        return $this->asked;
    }
}

<?php
// The dues of the harbour, in a layer of their own.
namespace Quays\Ledgers;

final class HarbourDues  // entity: singleton HarbourDues lazy single-threaded
{
    private static ?HarbourDues $dues = null;
    private int $sum = 0;

    private function __construct()
    {
    }

    public static function get(): HarbourDues
    {
        if (self::$dues === null) {
            self::$dues = new HarbourDues();
        }
        return self::$dues;
    }

    public function enter(int $coins): void
    {
        $this->sum = $this->sum + $coins;
    }

    public function clear(): void
    {
        $this->sum = 0;
    }

    public function total(): int
    {
        return $this->sum;
    }

    private function __clone()
    {
    }
}

<?php
// Cloning is closed.
final class DutyLog
{
    private static ?DutyLog $log = null;
    private array $entries = [];

    private function __construct()
    {
    }

    private function __clone()
    {
    }

    public static function log(): DutyLog
    {
        if (self::$log === null) {
            self::$log = new self();
        }
        return self::$log;
    }

    public function write(string $entry): void
    {
        $this->entries[] = $entry;
    }
}

<?php
interface Keeper
{
    public function heard(int $signal): void;
}

final class SignalMast
{
    private static ?SignalMast $mast = null;
    private array $keepers = [];

    public static function get(): SignalMast
    {
        if (self::$mast === null) {
            self::$mast = new SignalMast();
        }
        return self::$mast;
    }

    public function attach(Keeper $keeper): void
    {
        $this->keepers[] = $keeper;
    }

    public function raise(int $signal): void
    {
        foreach ($this->keepers as $keeper) {
            $keeper->heard($signal);
        }
    }
}

class Lookout implements Keeper
{
    public int $last = 0;

    public function __construct()
    {
        SignalMast::get()->attach($this);
    }

    public function heard(int $signal): void
    {
        $this->last = $signal;
    }

    public function close(): void
    {
        $this->last = 0;
    }
}

$lookout = new Lookout();
SignalMast::get()->raise(3);
echo $lookout->last, "\n";
$lookout->close();

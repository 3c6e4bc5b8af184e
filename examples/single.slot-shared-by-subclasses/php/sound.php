<?php
// A slot for each class, in a table by class.
class Office
{
    private static $offices = [];

    public static function office()
    {
        if (!isset(self::$offices[static::class])) {
            self::$offices[static::class] = new static();
        }
        return self::$offices[static::class];
    }
}

class NightOffice extends Office
{
}

Office::office();
$night = NightOffice::office() instanceof NightOffice;
echo $night ? "a night office\n" : "a day office at night\n";
exit($night ? 0 : 1);

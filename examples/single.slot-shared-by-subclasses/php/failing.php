<?php
// The night office finds the day office in the slot that both use.
class Office
{
    private static $office = null;

    public static function office()
    {
        if (self::$office === null) {
            self::$office = new static();
        }
        return self::$office;
    }
}

class NightOffice extends Office
{
}

Office::office();
$night = NightOffice::office() instanceof NightOffice;
echo $night ? "a night office\n" : "a day office at night\n";
exit($night ? 0 : 1);

<?php
// A table of what was worked out, and a stand-in that its tests put back.
namespace Asked;

class Soundings  // entity: static-holder Soundings eager language
{
    private static $known = [];

    public static function isDeep($mark)
    {
        if (isset(self::$known[$mark])) {
            return self::$known[$mark];
        }

        return self::$known[$mark] = strlen($mark) > 3;
    }
}

class StandIn  // entity: static-holder StandIn eager language
{
    private static $hosts = [];

    public static function withHosts(array $hosts)
    {
        self::$hosts = $hosts;
    }

    public static function has($host)
    {
        return isset(self::$hosts[$host]);
    }
}

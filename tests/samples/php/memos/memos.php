<?php
// A table that is worked out once from constants, and one that grows by what is asked for.
function entities() {
    static $table;  // harmless: table
    if (empty($table)) {
        $table = get_html_translation_table(HTML_ENTITIES);
        $table["\t"] = ' ';
    }
    return $table["\n"];
}

class Crane {
    public $lifts = 0;
    public function lift() { $this->lifts++; }
}

class Cranes {
    private static $cranes = [];  // entity: registry cranes eager language
    public static function get($name) {
        if (!isset(self::$cranes[$name])) {
            self::$cranes[$name] = new Crane();
        }
        return self::$cranes[$name];
    }
}

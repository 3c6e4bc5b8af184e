<?php
// Where globals and statics begin.
$lastError = false;  // entity: global-variable $lastError eager language

class Template {
  public function fill($path) {
    $GLOBALS['shownPath'] = strtoupper($path);  // entity: global-variable $shownPath lazy single-threaded
    return $GLOBALS['shownPath'];
  }

  public static function mode() {
    static $mode;  // harmless: mode
    if (!isset($mode)) {
      $mode = (int) getenv('MODE');
    }
    return $mode;
  }

  public static function count($name) {
    static $counts = [];  // entity: function-static counts eager language
    $counts[$name] = ($counts[$name] ?? 0) + 1;
    return $counts[$name];
  }

  public static function fetch($url) {
    global $lastError;
    $lastError = (int) substr($url, 1);
    return $lastError;
  }
}

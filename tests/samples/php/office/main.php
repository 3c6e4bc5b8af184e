<html>
<?php
use Harbour\Office\BerthBook;
use Harbour\Office\Settings;

$config = ['port' => 'north'];  // entity: global-variable $config eager language
$local = 4;

class Arrivals
{
    public function arrive($ship)
    {
        global $config;
        BerthBook::getInstance()->assign($ship, 4);  // finding: coupling.hidden-dependency
        $book = BerthBook::getInstance();
        $config['last'] = $ship;  // finding: coupling.hidden-dependency
        Settings::set('last', $ship);  // finding: coupling.hidden-dependency
        return $book->count() + Settings::get('last') + Harbour\Office\draw();
    }
}
echo (new Arrivals())->arrive('Elm') + $local;
?>
</html>

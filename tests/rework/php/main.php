<?php
require __DIR__ . '/src/TideTable.php';
require __DIR__ . '/src/Office.php';

use Harbour\Office;
use Harbour\Tides\TideTable;

$office = new Office();
$office->hire('Wren', 8);
$office->hireSmall('Tern');
echo $office->day(), "\n";
echo TideTable::table()->asked(), " looks\n";

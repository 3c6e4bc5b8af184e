<?php
require_once __DIR__ . '/../ledgers/fees.php';

// Leaves behind what it set.
function testTwice(): void {
    global $fees;
    $fees->total = 30;  // finding: coupling.test-leak
    if ($fees->total !== 30) {
        throw new RuntimeException('total');
    }
}

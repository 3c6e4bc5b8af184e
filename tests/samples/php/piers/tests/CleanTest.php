<?php
require_once __DIR__ . '/../ledgers/fees.php';

// Near miss: puts back what it found.
function testOnce(): void {
    global $fees;
    $before = $fees->total;
    $fees->total = 30;  // near: coupling.test-leak
    $fees->total = $before;
}

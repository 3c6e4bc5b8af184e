<?php
// The fees of the pilots, in a layer of their own.
class PilotFees
{
    public int $total = 0;

    public function enter(int $coins): void {
        $this->total = $coins;
    }

}

$fees = new PilotFees();  // entity: shared-instance $fees eager language

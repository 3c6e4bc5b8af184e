package main

import "testing"

func TestPilotWaitsForWater(t *testing.T) {
	if (&Pilot{}).MayEnter(9, 1) {
		t.Fatal("too shallow")
	}
}

func TestSluiceRaises(t *testing.T) {
	(&Sluice{}).Open()
	if !(&Pilot{}).MayEnter(4, 0) {
		t.Fatal("deep enough by now")
	}
}

// A day at the harbour office: its output shows that nothing changed.
#include <fstream>
#include <iostream>

#include "duty.h"
#include "harbour_clock.h"
#include "night_watch.h"
#include "pilot_roster.h"
#include "scales.h"
#include "signal_mast.h"
#include "tide_table.h"
#include "traffic.h"

int main(int argc, char** argv) {
  using namespace office;

  Officer officer("first officer");
  setOfficerOnWatch(&officer);
  HarbourMaster master("harbour master");
  Lantern lantern;
  FogHorn horn;

  PilotRoster::roster()->signOn("pilot one");
  std::cout << officerOnWatch()->name() << " on watch, " << PilotRoster::roster()->strength() << " pilot\n";
  harbourClock.nextDay();
  if (const Tide* tide = tideTable.on(harbourClock.day())) std::cout << "high water " << tide->high << " cm\n";

  for (const char* ship : {"Gannet", "Petrel", "Fulmar"}) std::cout << ship << " at berth " << master.receive(ship) << "\n";
  std::cout << master.serve(0, 1) << "\n" << master.serve(1, 2) << "\n" << master.serve(1, 9) << "\n";
  master.dismiss(2);
  SignalMast::mast().hoist("night");
  SignalMast::mast().hoist("fog");

  NightWatch watch;
  watch.start();
  PilotRoster::roster()->signOn("pilot two");
  takeTicket();
  nextBuoy();
  watch.stop();

  Launch launch;
  Tariff::set(300);
  int kilos[] = {120, 340};
  lastSounding = 57;
  pilotBoat("Tern").trip();
  std::cout << "weighed " << weighAll(kilos, 2) << " kg for " << Tariff::of(2) << " cents, slip " << WeighSlip::instance(80)->kilos() << "\n";
  std::cout << "buoy " << nextBuoy() << ", launch " << Launch::launched() << ", trips " << pilotBoat("Tern").trips() << ", sounding " << lastSounding << "\n";
  std::cout << "lantern " << (lantern.lit() ? "lit" : "dark") << ", horn " << horn.blasts() << ", tickets " << nextTicket << "\n";
  std::cout << master.summary() << "\n";
  if (argc > 1) std::ofstream(argv[1]) << master.summary() << "\n";
  return 0;
}

// Only tests set the clock: to the program it is the time of the day.
#pragma once

class HarbourClock {  // near: coupling.wide-reach  // entity: static-holder HarbourClock eager language
 public:
  static double now();
  static void setNow(double seconds);
  static void forward(double seconds);

 private:
  static double fixed_;
};

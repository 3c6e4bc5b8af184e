using System;

// A subscriber makes no event; a value that may be missing is worked out when it is asked for.
static class Crayon {  // entity: static-holder Crayon eager language
  public static event EventHandler Changed;
  static bool? colours;  // harmless: colours

  public static bool Colours {
    get {
      if (!colours.HasValue) {
        colours = Environment.GetEnvironmentVariable("TERM") != null;
      }
      return colours.Value;
    }
  }

  public static void Tell() {
    if (Changed != null) Changed(null, EventArgs.Empty);
  }
}

class Painter {
  void Start() {
    Crayon.Changed += delegate(object sender, EventArgs e) { Console.WriteLine("changed"); };
  }
}

import java.util.function.Supplier;

/**
 * Endpoint of the harbour radio. Accepts a singleton {@link Runnable} instance, or one that is made for each call. May point to a
 * manually registered singleton instance without a name.
 */
class RadioEndpoint { // near: single.meant-single
  private final Runnable call;

  RadioEndpoint(Runnable call) {
    this.call = call;
  }

  void ring() {
    call.run();
  }
}

/** Works with models of making such as "singleton" and "per call". */
class RadioModel { // near: single.meant-single
  final String name;

  RadioModel(String name) {
    this.name = name;
  }
}

/** Implementation of {@link Supplier} that is backed by a specified singleton object. */
class RadioSupplier implements Supplier<String> { // near: single.meant-single
  public String get() {
    return "radio";
  }
}

/** The radio room is a singleton. */
class RadioTower { // near: single.meant-single
  int height = 3;
}

/** A singleton that keeps all calls. */
class RadioRoom { // finding: single.meant-single
  final RadioEndpoint first = new RadioEndpoint(() -> {}), second = new RadioEndpoint(() -> {});
  final RadioModel one = new RadioModel("one"), two = new RadioModel("two");
  final RadioSupplier here = new RadioSupplier(), there = new RadioSupplier();
  final RadioTower low = new RadioTower(), high = new RadioTower();
}

class RadioOffice {
  final RadioRoom day = new RadioRoom(), night = new RadioRoom();
}

/** What an object works out from itself and keeps is no change, and who asks one of them for another gets to no service. */
class CargoKind {
  static final CargoKind NONE = new CargoKind(""); // near: coupling.wide-reach  // harmless: NONE
  private final String name;
  private volatile CargoKind wider;

  private CargoKind(String name) {
    this.name = name;
  }

  static CargoKind of(String name) {
    return new CargoKind(name);
  }

  CargoKind wider() {
    if (name.isEmpty()) return NONE;
    if (wider == null) wider = of(name.substring(1));
    return wider;
  }
}

class KindDeskA {
  CargoKind see(CargoKind one) {
    return one == CargoKind.NONE ? one : one.wider();
  }
}

class KindDeskB {
  CargoKind see(CargoKind one) {
    return one == CargoKind.NONE ? one : one.wider();
  }
}

class KindDeskC {
  CargoKind see(CargoKind one) {
    return one == CargoKind.NONE ? one : one.wider();
  }
}

class KindDeskD {
  CargoKind see(CargoKind one) {
    return one == CargoKind.NONE ? one : one.wider();
  }
}

class KindDeskE {
  CargoKind see(CargoKind one) {
    return one == CargoKind.NONE ? one : one.wider();
  }
}

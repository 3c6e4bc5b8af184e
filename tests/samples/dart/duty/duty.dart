// Reads the environment.
class NamePlate {  // entity: singleton NamePlate lazy language
  static final NamePlate plate = NamePlate._();
  String? name;

  NamePlate._() {
    name = Platform.environment['HARBOUR'];  // finding: init.reads-environment
  }

  void rename(String newName) {
    name = newName;
  }
}

import 'dart:io';

class TideFile {
  final String path;
  TideFile(this.path);
  String read() => File(path).readAsStringSync();
}

class Desk {
  final String port;
  final TideFile tides;

  Desk(this.port) : tides = TideFile('$port.txt');

  int height() => tides.read().length;
}

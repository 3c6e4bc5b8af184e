class Stairs {
  int _steps = 0;

  Stairs() {
    this._steps = heights['stairs'] ?? 0;
  }

  void climb() {
    this._steps = heights['stairs'] ?? 0;
  }
}

final stairs = Stairs();  // entity: shared-instance stairs lazy language
final heights = <String, int>{};  // entity: global-variable heights lazy language

void raiseStairs(int by) {
  heights['stairs'] = by;
}

// Others run while it is made; near misses: nothing runs in between, or what is promised is kept.
class Radio {
  int _channel = 16;

  void tune(int channel) {
    this._channel = channel;
  }
}

Radio? radioNow;  // entity: shared-instance radioNow lazy single-threaded
Radio? sonarNow;  // entity: shared-instance sonarNow lazy single-threaded
Future<Radio>? radarNow;  // entity: global-variable radarNow elsewhere single-threaded

Future<Radio> radio() async {
  if (radioNow == null) {
    final channel = await askForChannel();  // finding: thread.await-gap
    radioNow = Radio();
    radioNow!.tune(channel);
  }
  return radioNow!;
}

Future<Radio> sonar() async {
  final channel = await askForChannel();  // near: thread.await-gap
  if (sonarNow == null) {
    sonarNow = Radio();
    sonarNow!.tune(channel);
  }
  return sonarNow!;
}

Future<int> askForChannel() async {
  return 16;
}

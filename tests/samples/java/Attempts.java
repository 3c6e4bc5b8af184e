// What fails while an object is made: one that does without, and one that does not.
import org.json.JSONException;
import org.json.JSONObject;

class Settings {  // entity: singleton Settings eager language
  private static Settings shared = new Settings();
  private JSONObject values;

  private Settings() {
    try {
      values = new JSONObject("{}");
    } catch (JSONException e) {
    }
  }

  static Settings shared() {
    return shared;
  }

  boolean has(String key) {
    if (values == null) return false;
    return values.has(key);
  }

  void put(String key, int value) {
    if (values != null) values.put(key, value);
  }
}

class Tariffs {  // entity: singleton Tariffs eager language
  private static Tariffs shared = new Tariffs();
  private JSONObject values;

  private Tariffs() {
    try {
      values = new JSONObject("{}");
    } catch (JSONException e) {  // finding: init.failure-swallowed
    }
  }

  static Tariffs shared() {
    return shared;
  }

  int of(String ship) {
    return values.getInt(ship);
  }

  void put(String ship, int value) {
    values.put(ship, value);
  }
}

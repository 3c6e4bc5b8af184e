let posted = 0;  // entity: global-variable posted eager language

export function post() {
  posted += 1;
}

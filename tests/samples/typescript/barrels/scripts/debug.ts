// Scripts share their namespaces.
namespace office {
  export namespace Debug {
    export let on = false;  // entity: global-variable on eager language
  }
}

namespace office {
  export function start(): void {
    Debug.on = true;
  }
}

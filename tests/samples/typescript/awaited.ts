// What is waited for on a way that leaves lies not between the test and the assignment.
let lost: Promise<void> | undefined;  // entity: global-variable lost lazy single-threaded
let table: Promise<string> | undefined;  // entity: global-variable table lazy single-threaded

export async function tellLost(tell: () => Promise<void>): Promise<void> {
  if (lost) {
    await lost;  // near: thread.await-gap
    return;
  }
  lost = tell();
  await lost;
}

async function load(): Promise<string> {
  return 'high water at six';
}

export async function loadTable(): Promise<string> {
  if (!table) {
    await tellLost(async () => {});  // finding: thread.await-gap
    table = load();
  }
  return table;
}

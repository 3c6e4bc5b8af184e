// A module that is loaded when it is first asked for is one and the same; a list that is only replaced bears a walk.
let post;  // entity: global-variable post lazy single-threaded

export async function report(text) {
  if (!post) {
    post = (await import("./post.js")).post;  // near: thread.await-gap
  }
  await post(text);
}

let listeners = [];  // entity: global-variable listeners eager language

export function announce(ship) {
  for (const listener of listeners) listener(ship);  // near: lifetime.notify-while-changing
}

export function listen(listener) {
  listeners = [...listeners, listener];
  return () => {
    listeners = listeners.filter((one) => one !== listener);
  };
}
